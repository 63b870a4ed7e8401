// What happens when a drawing of thousands of shapes arrives, step by step: node --expose-gc --import tsx bench/many-shapes.ts. Steps of the page itself are
// marked; one of them may take 100 ms at most. What the worker leaves behind is swept up before a step of the page: in the browser it lies in another heap.
import {
  addFigure,
  compilePiece,
  emptyPiece,
  findingOfChange,
  insertPoses,
  layOutAt,
  type Piece,
  type PieceDraft,
  planPoseShift,
  posesOfArrival,
  prepareFrame,
  readSvg,
  sampleFrame,
  shiftInput,
  storableReading,
} from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { makeChange } from '../web/src/state/change';

const COUNT = 4_900;
const POSES = 40;
const circles = (place: (i: number) => string, paint: (i: number) => string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 700 700">${Array.from({ length: COUNT }, (_, i) => `<circle ${place(i)} fill="${paint(i)}"/>`).join('')}</svg>`;
const spread = (i: number): string => `cx="${5 + 10 * (i % 70)}" cy="${5 + 10 * Math.floor(i / 70)}" r="4"`;
const DRAWINGS: Readonly<Record<string, string>> = {
  'in one place, one paint': circles(
    () => 'cx="350" cy="350" r="40"',
    () => 'teal',
  ),
  'rings in each other, one paint': circles(
    (i) => `cx="350" cy="350" r="${340 - i * 0.06}"`,
    () => 'teal',
  ),
  'spread out, one paint': circles(spread, () => 'teal'),
  'spread out, paints in turn': circles(spread, (i) => (i % 2 ? 'teal' : 'plum')),
};

let id = 0;
const newId = (prefix: string): string => `${prefix}-${id++}`;
const step = <T>(what: string, page: boolean, work: () => T): T => {
  if (page) (globalThis as { gc?: () => void }).gc?.();
  const started = performance.now();
  const result = work();
  const ms = performance.now() - started;
  console.log(
    `  ${page ? 'page  ' : 'worker'} ${what.padEnd(36)} ${ms.toFixed(0).padStart(6)} ms${page && ms > 100 ? '  TOO LONG' : ''}`,
  );
  return result;
};
const add = (piece: Piece, poses: ReturnType<typeof posesOfArrival>): Piece =>
  makeChange(piece, '', (draft) => {
    if (!draft.figures.f) addFigure(draft as PieceDraft, 'f', 'Figure');
    insertPoses(draft as PieceDraft, 'f', poses, newId);
  })?.piece ?? piece;
for (const [name, text] of Object.entries(DRAWINGS)) {
  console.log(`${COUNT} circles ${name}`);
  const reading = step('read', false, () => storableReading(readSvg(text)));
  const empty = emptyPiece('many', 'Many');
  const one = step('becomes a pose', false, () => posesOfArrival([{ name: 'A', reading }], 'parts', null, newId));
  const first = step('is put into the piece', true, () => add(empty, one));
  step('is checked', true, () => findingOfChange(empty, first));
  const two = posesOfArrival([{ name: 'B', reading }], 'parts', null, newId);
  const second = step('the next one is put into the piece', true, () => add(first, two));
  step('is checked', true, () => findingOfChange(first, second));
  const shift = Object.values(second.shifts)[0];
  step('input of the shift', true, () => shiftInput(second, shift));
  const compiled = step('compiled without plans', true, () => compilePiece(second, () => undefined));
  const frame = prepareFrame(compiled);
  // As `Showing` does it on the page: 30 ms a step.
  for (let isOut = false; !isOut; )
    isOut = step('laid out, a step', true, () => {
      const end = performance.now() + 30;
      return layOutAt(compiled, 0, () => performance.now() >= end);
    });
  step('a frame', true, () => sampleFrame(compiled, 0, frame));
  const named = step(
    'renamed',
    true,
    () => makeChange(second, '', (draft) => void (draft.name = 'Other'))?.piece ?? second,
  );
  step('checked', true, () => findingOfChange(second, named));
}

console.log(`${POSES} poses of an icon each`);
const icons = realIcons(POSES, 7).map(({ d }) => `<svg viewBox="0 0 100 100"><path d="${d}"/></svg>`);
const readings = icons.map((svg, i) => ({ name: `Icon ${i}`, reading: storableReading(readSvg(svg)) }));
const chain = posesOfArrival(readings, 'poses', null, newId);
const none = emptyPiece('chain', 'Chain');
const whole = step('are put into the piece', true, () => add(none, chain));
step('are checked', true, () => findingOfChange(none, whole));
const inputs = step('inputs of all shifts', true, () =>
  Object.values(whole.shifts).map((shift) => shiftInput(whole, shift)),
);
const plans = new Map(
  step('plans', false, () => Object.keys(whole.shifts).map((key, i) => [key, planPoseShift(inputs[i])])),
);
const chained = step('compiled', true, () => compilePiece(whole, (shift) => plans.get(shift.id)));
const shown = prepareFrame(chained);
step('100 frames', true, () => {
  for (let k = 0; k < 100; k++) sampleFrame(chained, (k * chained.duration) / 100, shown);
});
const retimed = step(
  'a hold is changed',
  true,
  () => makeChange(whole, '', (draft) => void (draft.poses[draft.figures.f.poses[20]].hold = 2))?.piece ?? whole,
);
step('inputs of all shifts', true, () => Object.values(retimed.shifts).map((shift) => shiftInput(retimed, shift)));
step('compiled', true, () => compilePiece(retimed, (shift) => plans.get(shift.id)));
