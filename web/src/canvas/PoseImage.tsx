import type { PosePicture } from './pose-picture';

/** A pose in its own paint; decoration, so it has no name of its own. */
export function PoseImage({
  picture,
  size,
  ...place
}: {
  readonly picture: PosePicture;
  readonly size: number;
  readonly x?: number;
  readonly y?: number;
}) {
  return (
    <svg viewBox={picture.viewBox} width={size} height={size} aria-hidden="true" {...place}>
      {picture.parts.map((part, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity beyond their order
          key={i}
          d={part.d}
          fill={part.fill}
          fillRule={part.fillRule}
          stroke={part.stroke?.colour}
          strokeWidth={part.stroke?.width}
          strokeLinecap={part.stroke?.cap}
          strokeLinejoin={part.stroke?.join}
        />
      ))}
    </svg>
  );
}
