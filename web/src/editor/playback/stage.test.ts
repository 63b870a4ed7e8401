import { compilePiece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { drawnPiece } from '../../testing/drawn-piece';
import { LivePose } from '../drawing/live';
import { shownPoses } from '../drawing/scene';
import { Stage } from './stage';

const piece = drawnPiece({ d: 'M100 100H200V200H100Z' }, { d: 'M300 300H400V400H300Z' });
const VIEW = { x: 10, y: 20, zoom: 0.5 };

/** A 2D context that keeps where paths begin, with what transform, and how strongly they are filled. */
function recorder() {
  const starts: [number, number][] = [];
  const transforms: number[][] = [];
  const strengths: number[] = [];
  const state = { globalAlpha: 1 };
  const nothing = () => {};
  const names = ['clearRect', 'fillRect', 'save', 'restore', 'beginPath', 'rect', 'clip', 'bezierCurveTo', 'closePath'];
  const context = Object.assign(state, Object.fromEntries(names.map((name) => [name, nothing])), {
    canvas: { width: 640, height: 640 },
    setTransform: (...m: number[]) => void transforms.push(m),
    moveTo: (x: number, y: number) => void starts.push([x, y]),
    fill: () => void strengths.push(state.globalAlpha),
    stroke: nothing,
    setLineDash: nothing,
  });
  return { context: context as unknown as CanvasRenderingContext2D, starts, transforms, strengths };
}

function painted(stage: Stage, seconds = 0, density = 1) {
  const seen = recorder();
  stage.paint(seen.context, seconds, VIEW, density);
  return seen;
}

describe('the stage', () => {
  test('paints nothing without a piece, and clears all the same', () => {
    expect(painted(new Stage())).toMatchObject({ starts: [], transforms: [[1, 0, 0, 1, 0, 0]] });
  });
  test('paints the figures in the view, at the density of the screen', () => {
    const stage = new Stage();
    stage.show(compilePiece(piece));
    const { starts, transforms } = painted(stage, 0, 2);
    expect(starts).toEqual([
      [100, 100],
      [300, 300],
    ]);
    expect(transforms[1]).toEqual([1, 0, 0, 1, 20, 40]);
  });
  test('shows a gesture over one figure, and the figure itself again afterwards', () => {
    const stage = new Stage();
    stage.show(compilePiece(piece));
    const [shown] = shownPoses(piece, null, 0);
    const live = new LivePose(shown.pose.placement, shown.parts);
    live.parts[0].points.set([150, 160], live.parts[0].contours[0].at);
    stage.override('f0', live.parts);
    expect(stage.overridden('f0')).toBe(live.parts);
    expect(painted(stage).starts).toEqual([
      [150, 160],
      [300, 300],
    ]);
    stage.clearOverrides();
    expect(painted(stage).starts[0]).toEqual([100, 100]);
  });
  test('thins figures out while drawing, and leaves out those without any strength', () => {
    const stage = new Stage();
    stage.show(compilePiece(piece));
    stage.fade = (id) => (id === 'f0' ? 0.25 : 1);
    expect(painted(stage).strengths[0]).toBe(0.25);
    stage.fade = (id) => (id === 'f0' ? 0 : 1);
    expect(painted(stage).starts).toEqual([[300, 300]]);
  });
});
