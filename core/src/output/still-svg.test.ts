import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../frame';
import { outlineBox } from '../outline';
import { isGradient } from '../paint';
import { AS_DRAWN, outlineOfPart, type Part, type Piece, type PieceDraft, plainStroke } from '../piece';
import { readPathData, readSvg, writePathData } from '../svg';
import { strayOf } from '../testing/distance';
import { pieceOf, poseOfSvg } from '../testing/pieces';
import { writeAnimatedSvg } from './animated-svg';
import { writeStillSvg } from './still-svg';

const BOX = { x: 0, y: 0, width: 100, height: 100 };
const svg = (body: string): string => `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100">${body}</svg>`;

describe('a still picture', () => {
  test.each([
    ['a fill', '<path d="M0 0H50V50Z" fill="#336699"/>'],
    ['a hole by even-odd', '<path fill-rule="evenodd" d="M0 0H50V50H0ZM10 10H40V40H10Z"/>'],
    [
      'a stroke with dashes',
      '<path d="M0 0C20 60 40 -20 90 90" fill="none" stroke="#c04020" stroke-width="4" stroke-dasharray="8 3" stroke-dashoffset="2" stroke-linecap="square" stroke-linejoin="miter" stroke-miterlimit="9"/>',
    ],
    [
      'a linear gradient',
      '<linearGradient id="g"><stop stop-color="red"/><stop offset="1" stop-color="blue" stop-opacity=".5"/></linearGradient><path d="M0 0H50V50Z" fill="url(#g)"/>',
    ],
    [
      'a radial gradient with a focus',
      '<radialGradient id="g" fx=".3" gradientTransform="rotate(20) scale(1 .5)"><stop stop-color="red"/><stop offset="1"/></radialGradient><path d="M0 0H50V50Z" fill="url(#g)"/>',
    ],
    ['a circle drawn as a line', '<circle cx="50" cy="50" r="20" fill="none" stroke="black" stroke-width="3"/>'],
  ])('%s is read again as it was', (_name, body) => {
    const { parts } = poseOfSvg(svg(body));
    const again = readSvg(writeStillSvg([{ placement: AS_DRAWN, parts }], BOX, { digits: 5 }));
    expect(again.notes).toEqual([]);
    const [shape] = again.shapes;
    const [part] = parts;
    expect(strayOf(shape.outline, outlineOfPart(part))).toBeLessThan(0.02);
    expect(shape.outline.fillRule).toBe(part.fillRule);
    const round = (value: unknown): unknown =>
      JSON.parse(JSON.stringify(value), (_key, v) => (typeof v === 'number' ? Math.round(v * 100) / 100 : v));
    expect(round(shape.fill)).toEqual(round(part.fill));
    if (part.stroke) expect(round(shape.stroke)).toMatchObject(round(part.stroke) as object);
  });

  test('placements, title and background are in it; text is made safe', () => {
    const { parts } = poseOfSvg(svg('<path d="M0 0H10V10H0Z"/>'));
    const text = writeStillSvg([{ placement: { ...AS_DRAWN, x: 5, scaleX: 2, scaleY: 2 }, parts }], BOX, {
      title: 'A & <B>',
      background: '#fff',
    });
    expect(text).toContain('<title>A &amp; &lt;B&gt;</title>');
    const { shapes } = readSvg(text);
    expect(shapes).toHaveLength(2);
    expect(outlineBox(shapes[1].outline)).toMatchObject({ minX: 5, maxX: 25 });
  });
});

describe('arcs in path data', () => {
  test('circular arcs go out as arcs and come back as the same curves', () => {
    const d = 'M10 50A40 40 0 0 1 90 50A20 30 0 0 0 50 80C10 90 20 60 10 50Z';
    const outline = readPathData(d);
    const written = writePathData(outline, { arcs: true, digits: 6 });
    // Two quarter turns of the circle; the ellipse and the free curve stay cubics.
    expect(written.match(/A/g)).toHaveLength(2);
    expect(strayOf(readPathData(written), outline)).toBeLessThan(1e-3);
    expect(writePathData(outline)).not.toContain('A');
  });

  test('both ways round', () => {
    for (const sweep of [0, 1]) {
      const outline = readPathData(`M0 0A10 10 0 0 ${sweep} 10 10`);
      expect(writePathData(outline, { arcs: true })).toBe(`M0 0A10 10 0 0 ${sweep} 10 10`);
    }
  });
});

describe('gradients, dashes and clips on the move', () => {
  const draft = structuredClone(pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z'])) as PieceDraft;
  const [a, b] = draft.figures.f.poses.map((id) => draft.parts[draft.poses[id].parts[0]]);
  const stops = [
    { at: 0, colour: '#ff0000' },
    { at: 1, colour: '#0000ff' },
  ];
  a.fill = { kind: 'linear', from: [0, 0], to: [100, 0], stops };
  b.fill = {
    kind: 'linear',
    from: [0, 0],
    to: [0, 100],
    stops: [...stops].reverse().map(({ colour }, i) => ({ at: i, colour })),
  };
  a.stroke = { ...plainStroke('#000000', 2), dash: [8, 4] } as typeof a.stroke;
  b.stroke = { ...plainStroke('#000000', 6), miter: 8 } as typeof b.stroke;
  draft.figures.eye = {
    ...structuredClone(draft.figures.f),
    id: 'eye',
    name: 'Eye',
    clip: 'f',
    opacity: 0.5,
    poses: [],
    rail: [],
  };
  draft.figureOrder.push('eye');
  const pose = draft.poses[draft.figures.f.poses[0]];
  const part: Part = {
    ...(a as Part),
    id: 'pupil',
    fill: { kind: 'radial', centre: [50, 50], radii: [30, 20], rotation: 10, focus: [0, 0], stops },
    stroke: null,
  };
  draft.parts.pupil = structuredClone(part) as PieceDraft['parts'][string];
  draft.poses.look = { ...structuredClone(pose), id: 'look', parts: ['pupil'] };
  draft.figures.eye.poses = ['look'];
  const text = writeAnimatedSvg(planAndCompile(draft as Piece));

  test('gradient ends, stop colours, dashes and mitres are animated; what stands still is not', () => {
    for (const animated of [
      'attributeName="x2"',
      'attributeName="y2"',
      'attributeName="stop-color"',
      'attributeName="stroke-dasharray"',
      'attributeName="stroke-miterlimit"',
    ])
      expect(text).toContain(animated);
    expect(text).not.toContain('attributeName="gradientTransform"');
  });

  test('a clipped figure refers to the clip, and every reference is there once', () => {
    expect(text).toMatch(/<g clip-path="url\(#piece-[a-z0-9]+-clip0\)" opacity="0\.5">/);
    const ids = [...text.matchAll(/ id="([^"]+)"/g)].map(([, id]) => id);
    expect(new Set(ids).size).toBe(ids.length);
    for (const [, id] of text.matchAll(/url\(#([^)]+)\)/g)) expect(ids).toContain(id);
  });

  test('it is well-formed, and our own reader takes its first picture', () => {
    const { shapes } = readSvg(text);
    expect(shapes.some(({ fill }) => isGradient(fill))).toBe(true);
    expect(shapes.map(({ clips }) => clips.length)).toEqual([0, 0, 1]);
  });
});
