import type { LaneProperty } from '@core';

/** What lanes are called, and how their values are written. */
interface LaneWords {
  readonly label: string;
  readonly unit: string;
  /** Names of its numbers. */
  readonly parts: readonly string[];
  /** What an arrow key changes a number by, and how many decimals it has. */
  readonly step: number;
  readonly digits: number;
  /** Numbers as they are shown and typed, for each one stored. */
  readonly factor: number;
}

export const LANE_WORDS: Readonly<Record<LaneProperty, LaneWords>> = {
  position: { label: 'Position', unit: 'px', parts: ['X', 'Y'], step: 1, digits: 1, factor: 1 },
  turn: { label: 'Turn', unit: '°', parts: ['Turn'], step: 1, digits: 1, factor: 1 },
  scale: { label: 'Scale', unit: '%', parts: ['Across', 'Down'], step: 1, digits: 1, factor: 100 },
  opacity: { label: 'Opacity', unit: '%', parts: ['Opacity'], step: 1, digits: 1, factor: 100 },
};

/** A number of a lane as it is shown. */
export const shownNumber = (property: LaneProperty, value: number): string => {
  const { factor, digits } = LANE_WORDS[property];
  return String(+(value * factor).toFixed(digits)).replace('-', '−');
};

/** A value in words, with its unit. */
export function valueText(property: LaneProperty, value: readonly number[]): string {
  const { unit } = LANE_WORDS[property];
  const space = unit === '°' ? '' : ' ';
  const numbers = value.every((v) => v === value[0]) && property === 'scale' ? value.slice(0, 1) : value;
  return `${numbers.map((v) => shownNumber(property, v)).join(', ')}${space}${unit}`;
}
