import type { Matrix } from '../../vec';
import type { Property, SvgStep } from '../property';

/** The least and the most that a number can be. */
export type Limits = readonly [least: number, most: number];
export const ANY: Limits = [Number.NEGATIVE_INFINITY, Number.POSITIVE_INFINITY];
export const SHARE: Limits = [0, 1];
/** A length: not below nothing. */
export const LENGTH: Limits = [0, Number.POSITIVE_INFINITY];

/** The transform of a drawing target, as far as steps need it. */
export interface TransformTarget {
  translate(x: number, y: number): void;
  /** By radians, clockwise. */
  rotate(angle: number): void;
  scale(x: number, y: number): void;
  transform(a: number, b: number, c: number, d: number, e: number, f: number): void;
}

/** One step of a figure's transform about its pivot, and how files say it. */
export interface LaneStep {
  readonly svg: SvgStep;
  /** The field of a transform (Lottie Specification 1.0, Transform), its value, and what has to stand beside it; such fields are left out where nothing is said. */
  readonly lottie: {
    readonly field: string;
    say(value: ArrayLike<number>): number | number[];
    readonly beside?: Readonly<Record<string, number>>;
  };
  apply(target: TransformTarget, value: ArrayLike<number>): void;
  matrix(value: ArrayLike<number>): Matrix;
}

/** What lanes are called, and how their values are shown and typed. */
export interface LaneWords {
  readonly label: string;
  /** What it does, in one sentence. */
  readonly about: string;
  readonly unit: string;
  /** Names of its numbers. */
  readonly parts: readonly string[];
  /** What an arrow key changes a number by, and how many decimals it has. */
  readonly step: number;
  readonly digits: number;
  /** Numbers as they are shown and typed, for each one stored. */
  readonly factor: number;
  /** Are equal numbers shown as one? */
  readonly even?: boolean;
}

/**
 * All that is known of one thing that can have a lane. Records, rules, fields, drawing, files and the table of what files keep are made from these: a new one is a
 * file here and its line in `index.ts`.
 */
export interface LaneKind {
  readonly of: 'figure' | 'canvas';
  readonly type: 'numbers' | 'colour';
  /** What adds nothing; of what stands in place of something, what it begins as where there is nothing. */
  readonly neutral: readonly number[];
  /** Of each number. */
  readonly limits: readonly Limits[];
  /** Between what numbers stay that follow, drift or pulse; left out: their limits. */
  readonly driven?: readonly Limits[];
  /** Does its value lie on top of what poses and canvas have themselves, or stand in place of it? */
  readonly lies: 'on-top' | 'in-place';
  /** What a figure must have somewhere, so that there is something to change. */
  readonly needs: 'nothing' | 'fill' | 'stroke';
  /** What it changes: a step of the transform, the opacity of all, the paint of parts, all that is painted as one layer, or what lies behind the figures. */
  readonly does: 'transform' | 'opacity' | 'paint' | 'layer' | 'ground';
  /** For a step of the transform. */
  readonly step?: LaneStep;
  readonly property: Property;
  readonly words: LaneWords;
  readonly files: {
    /** How far files of keys may stray from it, in words. */
    readonly deviation: string;
    /** Why Lottie refuses it; null: it has words for it. */
    readonly lottie: string | null;
    /** Why a clip path leaves it beside; null: it is in its points. */
    readonly clipPath: string | null;
  };
}

/** A clip path is an outline alone. */
export const PAINTLESS = 'Only the outline is taken: what it is painted with stays with the element.';

/** What all colours have in common. */
export const COLOUR = {
  type: 'colour',
  limits: [SHARE, SHARE, SHARE, SHARE],
  lies: 'in-place',
  files: { deviation: 'half a level of 255', lottie: null, clipPath: PAINTLESS },
} as const;
export const COLOUR_WORDS = { unit: '', parts: ['Colour'], step: 0, digits: 2, factor: 1 } as const;
