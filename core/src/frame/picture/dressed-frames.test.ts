import { describe, expect, test } from '@jest/globals';
import { AS_DRAWN, type Part, type Piece, type PieceDraft, plainStroke, type Stroke } from '../../piece';
import { countedIds, drawnPose, pieceBetween, pieceOf } from '../../testing/pieces';
import { RecordingTarget } from '../../testing/recording-target';
import { invert, mapPoint, multiply, rotation, scaling, translation } from '../../vec';
import { planAndCompile } from '../lanes/plan-and-compile';
import { drawFrame } from './draw';
import { frameAt } from './frame-at';
import { stillParts } from './sample';

const SQUARE = 'M0 0H100V100H0Z';
const stops = [
  { at: 0, colour: '#ff0000' },
  { at: 1, colour: '#0000ff' },
];

const draft = (): PieceDraft => structuredClone(pieceOf([SQUARE, SQUARE])) as PieceDraft;
const dressed = (change: (d: PieceDraft, part: PieceDraft['parts'][string]) => void): string[] => {
  const d = draft();
  for (const pose of Object.values(d.poses))
    pose.placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
  change(d, d.parts[d.poses[d.figures.f.poses[0]].parts[0]]);
  const target = new RecordingTarget();
  drawFrame(frameAt(d as Piece, 0), target);
  return target.calls.filter((call) => !['begin', 'close'].includes(call));
};
const withStroke = (part: PieceDraft['parts'][string], stroke: Partial<Stroke>): void => {
  part.fill = null;
  part.stroke = { ...plainStroke('#000000', 3), ...stroke } as typeof part.stroke;
};

