import { type Gradient, isGradient, type Paint } from '@core';
import { useId } from 'react';
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
  const id = useId();
  const gradients: { id: string; gradient: Gradient }[] = [];
  const paint = (value: Paint | null | undefined): string => {
    if (!isGradient(value)) return value ?? 'none';
    gradients.push({ id: `${id}${gradients.length}`, gradient: value });
    return `url(#${gradients[gradients.length - 1].id})`;
  };
  const paths = picture.parts.map((part, i) => (
    <path
      // biome-ignore lint/suspicious/noArrayIndexKey: parts have no identity beyond their order
      key={i}
      d={part.d}
      fill={paint(part.fill)}
      fillRule={part.fillRule}
      stroke={paint(part.stroke?.paint)}
      strokeWidth={part.stroke?.width}
      strokeLinecap={part.stroke?.cap}
      strokeLinejoin={part.stroke?.join}
      strokeMiterlimit={part.stroke?.miter}
      strokeDasharray={part.stroke && part.stroke.dash.length > 0 ? part.stroke.dash.join(' ') : undefined}
      strokeDashoffset={part.stroke?.dashOffset || undefined}
    />
  ));
  return (
    <svg viewBox={picture.viewBox} width={size} height={size} aria-hidden="true" {...place}>
      {gradients.length > 0 && (
        <defs>
          {gradients.map((entry) => (
            <GradientDef key={entry.id} {...entry} />
          ))}
        </defs>
      )}
      <g transform={picture.transform}>{paths}</g>
    </svg>
  );
}

function GradientDef({ id, gradient }: { readonly id: string; readonly gradient: Gradient }) {
  const stops = gradient.stops.map(({ at, colour }, i) => (
    // biome-ignore lint/suspicious/noArrayIndexKey: stops have no identity beyond their order
    <stop key={i} offset={at} stopColor={colour} />
  ));
  if (gradient.kind === 'linear') {
    const { from, to } = gradient;
    return (
      <linearGradient id={id} gradientUnits="userSpaceOnUse" x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]}>
        {stops}
      </linearGradient>
    );
  }
  const { centre, radii, rotation, focus } = gradient;
  return (
    <radialGradient
      id={id}
      gradientUnits="userSpaceOnUse"
      cx={0}
      cy={0}
      r={1}
      fx={focus[0]}
      fy={focus[1]}
      gradientTransform={`translate(${centre.join(' ')}) rotate(${rotation}) scale(${radii.join(' ')})`}
    >
      {stops}
    </radialGradient>
  );
}
