import type { Easing } from './easing';

/** A named easing of the program. */
export interface EasingPreset {
  readonly id: string;
  readonly label: string;
  readonly hint: string;
  readonly easing: Easing;
}

const curve = (x1: number, y1: number, x2: number, y2: number): Easing => ({ kind: 'cubic-bezier', x1, y1, x2, y2 });

/** What a new shift gets: leaves gently, arrives more gently. */
export const DEFAULT_EASING: Easing = curve(0.5, 0, 0.15, 1);

export const EASING_PRESETS: readonly EasingPreset[] = [
  { id: 'glide', label: 'Glide', hint: 'Leaves gently, arrives more gently', easing: DEFAULT_EASING },
  { id: 'settle', label: 'Settle', hint: 'Leaves at once and comes to rest slowly', easing: curve(0.1, 0.6, 0.2, 1) },
  { id: 'depart', label: 'Depart', hint: 'Gathers speed and arrives fast', easing: curve(0.7, 0, 0.9, 0.5) },
  { id: 'swing', label: 'Swing', hint: 'The same slow start and slow end', easing: curve(0.65, 0, 0.35, 1) },
  { id: 'wind-up', label: 'Wind up', hint: 'Draws back a little before it goes', easing: curve(0.5, -0.35, 0.3, 1) },
  {
    id: 'overshoot',
    label: 'Overshoot',
    hint: 'Goes a little too far and comes back',
    easing: curve(0.3, 0.1, 0.25, 1.35),
  },
  {
    id: 'spring',
    label: 'Spring',
    hint: 'Swings beyond its end and comes to rest',
    easing: { kind: 'spring', bounce: 0.4 },
  },
  { id: 'even', label: 'Linear', hint: 'The same speed all the way; looks mechanical', easing: { kind: 'linear' } },
];
