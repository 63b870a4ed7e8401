import { describe, expect, test } from '@jest/globals';
import { AS_DRAWN, type Part, type Piece, type PieceDraft, plainStroke } from '../../piece';
import { pieceOf } from '../../testing/pieces';
import { RecordingTarget } from '../../testing/recording-target';
import { planAndCompile } from '../lanes/plan-and-compile';
import type { Context2D } from './canvas-target';
import { drawPart } from './draw';
import { stillParts } from './sample';
import { Stage } from './stage';

/** Two figures, `f` and `g`, standing still. */
function twoFigures(): Piece {
  const draft = structuredClone(pieceOf(['M100 100H200V200H100Z'])) as PieceDraft;
  const other = structuredClone(pieceOf(['M300 300H400V400H300Z'])) as PieceDraft;
  const [pose] = Object.values(other.poses);
  const [part] = Object.values(other.parts);
  draft.poses.second = { ...pose, id: 'second', parts: ['other'] };
  draft.parts.other = { ...part, id: 'other' };
  draft.figures.g = { ...other.figures.f, id: 'g', poses: ['second'] };
  draft.figureOrder.push('g');
  for (const each of Object.values(draft.poses)) each.placement = { ...AS_DRAWN } as typeof each.placement;
  return draft as Piece;
}
const piece = twoFigures();
const [shownPart] = piece.poses[piece.figures.f.poses[0]].parts.map((id) => piece.parts[id]);
const newStage = (): Stage => new Stage(() => undefined);
const VIEW = { x: 10, y: 20, zoom: 0.5 };

/** A 2D context that keeps where paths begin, with what transform, and how strongly they are filled. */
function recorder() {
  const starts: [number, number][] = [];
  const transforms: number[][] = [];
  const strengths: number[] = [];
  const state = { globalAlpha: 1 };
  const nothing = () => {};
  const saved: number[] = [];
  const names = ['clearRect', 'fillRect', 'beginPath', 'rect', 'clip', 'bezierCurveTo', 'closePath'];
  const context = Object.assign(state, Object.fromEntries(names.map((name) => [name, nothing])), {
    canvas: { width: 640, height: 640 },
    save: () => void saved.push(state.globalAlpha),
    restore: () => void (state.globalAlpha = saved.pop() ?? 1),
    setTransform: (...m: number[]) => void transforms.push(m),
    moveTo: (x: number, y: number) => void starts.push([x, y]),
    fill: () => void strengths.push(state.globalAlpha),
    stroke: nothing,
    setLineDash: nothing,
  });
  return { context: context as unknown as Context2D, starts, transforms, strengths };
}

function painted(stage: Stage, seconds = 0, density = 1) {
  const seen = recorder();
  stage.paint(seen.context, seconds, VIEW, density);
  return seen;
}

describe('the stage', () => {
  test('paints nothing without a piece, and clears all the same', () => {
    expect(painted(newStage())).toMatchObject({ starts: [], transforms: [[1, 0, 0, 1, 0, 0]] });
  });
  test('paints the figures in the view, at the density of the screen', () => {
    const stage = newStage();
    stage.show(planAndCompile(piece));
    const { starts, transforms } = painted(stage, 0, 2);
    expect(starts).toEqual([
      [100, 100],
      [300, 300],
    ]);
    expect(transforms[1]).toEqual([1, 0, 0, 1, 20, 40]);
  });
  test('shows a gesture over one figure, and the figure itself again afterwards', () => {
    const stage = newStage();
    stage.show(planAndCompile(piece));
    const live = stillParts(AS_DRAWN, [shownPart]);
    live[0].points.set([150, 160], live[0].contours[0].at);
    stage.override('f', live, null);
    expect(stage.overridden('f')?.parts).toBe(live);
    expect(painted(stage).starts).toEqual([
      [150, 160],
      [300, 300],
    ]);
    stage.clearOverrides();
    expect(painted(stage).starts[0]).toEqual([100, 100]);
  });
  test('thins figures out while drawing, and leaves out those without any strength', () => {
    const stage = newStage();
    stage.show(planAndCompile(piece));
    stage.fade = (id) => (id === 'f' ? 0.25 : 1);
    expect(painted(stage).strengths[0]).toBe(0.25);
    stage.fade = (id) => (id === 'f' ? 0 : 1);
    expect(painted(stage).starts).toEqual([[300, 300]]);
  });
});

describe('other moments under the picture', () => {
  test('are painted first, as faintly as they are to be', () => {
    const stage = newStage();
    stage.show(planAndCompile(piece));
    const seen = recorder();
    stage.paint(seen.context, 0, VIEW, 1, [{ seconds: 0.1, opacity: 0.2 }]);
    expect(seen.starts).toEqual([
      [100, 100],
      [300, 300],
      [100, 100],
      [300, 300],
    ]);
    expect(seen.strengths).toEqual([0.2, 0.2, 1, 1].map((strength) => expect.closeTo(strength, 9)));
  });
});

describe('a part of thousands of contours', () => {
  const squares = (count: number): string =>
    Array.from({ length: count }, (_, i) => `M${20 * i} 0h10v10h-10Z`).join('');
  const drawn = (count: number, paint: Partial<Part>): string[] => {
    const [part] = Object.values(pieceOf([squares(count)]).parts);
    const target = new RecordingTarget();
    drawPart(stillParts(AS_DRAWN, [{ ...part, fill: null, ...paint }])[0], target);
    return target.calls;
  };
  const line = (paint: string): Part['stroke'] => plainStroke(paint, 2);
  const count = (calls: readonly string[], name: string): number =>
    calls.filter((call) => call.startsWith(name)).length;

  test('is filled without closing its contours, which a browser would go through at each; a small one is closed', () => {
    const many = drawn(250, { fill: '#204060' });
    expect([count(many, 'move'), count(many, 'close'), count(many, 'fill')]).toEqual([250, 0, 1]);
    const few = drawn(100, { fill: '#204060' });
    expect([count(few, 'move'), count(few, 'close'), count(few, 'fill')]).toEqual([100, 100, 1]);
  });
  test('is stroked in runs of a hundred closed contours where the paint is opaque, and at once where it is not', () => {
    const opaque = drawn(250, { stroke: line('#204060') });
    expect([count(opaque, 'move'), count(opaque, 'close'), count(opaque, 'stroke')]).toEqual([250, 250, 3]);
    const thin = drawn(250, { stroke: line('#20406080') });
    expect([count(thin, 'move'), count(thin, 'close'), count(thin, 'stroke')]).toEqual([250, 250, 1]);
  });
});
