import {
  type CENTRE_RULES,
  type FIT_RULES,
  type Id,
  letterBoxes,
  type Piece,
  type PlacementRule,
  poseBox,
} from '@core';
import { useEditor } from '../context';
import { workedStop } from '../editor';
import { useAppSelector } from '../state';
import { SelectField } from '../ui';

const CENTRE_LABELS = {
  area: 'by area',
  box: 'by box',
  circle: 'by enclosing circle',
  none: 'as in the file',
} as const;
const FIT_LABELS = { longest: 'longest side', area: 'area', eye: 'by eye', none: 'as in the file' } as const;
export const CENTRE_OPTIONS = (
  ['area', 'box', 'circle', 'none'] as const satisfies typeof CENTRE_RULES extends readonly (infer T)[]
    ? readonly T[]
    : never
).map((value) => ({ value, label: CENTRE_LABELS[value] }));
export const FIT_OPTIONS = (
  ['longest', 'area', 'eye', 'none'] as const satisfies typeof FIT_RULES extends readonly (infer T)[]
    ? readonly T[]
    : never
).map((value) => ({ value, label: FIT_LABELS[value] }));

/** A choice of a list begins with a capital; in a sentence it does not. */
const asChoice = <T extends string>({ value, label }: { readonly value: T; readonly label: string }) => ({
  value,
  label: label[0].toUpperCase() + label.slice(1),
});

/** What a rule fits to, in words. */
export const fitTarget = (rule: PlacementRule): string =>
  rule.to === 'previous' ? 'the pose before' : rule.to === 'canvas' ? '60 % of the canvas' : 'a box';

type Box = NonNullable<PlacementRule['box']>;

/** Boxes that a shape can be fitted into: those of other figures and of letters, also of missing ones. */
function useBoxes(
  piece: Piece,
  figureId: Id | undefined,
): { key: string; label: string; box: Box; letter?: PlacementRule['letter'] }[] {
  const editor = useEditor();
  const selection = useAppSelector((state) => state.session.selection);
  return piece.figureOrder
    .filter((id) => id !== figureId)
    .flatMap((id) => {
      const figure = piece.figures[id];
      const pose = piece.poses[figure.poses[workedStop(piece, figure, selection, editor.clock.seconds)]];
      if (!pose) return [];
      const asBox = (b: { minX: number; minY: number; maxX: number; maxY: number }): Box => [
        b.minX,
        b.minY,
        b.maxX - b.minX,
        b.maxY - b.minY,
      ];
      const whole = poseBox(piece, pose);
      if (!(whole.maxX > whole.minX)) return [];
      const letters = letterBoxes(piece, pose).map(({ text, index, character, box }) => ({
        key: `${text}:${index}`,
        label:
          character === ' '
            ? `the gap after letter ${index} of ${figure.name}`
            : `the letter ${character} of ${figure.name}`,
        box: asBox(box),
        letter: { text, index },
      }));
      return [{ key: id, label: `the box of ${figure.name}`, box: asBox(whole) }, ...letters];
    });
}

/** How a pose is centred, sized, and what it is fitted to. */
export function RuleFields({
  piece,
  figureId,
  rule,
  onChange,
}: {
  readonly piece: Piece;
  readonly figureId: Id | undefined;
  readonly rule: PlacementRule;
  readonly onChange: (rule: PlacementRule) => void;
}) {
  const boxes = useBoxes(piece, figureId);
  const { letter } = rule;
  const byLetter = letter && boxes.find(({ key }) => key === `${letter.text}:${letter.index}`);
  const same =
    rule.to === 'box'
      ? (byLetter ?? boxes.find(({ box }) => box.every((v, i) => Math.abs(v - (rule.box?.[i] ?? 0)) < 1e-6)))
      : undefined;
  const options = [
    { value: 'previous', label: 'The pose before' },
    { value: 'canvas', label: '60 % of the canvas' },
    ...boxes.map(({ key, label }) => ({ value: key, label })),
    ...(rule.to === 'box' && !same ? [{ value: 'box', label: 'A box' }] : []),
  ];
  const { box: _box, letter: _letter, ...plain } = rule;
  return (
    <>
      <SelectField
        label="Centred"
        value={rule.centre}
        options={CENTRE_OPTIONS.map(asChoice)}
        onChange={(centre) => onChange({ ...rule, centre })}
      />
      <SelectField
        label="Size"
        value={rule.fit}
        options={FIT_OPTIONS.map(asChoice)}
        onChange={(fit) => onChange({ ...rule, fit })}
      />
      <SelectField
        label="Fitted to"
        value={same?.key ?? rule.to}
        options={options}
        onChange={(value) => {
          const chosen = boxes.find(({ key }) => key === value);
          if (chosen)
            onChange({
              ...plain,
              to: 'box',
              box: chosen.box,
              ...(chosen.letter && { letter: chosen.letter }),
              fit: rule.fit === 'none' ? 'longest' : rule.fit,
            });
          else if (value !== 'box') onChange({ ...plain, to: value as 'previous' | 'canvas' });
        }}
      />
    </>
  );
}
