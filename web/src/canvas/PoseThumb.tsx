import type { Context2D, MotionSample, Part, Piece, Pose } from '@core';
import { useEffect, useRef, useState } from 'react';
import { makeCanvas } from '../workers';
import { PoseImage } from './PoseImage';
import { isLarge, PaintedPoses } from './painted-poses';
import { posePicture } from './pose-picture';

interface Place {
  readonly size: number;
  readonly x?: number;
  readonly y?: number;
}

/**
 * A pose of the piece, as it is in itself or as its figure shows it at a stop; of elements or, where they would be too many, painted. Decoration, so it has no
 * name of its own.
 */
export function PoseThumb({
  piece,
  pose,
  seen,
  ...place
}: {
  readonly piece: Piece;
  readonly pose: Pose;
  /** As its figure shows it, turned, shaped and coloured by lanes. */
  readonly seen?: { readonly parts: readonly Part[]; readonly motion: MotionSample | null };
} & Place) {
  const parts = seen?.parts ?? pose.parts.map((id) => piece.parts[id]);
  if (isLarge(parts)) return <PaintedPose parts={parts} pose={pose} {...place} />;
  return <PoseImage picture={posePicture(pose, parts, seen?.motion)} {...place} />;
}

/** Until a changed pose is painted the picture from before stays. */
function PaintedPose({
  parts,
  pose: { placement },
  size,
  ...place
}: { readonly parts: readonly Part[]; readonly pose: Pose } & Place) {
  const [address, setAddress] = useState<string>();
  // Parts come as another list at each rendering; the picture is asked for again when one of them is another record.
  const asked = useRef(parts);
  if (parts.length !== asked.current.length || parts.some((part, i) => part !== asked.current[i]))
    asked.current = parts;
  const wanted = asked.current;
  useEffect(() => {
    const { done, leave } = paintedPoses.of(wanted, placement);
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
  }, [wanted, placement]);
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
