import { describe, expect, test } from '@jest/globals';
import { anchorCount, type Outline, polygonContour } from '../outline';
import { readPathData, writePathData } from '../svg';
import { combineOutlines, filledArea, nearlyClosed, outlineOfStroke } from './combine';
import type { PathEngine } from './engine';
import { restorePoints } from './restore';
import { cutAlongLine, fillHoles, removeSpecks, separateSolids } from './solids';

const outline = (d: string): Outline => readPathData(d);
const data = (o: Outline): string => writePathData(o, { digits: 6 });

describe('what comes back from single precision', () => {
  test('points that were there get their own numbers back, handles too', () => {
    const source = outline('M0.1 0.2C10.3 0.4 20.5 10.6 20.7 20.8L0.9 20.1Z');
    const blurred = {
      ...source,
      contours: source.contours.map((c) => ({ ...c, points: Float64Array.from(new Float32Array(c.points)) })),
    };
    expect(blurred.contours[0].points).not.toEqual(source.contours[0].points);
    const restored = restorePoints(blurred, [source], 1e-4);
    expect(restored.contours[0].points).toEqual(source.contours[0].points);
  });

  test('points of nobody stay as they came', () => {
    expect(data(restorePoints(outline('M0 0H10V10H0Z'), [outline('M5 5H6V6Z')], 1e-4))).toBe('M0 0L10 0L10 10L0 10Z');
  });

  test('segments without length go, straight ones that go on are joined, over the start too', () => {
    const untidy = {
      fillRule: 'nonzero' as const,
      contours: [polygonContour([5, 0, 10, 0, 10, 0, 10, 5, 10, 10, 0, 10, 0, 0])],
    };
    const tidy = restorePoints(untidy, [], 1e-6);
    expect(anchorCount(tidy.contours[0])).toBe(4);
    expect(filledArea(tidy)).toBeCloseTo(100, 9);
  });

  test('a turn back is no going on, a curve is no line', () => {
    expect(
      anchorCount(
        restorePoints({ fillRule: 'nonzero', contours: [polygonContour([0, 0, 10, 0, 5, 0, 5, 5])] }, [], 1e-6)
          .contours[0],
      ),
    ).toBe(4);
    expect(anchorCount(restorePoints(outline('M0 0C3 1 6 1 9 0L18 0L9 9Z'), [], 1e-6).contours[0])).toBe(4);
  });

  test('what has no extent is left out', () => {
    const speck = { fillRule: 'nonzero' as const, contours: [polygonContour([0, 0, 1e-9, 0, 0, 1e-9])] };
    expect(restorePoints(speck, [], 1e-6).contours).toEqual([]);
  });
});

describe('an engine that misbehaves', () => {
  const square = outline('M0 0H10V10H0Z');
  const other = outline('M5 5H15V15H5Z');
  const engine = (combine: PathEngine['combine']): PathEngine => ({ combine, stroke: () => null });

  test('is tried at other scales before it is given up', () => {
    let calls = 0;
    const broken = engine(() => {
      calls++;
      return null;
    });
    expect(() => combineOutlines(broken, 'unite', [square, other])).toThrow('could not be combined (unite)');
    expect(calls).toBe(3 * 2);
  });

  test.each(['unite', 'subtract', 'exclude'] as const)('a result of the wrong area is refused: %s', (kind) => {
    const cheat = engine((asked, a, b) =>
      b.contours.length === 0
        ? a
        : asked === 'intersect'
          ? { contours: [], fillRule: 'nonzero' }
          : outline('M0 0H900V900H0Z'),
    );
    expect(() => combineOutlines(cheat, kind, [square, other])).toThrow('area cannot be right');
  });

  test('a stroke that fails is told', () => {
    expect(() =>
      outlineOfStroke(
        engine(() => null),
        square,
        { width: 2, cap: 'butt', join: 'miter', miter: 4, dash: [], dashOffset: 0 },
      ),
    ).toThrow('could not be turned into an outline');
  });

  test('of nothing comes nothing', () => {
    expect(
      combineOutlines(
        engine(() => null),
        'unite',
        [],
      ),
    ).toEqual({ outline: { contours: [], fillRule: 'nonzero' }, notes: [] });
  });
});

describe('solids and their holes', () => {
  const island = outline('M0 0H90V90H0ZM10 10V80H80V10ZM30 30H60V60H30ZM40 40V50H50V40Z');
  test('an island in a hole is a solid of its own, with the hole that is in it', () => {
    expect(separateSolids(island).map(({ contours }) => contours.length)).toEqual([2, 2]);
    expect(separateSolids(outline('M0 0H9M20 0H29')).map(({ contours }) => contours[0].closed)).toEqual([false, false]);
  });
  test('filling holes takes what lay in them along', () => {
    expect(data(fillHoles(island))).toBe('M0 0L90 0L90 90L0 90Z');
  });
  test('specks are measured by the whole; open lines are never specks', () => {
    const dusty = outline('M0 0H90V90H0ZM100 0H100.5V0.5H100ZM95 95L96 96');
    expect(removeSpecks(dusty).contours).toHaveLength(2);
    expect(removeSpecks(dusty, 1e-9).contours).toHaveLength(3);
  });
  test('contours that look closed are told with their gap', () => {
    expect(nearlyClosed(outline('M0 0H90V90H0V2'))).toEqual(['A contour looks closed but is open by 2 px']);
    expect(nearlyClosed(outline('M0 0H90V90'))).toEqual([]);
    expect(nearlyClosed(outline('M0 0H90V90Z'))).toEqual([]);
  });
});

describe('cutting open lines', () => {
  const never: PathEngine = { combine: () => null, stroke: () => null };
  test('a zigzag falls into runs on both sides; together they are as long', () => {
    const { left, right } = cutAlongLine(never, outline('M0 0L10 10L20 0L30 10'), -5, 5, 50, 5);
    expect([left.contours.length, right.contours.length]).toEqual([2, 2]);
    const ends = [...left.contours, ...right.contours].flatMap(({ points }) => [points[1], points[points.length - 1]]);
    for (const y of ends) expect([0, 5, 10].some((v) => Math.abs(v - y) < 1e-6)).toBe(true);
  });
  test('a line that is not crossed stays whole on its side; a cut without length does nothing', () => {
    expect(cutAlongLine(never, outline('M0 0H10'), 0, 5, 10, 5)).toMatchObject({
      left: { contours: [{}] },
      right: { contours: [] },
    });
    expect(cutAlongLine(never, outline('M0 0H10'), 3, 3, 3, 3).left.contours).toHaveLength(1);
  });
});
