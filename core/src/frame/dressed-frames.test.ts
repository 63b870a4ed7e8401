import { describe, expect, test } from '@jest/globals';
import { AS_DRAWN, AUTOMATIC_MATCH, type Part, type Piece, type PieceDraft, plainStroke } from '../piece';
import { pieceOf } from '../testing/pieces';
import { invert, mapPoint, multiply, rotation, scaling, translation } from '../vec';
import { compilePiece } from './compile';
import { type DrawTarget, drawFrame } from './draw';
import { frameAt } from './frame-at';
import { planPoseShift, planStill } from './part-plans';
import { stillParts } from './sample';

const SQUARE = 'M0 0H100V100H0Z';
const stops = [
  { at: 0, colour: '#ff0000' },
  { at: 1, colour: '#0000ff' },
];

/** Records calls by name, with the state that matters. */
function recorder(): DrawTarget & { calls: string[] } {
  const calls: string[] = [];
  const state = {
    fillStyle: '',
    strokeStyle: '',
    lineWidth: 1,
    lineCap: '',
    lineJoin: '',
    miterLimit: 4,
    lineDashOffset: 0,
    globalAlpha: 1,
  };
  const say =
    (name: string) =>
    (...args: unknown[]) =>
      void calls.push(
        `${name} ${args.map((v) => (typeof v === 'number' ? +v.toFixed(2) : Array.isArray(v) ? v.join(',') : v)).join(' ')}`.trim(),
      );
  const gradient =
    (kind: string) =>
    (...numbers: number[]) => {
      calls.push(`${kind} ${numbers.map((v) => +v.toFixed(2)).join(' ')}`);
      return { addColorStop: (at: number, colour: string) => void calls.push(`stop ${at} ${colour}`) };
    };
  return Object.assign(state, {
    calls,
    save: say('save'),
    restore: say('restore'),
    translate: say('translate'),
    rotate: say('rotate'),
    scale: say('scale'),
    beginPath: () => {},
    moveTo: say('move'),
    bezierCurveTo: () => {},
    closePath: () => {},
    fill: () =>
      void calls.push(
        `fill ${typeof state.fillStyle === 'string' ? state.fillStyle : 'gradient'} at ${state.globalAlpha}`,
      ),
    stroke: () =>
      void calls.push(
        `stroke ${typeof state.strokeStyle === 'string' ? state.strokeStyle : 'gradient'} ${state.lineWidth}`,
      ),
    clip: say('clip'),
    setLineDash: say('dash'),
    createLinearGradient: gradient('linear'),
    createRadialGradient: gradient('radial'),
  });
}

const draft = (): PieceDraft => structuredClone(pieceOf([SQUARE, SQUARE])) as PieceDraft;
const dressed = (change: (d: PieceDraft, part: PieceDraft['parts'][string]) => void): string[] => {
  const d = draft();
  for (const pose of Object.values(d.poses))
    pose.placement = { x: 0, y: 0, scaleX: 1, scaleY: 1, rotation: 0, rule: null };
  change(d, d.parts[d.poses[d.figures.f.poses[0]].parts[0]]);
  const target = recorder();
  drawFrame(frameAt(d as Piece, 0), target);
  return target.calls;
};

