import { describe, expect, test } from '@jest/globals';
import { type Frame, motionMatrix, planAndCompile, prepareFrame, sampleFrame } from '../../frame';
import type { LaneProperty, LaneRecord, Piece } from '../../piece';
import { countedIds } from '../../testing/pieces';
import { mapPoint } from '../../vec';
import { readMovingFile } from './moving-file';
import type { ReadPiece } from './piece-of-drawing';

/** A canvas of 100 px. */
const read = (inside: string, box = 'width="100" height="100"'): ReadPiece =>
  readMovingFile(`<svg xmlns="http://www.w3.org/2000/svg" ${box}>${inside}<set attributeName="x" to="0"/></svg>`, {
    id: 'p',
    name: 'Read',
    newId: countedIds(),
  });
function framesOf(piece: Piece): (seconds: number) => Frame {
  const compiled = planAndCompile(piece);
  const frame = prepareFrame(compiled);
  return (seconds) => sampleFrame(compiled, seconds, frame);
}
/** Where the first point of a figure stands. */
function firstPoint(frame: Frame, figure = 0): [number, number] {
  const { parts, motion } = frame.figures[figure];
  const [x, y] = parts[0].points;
  return motion ? mapPoint(motionMatrix(motion), x, y) : [x, y];
}
const laneOf = ({ lanes }: Piece, property: LaneProperty): LaneRecord | undefined =>
  Object.values(lanes).find((lane) => lane.property === property);
const again = 'repeatCount="indefinite"';
const SQUARE = 'M10 10H30V30H10Z';

