import { AUTOMATIC_MATCH, type PoseShiftPlan, planPoseShift, shiftInput } from '@core';
import { describe, expect, test } from '@jest/globals';
import { type Mark, Paper } from '../../testing/paper';
import { pieceOf } from '../../testing/pieces';
import { frameOf, hueOf, type MatchColours, paintMiddle, paintSide } from './paint-outlines';
import { fitPicture, fromPicture, toPicture } from './picture-view';

const SQUARE = 'M0 0H100V100H0Z';
const RING = 'M0 0H100V100H0ZM30 30V70H70V30Z';
const PENTAGON = 'M50 0L98 35L79 90L21 90L2 35Z';
const SECTOR = 'M90 50A40 40 0 1 0 50 90L50 70A20 20 0 1 1 70 50Z';
const COLOURS: MatchColours = {
  ink: 'ink',
  soft: 'soft',
  plum: 'plum',
  cobalt: 'cobalt',
  broken: 'broken',
  look: 'look',
  paper: 'paper',
  dark: false,
};
const VIEW = { scale: 1, dx: 0, dy: 0 };

function plan(a: string, b: string, match = {}): PoseShiftPlan {
  const piece = pieceOf([a, b]);
  const input = shiftInput(piece, Object.values(piece.shifts)[0]);
  return planPoseShift({ ...input, match: { ...AUTOMATIC_MATCH, ...match } });
}

const sidePaper = (of: PoseShiftPlan, side: 'a' | 'b', numbers = false): Paper => {
  const paper = new Paper();
  paintSide(paper.context, of, side, VIEW, COLOURS, numbers);
  return paper;
};
const hues = (paper: Paper): string[] =>
  paper.strokes.filter(({ width, arcs }) => width === 3 && arcs.length === 0).map(({ style }) => style);

describe('the two outlines', () => {
  test('have the same hue at the same place, all round', () => {
    const shift = plan(SQUARE, PENTAGON);
    const [a, b] = [sidePaper(shift, 'a'), sidePaper(shift, 'b')];
    expect(hues(a)).toEqual(hues(b));
    expect(new Set(hues(a)).size).toBe(shift.parts[0].plan.contours[0].segments);
    expect(a.fills[0]).toBe('plum');
    expect(b.fills[0]).toBe('cobalt');
  });

  test('are each painted where that end lies', () => {
    const shift = plan(SQUARE, PENTAGON);
    const [{ from, to, contours }] = shift.parts.map(({ plan: part }) => part);
    const places = (side: 'a' | 'b'): number[] => sidePaper(shift, side).marks[0].paths[0].flat();
    const ends = (p: Float64Array): number[] => {
      const [{ at, segments }] = contours;
      return Array.from({ length: segments + 1 }, (_, k) => [p[at + 6 * k], p[at + 6 * k + 1]]).flat();
    };
    for (const [side, end] of [
      ['a', from],
      ['b', to],
    ] as const)
      expect(places(side)).toEqual(ends(end).map((v) => expect.closeTo(v, 1)));
  });

  test('number their points on demand, not too many', () => {
    const shift = plan(SQUARE, PENTAGON);
    expect(sidePaper(shift, 'a').texts).toEqual([]);
    const { texts } = sidePaper(shift, 'a', true);
    expect(texts[0]).toBe('1');
    expect(texts.length).toBeGreaterThan(4);
    expect(texts).toEqual(sidePaper(shift, 'b', true).texts);
    const many = plan(SQUARE, PENTAGON, { even: 200 });
    expect(sidePaper(many, 'a', true).texts.length).toBeLessThanOrEqual(25);
  });

  test('show slits thin and dashed, and what has no partner dashed', () => {
    const slit = sidePaper(plan(RING, SQUARE), 'a');
    expect(slit.strokes.some(({ width, dash, arcs }) => width === 1 && dash.length === 2 && arcs.length === 0)).toBe(
      true,
    );
    const ringPiece = pieceOf([RING, SQUARE]);
    const hole = Object.values(ringPiece.parts)[0].contours[1].id;
    const input = shiftInput(ringPiece, Object.values(ringPiece.shifts)[0]);
    const alone = planPoseShift({ ...input, match: { ...AUTOMATIC_MATCH, pairs: [{ a: hole, b: null }] } });
    const dashed = (paper: Paper): Mark[] => paper.strokes.filter(({ style }) => style === 'soft');
    expect(dashed(sidePaper(alone, 'a'))).toEqual([expect.objectContaining({ width: 2, dash: [5, 4] })]);
    // On the other side it is a point: nothing to show.
    expect(dashed(sidePaper(alone, 'b'))).toEqual([]);
  });
});