describe('painting', () => {
  test('a linear gradient lies where it was drawn', () => {
    expect(dressed((_d, part) => void (part.fill = { kind: 'linear', from: [10, 0], to: [90, 0], stops }))).toEqual([
      'move 0 0',
      'linear 10 0 90 0',
      'stop 0 #ff0000',
      'stop 1 #0000ff',
      'fill nonzero gradient at 1',
    ]);
  });

  test('a radial one is filled in its own coordinates; its focus lies in the unit circle', () => {
    const calls = dressed(
      (_d, part) =>
        void (part.fill = { kind: 'radial', centre: [50, 40], radii: [30, 20], rotation: 90, focus: [0.5, 0], stops }),
    );
    expect(calls).toEqual([
      'move 0 0',
      'save',
      'translate 50 40',
      'rotate 1.57',
      'scale 30 20',
      'radial 0.5 0 0 0 0 1',
      'stop 0 #ff0000',
      'stop 1 #0000ff',
      'fill nonzero gradient at 1',
      'restore',
    ]);
  });

  test('an ellipse without extent is the last colour', () => {
    expect(
      dressed(
        (_d, part) =>
          void (part.fill = { kind: 'radial', centre: [50, 40], radii: [0, 20], rotation: 0, focus: [0, 0], stops }),
      ),
    ).toContain('fill nonzero #0000ff at 1');
  });

  test('a stroke takes a circle as it is, its focus turned along', () => {
    const circle = { kind: 'radial', centre: [50, 40], radii: [20, 20], rotation: 90, focus: [0.5, 0], stops } as const;
    const calls = dressed((_d, part) => withStroke(part, { paint: circle }));
    expect(calls).toContain('radial 50 50 0 50 40 20');
    expect(calls).toContain('stroke gradient 3 round round 4');
  });

  test('a stroke is cut out of an ellipse, because a pen must not be bent', () => {
    const ellipse = { kind: 'radial', centre: [50, 40], radii: [40, 10], rotation: 0, focus: [0, 0], stops } as const;
    const calls = dressed((_d, part) => withStroke(part, { paint: ellipse }));
    const order = calls.filter((call) => /layer|laid|fill|stroke|scale/.test(call));
    expect(order).toEqual([
      'layer over 1',
      'scale 40 10',
      'fill nonzero gradient at 1',
      'layer inside 1',
      'stroke #000000 3 round round 4',
      'laid',
      'laid',
    ]);
    // The paint covers what the widest mitre could reach.
    expect(calls).toContain('move -12 -12');
  });

  test('a stroke follows the edges of the nearer end: closed without a slit, in pieces with one', () => {
    const ring = drawnPose('M0 0H100V100H0ZM30 30V70H70V30Z', countedIds()).parts[0];
    const whole = drawnPose(SQUARE, countedIds()).parts[0];
    const [from, to] = [ring, whole].map(
      (part, i): Part => ({ ...part, id: `s${i}`, stroke: plainStroke('#000000', 2) }),
    );
    const strokeAt = (progress: number): string[] => {
      const target = new RecordingTarget();
      drawFrame(frameAt(pieceBetween([from], [to]), progress), target);
      const fill = target.calls.findIndex((call) => call.startsWith('fill'));
      return target.calls.slice(fill + 1).flatMap((call) => /^(begin|move|close|stroke)/.exec(call)?.[0] ?? []);
    };
    // The ring opens through one slit: its two edges, neither closed by a line.
    expect(strokeAt(0.25).filter((call) => call === 'close')).toEqual([]);
    expect(strokeAt(0.25).filter((call) => call === 'move').length).toBeGreaterThanOrEqual(2);
    expect(strokeAt(0.75)).toEqual(['begin', 'move', 'close', 'stroke']);
  });

  test('without width a stroke is not drawn, whatever its colour', () => {
    expect(dressed((_d, part) => withStroke(part, { width: 0 })).filter((call) => /stroke|move/.test(call))).toEqual(
      [],
    );
  });

  test('the rate of a piece is its frames a second', () => {
    const d = draft();
    d.canvas.rate = { num: 30000, den: 1001 };
    expect(planAndCompile(d as Piece).rate).toBeCloseTo(29.97003, 5);
  });

  test('dashes are set for their stroke with their offset, and taken off again', () => {
    const calls = dressed((_d, part) => withStroke(part, { dash: [6, 3], dashOffset: 1 }));
    expect(calls.filter((call) => /dash|stroke/.test(call))).toEqual([
      'dash 6,3 0',
      'stroke #000000 3 round round 4',
      'dash  1',
    ]);
  });

  test('hidden figures are not drawn, clipped ones lie inside their clip, which may be hidden', () => {
    expect(dressed((d) => void (d.figures.f.hidden = true))).toEqual([]);
    const calls = dressed((d) => {
      d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f', hidden: false };
      d.figures.f.hidden = true;
      d.figureOrder.push('g');
    });
    expect(calls).toEqual(['save', 'move 0 0', 'clip nonzero', 'move 0 0', 'fill nonzero #204060 at 1', 'restore']);
  });

  test('every clip of a chain is applied', () => {
    const calls = dressed((d) => {
      d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f' };
      d.figures.h = { ...structuredClone(d.figures.f), id: 'h', clip: 'g' };
      d.figureOrder.push('g', 'h');
    });
    expect(calls.filter((call) => call.startsWith('clip'))).toHaveLength(3);
  });

  test('a single area is thinned by itself, several things that overlap are laid over the rest as one', () => {
    expect(dressed((d) => void (d.figures.f.opacity = 0.5))).toEqual([
      'save',
      'move 0 0',
      'fill nonzero #204060 at 0.5',
      'restore',
    ]);
    const both = dressed((d, part) => {
      d.figures.f.opacity = 0.5;
      part.stroke = { ...plainStroke('#0000ff', 3) } as typeof part.stroke;
    });
    expect(both.filter((call) => /layer|laid|fill|stroke/.test(call))).toEqual([
      'layer over 0.5',
      'fill nonzero #204060 at 1',
      'stroke #0000ff 3 round round 4',
      'laid',
    ]);
  });

  test('a figure of several parts masks by all their areas, each with its own fill rule', () => {
    const calls = dressed((d, part) => {
      d.parts.second = { ...structuredClone(part), id: 'second', fillRule: 'evenodd' };
      for (const pose of Object.values(d.poses)) pose.parts.push('second');
      // Standing still: a shift would bring both to one direction and one rule.
      d.figures.f.rail = [];
      d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f' };
      d.figures.f.hidden = true;
      d.figureOrder.push('g');
    });
    const from = calls.indexOf('layer inside 1');
    expect(calls.filter((call) => call.startsWith('clip'))).toEqual([]);
    expect(calls.slice(from).filter((call) => !call.startsWith('move'))).toEqual([
      'layer inside 1',
      'fill nonzero #000000 at 1',
      'fill evenodd #000000 at 1',
      'laid',
      'laid',
      'restore',
    ]);
  });

  test('drawing aids thin figures out without touching the piece', () => {
    const target = new RecordingTarget();
    drawFrame(frameAt(draft() as Piece, 0), target, () => 0.3);
    expect(target.calls).toContain('fill nonzero #204060 at 0.3');
    const none = new RecordingTarget();
    drawFrame(frameAt(draft() as Piece, 0), none, () => 0);
    expect(none.calls).toEqual([]);
  });
});

