import { CENTRE_RULES, DEFAULT_RULE, FIT_RULES, type PlacementRule, SHAPE_KINDS, type ShapeKind } from '@core';
import { DRAWS_AS, type DrawsAs, type SnapChoices } from './drawing-choices';

/** Drawing choices that a browser remembers. */
export interface DrawingPreferences {
  readonly snap: SnapChoices;
  readonly rulers: boolean;
  /** Points of several figures that lie on each other move together. */
  readonly together: boolean;
  readonly drawsAs: DrawsAs;
  readonly shapeKind: ShapeKind;
  /** Does a tool stay at hand after it has drawn something? */
  readonly keepTool: boolean;
  /** Are the columns at the sides unfolded? */
  readonly left: boolean;
  readonly right: boolean;
  /** How wide they are, CSS px. */
  readonly widths: { readonly left: number; readonly right: number };
}

/** A choice kept in this browser: under which name, and what is made of whatever is found there, of any age. */
interface Preference<T> {
  readonly key: string;
  repair(stored: unknown): T;
}

const among = <T extends string>(all: readonly T[], value: unknown, otherwise: T): T =>
  all.includes(value as T) ? (value as T) : otherwise;
const flag = (value: unknown, otherwise: boolean): boolean => (typeof value === 'boolean' ? value : otherwise);
const size = (value: unknown, otherwise: number): number =>
  typeof value === 'number' && value >= 100 && value <= 1000 ? value : otherwise;
const fields = (stored: unknown): Record<string, unknown> =>
  typeof stored === 'object' && stored !== null ? (stored as Record<string, unknown>) : {};

const SNAP: SnapChoices = { points: true, outlines: false, centres: true, guides: true, grid: false };
const MOST_COLOURS = 12;

/** Everything that a browser remembers for its user, a row each. */
export const PREFERENCES = {
  /** null: as the system has it. */
  theme: {
    key: 'arcshift.theme',
    repair: (stored) => (stored === 'dark' || stored === 'light' ? stored : null),
  } satisfies Preference<'light' | 'dark' | null>,
  drawing: {
    key: 'arcshift.drawing',
    repair(stored): DrawingPreferences {
      const { snap, rulers, together, drawsAs, shapeKind, keepTool, left, right, widths } = fields(stored);
      const snaps = fields(snap);
      return {
        snap: Object.fromEntries(
          Object.entries(SNAP).map(([name, otherwise]) => [name, flag(snaps[name], otherwise)]),
        ) as unknown as SnapChoices,
        rulers: flag(rulers, false),
        together: flag(together, true),
        drawsAs: among(DRAWS_AS, drawsAs, 'figure'),
        shapeKind: among(SHAPE_KINDS, shapeKind, 'rectangle'),
        keepTool: flag(keepTool, true),
        left: flag(left, true),
        right: flag(right, true),
        widths: {
          left: size(fields(widths).left, 206),
          right: size(fields(widths).right, 284),
        },
      };
    },
  } satisfies Preference<DrawingPreferences>,
  /** How much of the Timing room's height the lanes were given, %; null: as much as they need. */
  lanesShare: {
    key: 'arcshift.lanes-share',
    repair: (stored) => (typeof stored === 'number' && stored >= 10 && stored <= 75 ? stored : null),
  } satisfies Preference<number | null>,
  /** How arriving shapes find their place; a box belongs to its piece and is not remembered. */
  placementRule: {
    key: 'arcshift.placement-rule',
    repair(stored): PlacementRule {
      const { centre, fit, to } = fields(stored);
      return {
        centre: among(CENTRE_RULES, centre, DEFAULT_RULE.centre),
        fit: among(FIT_RULES, fit, DEFAULT_RULE.fit),
        to: to === 'canvas' ? 'canvas' : DEFAULT_RULE.to,
      };
    },
  } satisfies Preference<PlacementRule>,
  font: {
    key: 'arcshift.font',
    repair: (stored) => (typeof stored === 'string' && stored !== '' ? stored : 'archivo-black'),
  } satisfies Preference<string>,
  /** Colours used last, the latest first. */
  recentColours: {
    key: 'arcshift.recent-colours',
    repair: (stored) =>
      (Array.isArray(stored) ? stored : []).filter((c): c is string => typeof c === 'string').slice(0, MOST_COLOURS),
  } satisfies Preference<string[]>,
  /** The form of output taken out last, and the options of each; every form checks its own. */
  outputs: {
    key: 'arcshift.outputs',
    repair(stored): { form: string; options: Record<string, Record<string, string>> } {
      const { form, options } = fields(stored);
      return {
        form: typeof form === 'string' ? form : '',
        options: Object.fromEntries(
          Object.entries(fields(options)).map(([id, chosen]) => [id, fields(chosen) as Record<string, string>]),
        ),
      };
    },
  } satisfies Preference<{ form: string; options: Record<string, Record<string, string>> }>,
  /** Settings of outputs that were kept under a name; every form checks its own. */
  outputPresets: {
    key: 'arcshift.output-presets',
    repair: (stored): { name: string; form: string; options: Record<string, string> }[] =>
      (Array.isArray(stored) ? stored : []).flatMap((each) => {
        const { name, form, options } = fields(each);
        return typeof name === 'string' && name !== '' && typeof form === 'string'
          ? [{ name, form, options: fields(options) as Record<string, string> }]
          : [];
      }),
  } satisfies Preference<{ name: string; form: string; options: Record<string, string> }[]>,
} as const;

type PreferenceId = keyof typeof PREFERENCES;
type ValueOf<K extends PreferenceId> = ReturnType<(typeof PREFERENCES)[K]['repair']>;

/** What this browser remembers; the default where it remembers nothing that can be used. */
export function remembered<K extends PreferenceId>(id: K): ValueOf<K> {
  const { key, repair } = PREFERENCES[id];
  let stored: unknown;
  try {
    const text = localStorage.getItem(key);
    stored = text === null ? undefined : parsed(text);
  } catch {
    // Private windows may refuse storage.
  }
  return repair(stored) as ValueOf<K>;
}

/** Words were once kept without quotes. */
function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return text;
  }
}

/** Remembers a choice for the next time; without storage it lasts until the page is closed. */
export function remember<K extends PreferenceId>(id: K, value: ValueOf<K>): void {
  try {
    localStorage.setItem(PREFERENCES[id].key, JSON.stringify(value));
  } catch {
    // Nothing is lost but the convenience.
  }
}
