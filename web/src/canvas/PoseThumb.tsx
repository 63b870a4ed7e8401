import type { Context2D, MotionSample, Piece, Pose } from '@core';
import { useEffect, useState } from 'react';
import { makeCanvas } from '../workers';
import { PoseImage } from './PoseImage';
import { isLarge, PaintedPoses } from './painted-poses';
import { posePicture } from './pose-picture';

interface Place {
  readonly size: number;
  readonly x?: number;
  readonly y?: number;
}

/** A pose of the piece in its own paint, of elements or, where they would be too many, painted; decoration, so it has no name of its own. */
export function PoseThumb({
  piece,
  pose,
  motion = null,
  ...place
}: {
  readonly piece: Piece;
  readonly pose: Pose;
  /** How its figure has moved it where it is shown. */
  readonly motion?: MotionSample | null;
} & Place) {
  if (isLarge(piece, pose)) return <PaintedPose piece={piece} pose={pose} {...place} />;
  return <PoseImage picture={posePicture(piece, pose, motion)} {...place} />;
}

/** Until a changed pose is painted the picture from before stays. */
function PaintedPose({ piece, pose, size, ...place }: { readonly piece: Piece; readonly pose: Pose } & Place) {
  const [address, setAddress] = useState<string>();
  useEffect(() => {
    const { done, leave } = paintedPoses.of(piece, pose);
    let left = false;
    void done.then(
      (painted) => {
        if (!left && painted) setAddress(painted);
      },
      () => {},
    );
    return () => {
      left = true;
      leave();
    };
  }, [piece, pose]);
  return (
    <svg viewBox="0 0 1 1" width={size} height={size} aria-hidden="true" className="painted-pose" {...place}>
      {address && <image href={address} width="1" height="1" />}
    </svg>
  );
}

const paintedPoses = new PaintedPoses({
  makeCanvas,
  later: () => new Promise((resolve) => setTimeout(resolve)),
  now: () => performance.now(),
  address: async (context: Context2D) => {
    const blob = await (context.canvas as OffscreenCanvas).convertToBlob();
    return new Promise((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.onerror = () => reject(reader.error);
      reader.readAsDataURL(blob);
    });
  },
});