describe('paint of two parts', () => {
  const newId = countedIds();
  const part = (change: Partial<Part>): Part => ({ ...drawnPose(SQUARE, newId).parts[0], ...change });
  const at = (progress: number, a: Partial<Part>, b: Partial<Part>) =>
    frameAt(pieceBetween([part(a)], [part(b)]), progress).figures[0].parts[0];

  test('dash patterns of other lengths are brought together; an unbroken line opens its gaps', () => {
    const dashes = (a: number[], b: number[]) =>
      [0, 1].map((end) => [
        ...(at(
          end,
          { stroke: { ...plainStroke('#000', 2), dash: a } },
          { stroke: { ...plainStroke('#000', 2), dash: b } },
        ).stroke?.values.dash ?? []),
      ]);
    expect(dashes([8, 2], [])).toEqual([
      [8, 2],
      [10, 0],
    ]);
    expect(dashes([], [8, 2])).toEqual([
      [10, 0],
      [8, 2],
    ]);
    expect(dashes([8, 2], [1, 2, 3, 4])).toEqual([
      [8, 2, 8, 2],
      [1, 2, 3, 4],
    ]);
    const six = dashes([8, 2, 1, 1], [1, 2, 3, 4, 5, 6]);
    expect(six).toEqual([
      [8, 2, 1, 1, 8, 2, 1, 1, 8, 2, 1, 1],
      [1, 2, 3, 4, 5, 6, 1, 2, 3, 4, 5, 6],
    ]);
  });

  test('a gradient that one side lacks fades in its own colours', () => {
    const { fill } = at(0.5, { fill: null }, { fill: { kind: 'linear', from: [0, 0], to: [9, 0], stops } });
    expect(fill?.gradient?.kind).toBe('linear');
    expect([...(fill?.gradient?.colours ?? [])].map((v) => +v.toFixed(6))).toEqual([1, 0, 0, 0.5, 0, 0, 1, 0.5]);
  });

  test('paint follows a turned and scaled placement', () => {
    const fill = { kind: 'linear', from: [0, 0], to: [10, 0], stops } as const;
    const [still] = stillParts({ ...AS_DRAWN, rotation: 90, scaleX: 2, scaleY: 2 }, [part({ fill })]);
    expect([...(still.fill?.gradient?.geometry ?? [])].slice(0, 4).map((v) => +v.toFixed(6))).toEqual([0, 0, 0, 20]);
  });

  test('compiling knows which figure clips which', () => {
    const d = draft();
    d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f' };
    d.figureOrder = ['g', 'f'];
    expect(planAndCompile(d as Piece).figures.map(({ clip }) => clip)).toEqual([1, -1]);
  });
});

describe('affine maps', () => {
  test('the inverse undoes, and there is none without area', () => {
    const m = multiply(translation(3, -2), multiply(rotation(0.7), scaling(2, -0.5)));
    const back = invert(m);
    expect(back).toBeDefined();
    const [x, y] = mapPoint(back as typeof m, ...mapPoint(m, 12.5, -7));
    expect([x, y].map((v) => +v.toFixed(9))).toEqual([12.5, -7]);
    expect(invert(scaling(0, 1))).toBeUndefined();
    expect(invert([1e-200, 0, 0, 1e-200, 0, 0])).toBeUndefined();
  });
});