describe('the in-between', () => {
  const middle = (of: PoseShiftPlan, progress: number, show = { threads: false, points: false }) => {
    const paper = new Paper();
    return { marks: paintMiddle(paper.context, of, progress, VIEW, COLOURS, { ...show, isFilled: () => true }), paper };
  };

  test('rings each fold where it is, and rings nothing in a healthy one', () => {
    const good = middle(plan(SQUARE, PENTAGON), 0.5);
    expect(good.marks[0]).toEqual({ folds: [], crossings: [], kinks: [] });
    expect(good.paper.strokes.some(({ style }) => style === 'broken')).toBe(false);
    const wrong = plan(PENTAGON, SECTOR, { direction: 'same', smoothing: 0 });
    const folded = [0.2, 0.35, 0.5, 0.65, 0.8]
      .map((p) => middle(wrong, p))
      .find(({ marks }) => marks[0].folds.length > 0);
    expect(folded).toBeDefined();
    const rings = folded?.paper.strokes.filter(({ style, arcs }) => style === 'broken' && arcs.length === 1);
    expect(rings).toHaveLength(folded?.marks[0].folds.length ?? -1);
  });

  test('shows a thread for each point on demand, and larger points while they can be moved', () => {
    const shift = plan(SQUARE, PENTAGON);
    const { segments } = shift.parts[0].plan.contours[0];
    const plain = middle(shift, 0.5).paper.strokes.length;
    expect(middle(shift, 0.5, { threads: true, points: false }).paper.strokes.length - plain).toBe(segments);
    expect(middle(shift, 0.5, { threads: false, points: true }).paper.strokes.length - plain).toBe(segments);
  });

  test('is painted into numbers that are kept with the plan', () => {
    const shift = plan(SQUARE, PENTAGON);
    middle(shift, 0.25);
    const numbers = frameOf(shift.parts[0].plan);
    const before = Array.from(numbers);
    middle(shift, 0.75);
    expect(frameOf(shift.parts[0].plan)).toBe(numbers);
    expect(Array.from(numbers)).not.toEqual(before);
  });

  test('the hue of a place is the one its outline has there', () => {
    const shift = plan(SQUARE, PENTAGON).parts[0].plan;
    const [contour] = shift.contours;
    const round = Array.from({ length: contour.segments }, (_, k) => hueOf(shift, contour.at + 6 * k, 0.5, false));
    expect(new Set(round).size).toBe(contour.segments);
    expect(hueOf(shift, contour.at, 0, false)).toContain('hsl(0 ');
  });
});

describe('pictures', () => {
  test('hold both ends with a margin, in the middle; px go there and back', () => {
    const view = fitPicture(plan(SQUARE, PENTAGON), 400, 300);
    const shift = plan(SQUARE, PENTAGON).parts[0].plan;
    for (const end of [shift.from, shift.to])
      for (let i = 0; i < end.length; i += 2) {
        const [x, y] = toPicture(view, end[i], end[i + 1]);
        expect(x >= 29 && x <= 371 && y >= 29 && y <= 271).toBe(true);
        const [u, v] = fromPicture(view, x, y);
        expect(Math.hypot(u - end[i], v - end[i + 1])).toBeLessThan(1e-9);
      }
  });

  test('nothing to show is no scale of zero', () => {
    const empty = { parts: [], reasons: [], health: plan(SQUARE, SQUARE).health };
    expect(fitPicture(empty, 400, 300)).toEqual({ scale: 1, dx: 200, dy: 150 });
  });
});