describe('painting', () => {
  test('a linear gradient lies where it was drawn', () => {
    expect(dressed((_d, part) => void (part.fill = { kind: 'linear', from: [10, 0], to: [90, 0], stops }))).toEqual([
      'move 0 0',
      'linear 10 0 90 0',
      'stop 0 #ff0000',
      'stop 1 #0000ff',
      'fill gradient at 1',
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
      'fill gradient at 1',
      'restore',
    ]);
  });

  test('an ellipse without extent is the last colour; a stroke takes the circle of equal area', () => {
    expect(
      dressed(
        (_d, part) =>
          void (part.fill = { kind: 'radial', centre: [50, 40], radii: [0, 20], rotation: 0, focus: [0, 0], stops }),
      ),
    ).toContain('fill #0000ff at 1');
    const calls = dressed((_d, part) => {
      part.fill = null;
      part.stroke = {
        ...plainStroke('#000000', 3),
        paint: { kind: 'radial', centre: [50, 40], radii: [40, 10], rotation: 0, focus: [0, 0], stops },
      } as typeof part.stroke;
    });
    expect(calls).toContain('radial 50 40 0 50 40 20');
    expect(calls).toContain('stroke gradient 3');
  });

  test('dashes are set for their stroke and taken off again', () => {
    const calls = dressed(
      (_d, part) =>
        void (part.stroke = { ...plainStroke('#000000', 2), dash: [6, 3], dashOffset: 1 } as typeof part.stroke),
    );
    expect(calls.filter((call) => call.startsWith('dash'))).toEqual(['dash 6,3', 'dash']);
  });

  test('hidden figures are not drawn, see-through ones are thinned, clipped ones lie inside their clip', () => {
    expect(dressed((d) => void (d.figures.f.hidden = true))).toEqual([]);
    expect(dressed((d) => void (d.figures.f.opacity = 0.5))).toContain('fill #204060 at 0.5');
    const calls = dressed((d) => {
      d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f', hidden: false };
      d.figures.f.hidden = true;
      d.figureOrder.push('g');
    });
    // The hidden figure still clips.
    expect(calls).toEqual(['save', 'move 0 0', 'clip nonzero', 'move 0 0', 'fill #204060 at 1', 'restore']);
  });

  test('drawing aids thin figures out without touching the piece', () => {
    const target = recorder();
    drawFrame(frameAt(draft() as Piece, 0), target, () => 0.3);
    expect(target.calls).toContain('fill #204060 at 0.3');
    const none = recorder();
    drawFrame(frameAt(draft() as Piece, 0), none, () => 0);
    expect(none.calls).toEqual([]);
  });
});

describe('plans of dressed parts', () => {
  const part = (change: Partial<Part>): Part => ({
    ...(draft() as Piece).parts[Object.keys(draft().parts)[0]],
    ...change,
  });
  const plan = (a: Partial<Part>, b: Partial<Part>) =>
    planPoseShift({
      from: { placement: AS_DRAWN, parts: [part(a)] },
      to: { placement: AS_DRAWN, parts: [part(b)] },
      method: 'straight',
      blend: 'srgb',
      match: AUTOMATIC_MATCH,
    }).parts[0];

  test('dash patterns of other lengths are brought together; an unbroken line opens its gaps', () => {
    const dashes = (a: number[], b: number[]) =>
      plan({ stroke: { ...plainStroke('#000', 2), dash: a } }, { stroke: { ...plainStroke('#000', 2), dash: b } })
        .stroke?.dashes;
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
    expect([six?.[0].length, six?.[1].length]).toEqual([12, 12]);
  });

  test('a paint that one side lacks fades in its own colours, gradients too', () => {
    const { fill } = plan({ fill: null }, { fill: { kind: 'linear', from: [0, 0], to: [9, 0], stops } });
    expect(fill && 'kinds' in fill && fill.kinds).toEqual(['linear', 'linear']);
  });

  test('paint follows a turned and scaled placement', () => {
    const [still] = stillParts(
      planStill({
        placement: { ...AS_DRAWN, rotation: 90, scaleX: 2, scaleY: 2 },
        parts: [part({ fill: { kind: 'linear', from: [0, 0], to: [10, 0], stops } })],
      }).parts,
    );
    expect([...(still.fillGradient?.geometry ?? [])].slice(0, 4).map((v) => +v.toFixed(6))).toEqual([0, 0, 0, 20]);
  });

  test('compiling knows which figure clips which', () => {
    const d = draft();
    d.figures.g = { ...structuredClone(d.figures.f), id: 'g', clip: 'f' };
    d.figureOrder = ['g', 'f'];
    expect(compilePiece(d as Piece).figures.map(({ clip }) => clip)).toEqual([1, -1]);
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