describe('a drawing that moves, as a piece', () => {
  test('shape keys are poses that are held, and shifts that go point by point with the easing of the file', () => {
    const { piece, notes } = read(
      `<path d="${SQUARE}"><animate attributeName="d" values="${SQUARE};${SQUARE};M10 10H60V30H20Z" keyTimes="0;.25;1" calcMode="spline" keySplines="0 0 1 1;.4 0 .6 1" dur="2s" ${again}/></path>`,
    );
    expect(notes).toEqual([]);
    expect(piece.playback).toBe('loop');
    const [figure] = piece.figureOrder.map((id) => piece.figures[id]);
    const [shift] = figure.rail.map((id) => piece.shifts[id]);
    expect([figure.poses.length, piece.poses[figure.poses[0]].hold]).toEqual([2, 0.5]);
    expect(shift).toMatchObject({
      method: 'points',
      duration: 1.5,
      easing: { kind: 'cubic-bezier', x1: 0.4, y1: 0, x2: 0.6, y2: 1 },
    });
    // In the middle of the way an easing that is its own mirror image is half-way.
    const { points } = framesOf(piece)(1.25).figures[0].parts[0];
    expect([points[6], points[18]]).toEqual([45, 15]);
  });

  test('a circle whose radius changes is two poses, and is not there where it has none', () => {
    const { piece } = read(
      `<circle cx="50" cy="50" r="0"><animate attributeName="r" values="0;0;20" keyTimes="0;.5;1" dur="1s" fill="freeze"/></circle>`,
    );
    const [figure] = Object.values(piece.figures);
    expect([piece.playback, figure.start, figure.before]).toEqual(['once', 0.5, 'hidden']);
    expect(framesOf(piece)(0.75).figures[0].parts[0].points[0]).toBeCloseTo(60, 3);
  });

  test('what turns about a point, round after round, is one lane about that point', () => {
    const { piece } = read(
      `<path d="${SQUARE}"><animateTransform attributeName="transform" type="rotate" values="0 20 20;720 20 20" dur="2s" ${again}/></path>`,
    );
    expect(Object.values(piece.lanes).map(({ property }) => property)).toEqual(['turn']);
    expect(laneOf(piece, 'turn')?.keys.map(({ value }) => value[0])).toEqual([0, 720]);
    expect(Object.values(piece.figures)[0].pivot).toEqual([20, 20]);
    const [x, y] = firstPoint(framesOf(piece)(0.25));
    expect([x, y]).toEqual([expect.closeTo(30, 6), expect.closeTo(10, 6)]);
  });

  test('groups inside each other, moved, turned and grown, stand where the browser puts them', () => {
    const { piece } = read(
      `<g transform="translate(10 0)"><g><animateTransform attributeName="transform" type="translate" values="0 0;40 20" dur="1s" ${again}/><path transform="scale(2)" d="M5 5H15V15H5Z"><animateTransform attributeName="transform" type="rotate" additive="sum" values="0;90" dur="1s" ${again}/></path></g></g>`,
    );
    // translate(10 0) · translate(20 10) · scale(2) · rotate(45°) of 5, 5: that is 0, 5·√2 before it is doubled.
    const [x, y] = firstPoint(framesOf(piece)(0.5));
    expect([x, y]).toEqual([expect.closeTo(30, 2), expect.closeTo(10 + 10 * Math.SQRT2, 2)]);
  });

  test('what leans over time has a lane for it, with the easing of the file', () => {
    const { piece } = read(
      `<path d="${SQUARE}"><animateTransform attributeName="transform" type="skewX" values="0;30" calcMode="spline" keyTimes="0;1" keySplines=".4 0 .6 1" dur="1s" ${again}/></path>`,
    );
    const [from, to] = laneOf(piece, 'skew')?.keys ?? [];
    expect([from.value[0], to.value[0]]).toEqual([0, expect.closeTo(30, 2)]);
    expect(from.easing).toMatchObject({ kind: 'cubic-bezier', x1: 0.4 });
    // Half-way 10, 10 leans by the tangent of 15° times its height.
    const [x, y] = firstPoint(framesOf(piece)(0.5));
    expect([x, y]).toEqual([expect.closeTo(10 + 10 * Math.tan(Math.PI / 12), 2), expect.closeTo(10, 2)]);
  });

  test('what slants by being turned inside something else has no lanes: its outline says it', () => {
    const { piece } = read(
      `<g transform="skewX(20)"><path d="${SQUARE}"><animateTransform attributeName="transform" type="rotate" values="0;90" dur="1s" ${again}/></path></g>`,
    );
    expect(Object.values(piece.lanes)).toEqual([]);
    const slant = Math.tan((20 * Math.PI) / 180);
    const [x, y] = firstPoint(framesOf(piece)(0.5));
    // 10, 10 turned by 45° is 0, 10·√2.
    expect(Math.abs(x - slant * 10 * Math.SQRT2) + Math.abs(y - 10 * Math.SQRT2)).toBeLessThan(0.1);
  });

  test('a view box, symbols and copies are where they are seen', () => {
    const { piece } = read(
      `<defs><g id="s"><path d="M0 0H5V5H0Z"/></g></defs><use href="#s" x="10" y="20"><animate attributeName="opacity" values="1;0" dur="1s" ${again}/></use>`,
      'width="200" height="100" viewBox="0 0 100 50"',
    );
    expect([piece.canvas.width, piece.canvas.height]).toEqual([200, 100]);
    expect(firstPoint(framesOf(piece)(0))).toEqual([20, 40]);
    expect(laneOf(piece, 'opacity')?.keys.map(({ value }) => value)).toEqual([[1], [0]]);
  });

  test('paint that changes by itself is a lane, paint that goes with its outline belongs to the poses', () => {
    const fill = `<animate attributeName="fill" values="#ff0000;#0000ff" dur="1s" ${again}/>`;
    const { piece } = read(`<path d="${SQUARE}">${fill}</path>`);
    expect(Object.values(piece.poses)).toHaveLength(1);
    expect(laneOf(piece, 'fill')?.keys[0].value).toEqual([1, 0, 0, 1]);
    const both = read(
      `<path d="${SQUARE}">${fill}<animate attributeName="d" values="${SQUARE};M0 0H30V30H10Z" dur="1s" ${again}/></path>`,
    ).piece;
    expect(Object.values(both.lanes)).toEqual([]);
    expect(Object.values(both.parts).map((part) => part.fill)).toEqual(['#ff0000', '#0000ff']);
    expect(Object.values(both.shifts).map(({ blend }) => blend)).toEqual(['srgb']);
  });

  test('shapes of one group that go in step are parts of one figure, those that do not are figures of their own', () => {
    const path = (x: number, dur: number, count: number): string => {
      const values = Array.from({ length: count }, (_, k) => `M${x} ${k % 2 ? 9 : 0}h9v9h-9z`).join(';');
      return `<path d="M${x} 0h9v9h-9z"><animate attributeName="d" calcMode="spline" values="${values}" keySplines="${Array(
        count - 1,
      )
        .fill('.4 0 .6 1')
        .join(';')}" dur="${dur}s" ${again}/></path>`;
    };
    const inStep = read(`<g>${path(0, 2, 3)}${path(20, 2, 3)}</g>`).piece;
    expect([Object.keys(inStep.figures).length, Object.values(inStep.poses)[0].parts.length]).toEqual([1, 2]);
    const apart = read(`<g>${path(0, 2, 3)}${path(20, 2, 4)}</g>`).piece;
    expect(Object.keys(apart.figures)).toHaveLength(2);
  });

  test('what comes late and goes early begins at its time and is hidden before and after', () => {
    const { piece } = read(
      `<path d="${SQUARE}"><animate attributeName="display" calcMode="discrete" values="none;inline;none" keyTimes="0;.25;.75" dur="4s" ${again}/></path><path d="${SQUARE}"><animate attributeName="opacity" values="1;1" begin="0.001s" dur="4s" ${again}/></path>`,
    );
    const [figure] = Object.values(piece.figures);
    expect([figure.start, figure.before, figure.after]).toEqual([1, 'hidden', 'hidden']);
    const at = framesOf(piece);
    expect([0.5, 2, 3.5].map((time) => at(time).figures[0].parts.length)).toEqual([0, 1, 0]);
  });

  test('a clip path that moves is a hidden figure inside which the other is seen', () => {
    const { piece } = read(
      `<clipPath id="c"><circle cx="20" cy="20" r="5" fill="none"><animate attributeName="r" values="5;15" dur="1s" ${again}/></circle></clipPath><g clip-path="url(#c)"><path d="${SQUARE}"/></g>`,
    );
    const [clip, seen] = piece.figureOrder.map((id) => piece.figures[id]);
    expect([clip.hidden, clip.poses.length, seen.clip]).toEqual([true, 2, clip.id]);
    expect(piece.parts[piece.poses[clip.poses[0]].parts[0]].fill).not.toBeNull();
  });

  test('a rectangle under everything is what lies behind the figures, and changes its colour as that', () => {
    const { piece } = read(
      `<rect width="100" height="100" fill="#ffffff"><animate attributeName="fill" values="#ffffff;#000000" dur="1s" ${again}/></rect><path d="${SQUARE}"/>`,
    );
    expect([piece.canvas.background, Object.keys(piece.figures).length]).toEqual(['#ffffff', 1]);
    expect(laneOf(piece, 'background')?.keys.map(({ stop, value }) => [stop, value[0]])).toContainEqual([null, 0]);
  });

  test('a line that is drawn by its dashes is a drawn part; a blur is softness, in px of the canvas', () => {
    const { piece } = read(
      `<filter id="f"><feGaussianBlur stdDeviation="0"><animate attributeName="stdDeviation" values="0;3" dur="1s" ${again}/></feGaussianBlur></filter><g filter="url(#f)"><path pathLength="1" d="M0 0H50" fill="none" stroke="#000" stroke-dasharray="0 1"><animate attributeName="stroke-dasharray" values="0 1;1 0" dur="1s" ${again}/></path></g>`,
      'width="200" height="200" viewBox="0 0 100 100"',
    );
    expect(laneOf(piece, 'drawn')?.keys.map(({ value }) => value[1])).toEqual([0, 1]);
    expect(laneOf(piece, 'softness')?.keys.map(({ value }) => value[0])).toEqual([0, 6]);
  });

  test('after it was played once a run may go back to what it was, or stay', () => {
    const path = (fill: string): string =>
      `<path d="${SQUARE}"><animateTransform attributeName="transform" type="translate" values="0 0;40 0" dur="1s" fill="${fill}"/><animate attributeName="opacity" values="1;.5" dur="2s" fill="freeze"/></path>`;
    const end = (fill: string): number => firstPoint(framesOf(read(path(fill)).piece)(1.5))[0];
    expect([end('freeze'), end('remove')].map(Math.round)).toEqual([50, 10]);
  });

  test('outlines of which one key closes by itself and another by a line of its own are built alike', () => {
    // The first ends where it began and is closed without a length, the second is closed by an edge.
    const { piece } = read(
      `<path d="M0 0H40V40H0L0 0Z"><animate attributeName="d" values="M0 0H40V40H0L0 0Z;M0 0H40V40H0L0 20Z" dur="1s" ${again}/></path>`,
    );
    expect(Object.values(piece.shifts).map(({ method, duration }) => [method, duration])).toEqual([['points', 1]]);
    const { points } = framesOf(piece)(0.5).figures[0].parts[0];
    expect([points.length, points[25]]).toEqual([32, 10]);
  });

  test('a transform has the origin that the element says, in px', () => {
    const { piece } = read(
      `<path d="${SQUARE}" transform-origin="30px 30px"><animateTransform attributeName="transform" type="scale" values="1;3" dur="1s" ${again}/></path>`,
    );
    expect(firstPoint(framesOf(piece)(0.5)).map(Math.round)).toEqual([-10, -10]);
    expect(Object.values(piece.figures)[0].pivot).toEqual([30, 30]);
  });

  test('of two animations of one attribute the one that began later is seen (the animation sandwich)', () => {
    const { piece } = read(
      `<circle cx="50" cy="50" r="9"><animate attributeName="r" begin="1s" dur="1s" values="20;20" fill="freeze"/><animate attributeName="r" dur="2s" values="10;10" fill="freeze"/></circle>`,
    );
    const right = (seconds: number): number => framesOf(piece)(seconds).figures[0].parts[0].points[0] - 50;
    expect([right(0.5), right(1.5)]).toEqual([10, 20]);
  });

  test('an animation to a value begins with what is inherited, or what nobody said', () => {
    const { piece } = read(
      `<g stroke-width="2" stroke="#000" fill="none"><path d="M0 0H9"><animate attributeName="stroke-width" to="6" dur="1s" fill="freeze"/></path><circle cx="50" cy="50"><animate attributeName="r" to="8" dur="1s" fill="freeze"/></circle></g>`,
    );
    const { figures } = framesOf(piece)(0.5);
    const widths = figures.map(({ parts, over }) => (over?.strokeWidth ?? parts[0].stroke?.values.strokeWidth)?.[0]);
    expect(widths.some((width) => width === 4)).toBe(true);
    const circle = figures.flatMap(({ parts }) => parts).find(({ points }) => points.length > 20);
    expect(circle?.points[0]).toBeCloseTo(54, 3);
  });

  test('what cannot be taken is named', () => {
    const { notes } = read(
      `<mask id="m"/><path mask="url(#m)" d="${SQUARE}"><animateMotion path="M0 0H9" dur="1s"/><animate attributeName="opacity" begin="click" values="0;1" dur="1s"/></path><text>Quay</text><image href="x"/>`,
    );
    expect(notes.join(' ')).toMatch(/animateMotion.*click.*Text was left out.*<image>.*mask/);
  });
});
