import { describe, expect, test } from '@jest/globals';
import { SaxesParser } from 'saxes';
import { ease } from '../easing';
import { compilePiece, spanProgress } from '../frame';
import { evaluate, inBetweenPathData } from '../morph';
import { measureArcLength } from '../outline';
import { type Piece, type PieceDraft, plainStroke } from '../piece';
import { readPathData } from '../svg';
import { pieceOf } from '../testing/pieces';
import { writeAnimatedSvg } from './animated-svg';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const piece = pieceOf([SQUARE, DIAMOND]);
const file = (p: Piece = piece): string => writeAnimatedSvg(compilePiece(p), { title: p.name });
const attribute = (text: string, name: string): string[] =>
  [...text.matchAll(new RegExp(` ${name}="([^"]*)"`, 'g'))].map((match) => match[1]);

describe('the animated SVG', () => {
  test('is well-formed, has no script and refers to nothing', () => {
    const parser = new SaxesParser({ xmlns: true });
    parser.on('error', (error) => {
      throw error;
    });
    const nasty = { ...piece, name: '<script>"&x</script>' };
    parser.write(file(nasty)).close();
    expect(file(nasty)).not.toMatch(/<script|href|url\(/);
    expect(file(nasty)).toContain('&lt;script&gt;');
  });

  test('key times ascend from 0 to 1, with as many values, and one spline fewer', () => {
    for (const animate of file().match(/<animate [^>]*calcMode="(?:linear|spline)"[^>]*>/g) ?? []) {
      const times = attribute(animate, 'keyTimes')[0].split(';').map(Number);
      expect(times[0]).toBe(0);
      expect(times[times.length - 1]).toBe(1);
      expect([...times].sort((a, b) => a - b)).toEqual(times);
      expect(attribute(animate, 'values')[0].split(';')).toHaveLength(times.length);
      const [splines] = attribute(animate, 'keySplines');
      if (splines) expect(splines.split(';')).toHaveLength(times.length - 1);
    }
  });

  test('a straight shift needs the two ends only, with the easing as its spline', () => {
    const [values] = attribute(file(), 'values');
    const keys = values.split(';');
    expect(new Set(keys).size).toBe(2);
    for (const key of keys) expect(readPathData(key).contours).toHaveLength(1);
    expect(attribute(file(), 'keySplines')[0]).toBe('0 0 1 1;0.5 0 0.15 1;0 0 1 1');
  });

  test('an overshooting easing gets linear keys instead: splines may not leave 0..1', () => {
    const draft = structuredClone(piece) as PieceDraft;
    draft.shifts[draft.figures.f.rail[0]].easing = { kind: 'cubic-bezier', x1: 0.3, y1: 0.1, x2: 0.25, y2: 1.35 };
    const text = file(draft as Piece);
    expect(text).not.toContain('keySplines');
    expect(attribute(text, 'values')[0].split(';').length).toBeGreaterThan(8);
  });

  test('loops or stops as the piece does', () => {
    expect(file()).toContain('repeatCount="indefinite"');
    expect(file({ ...piece, playback: 'once' })).not.toContain('repeatCount');
    expect(file({ ...piece, playback: 'once' })).toContain('fill="freeze"');
  });

  test('a single pose and an empty piece are still pictures', () => {
    expect(file(pieceOf([SQUARE]))).not.toContain('<animate');
    expect(file(pieceOf([SQUARE]))).toContain('<path');
    expect(file(pieceOf([]))).toMatch(/^<svg/);
  });

  test('digits set the size of the file', () => {
    const compiled = compilePiece(pieceOf(['M0 0L10.123 3.3L7 9.87Z', DIAMOND]));
    expect(writeAnimatedSvg(compiled, { digits: 1 }).length).toBeLessThan(
      writeAnimatedSvg(compiled, { digits: 4 }).length,
    );
  });

  test('read as SMIL says (values between key times, by their splines), it is the plan at 200 moments to 0.08 px: also where contours take turns', () => {
    const CASE = 'M0 0H100V100H0ZM30 20V80H38V20ZM62 20V80H70V20Z';
    const TICKETS = 'M0 0H100V100H0ZM20 30V38H80V30ZM20 62V70H80V62Z';
    for (const turns of ['together', 'overlap', 'after'] as const) {
      const draft = structuredClone(pieceOf([CASE, TICKETS])) as PieceDraft;
      const shift = draft.shifts[draft.figures.f.rail[0]];
      const contours = (pose: string) => draft.parts[draft.poses[pose].parts[0]].contours.map(({ id }) => id);
      shift.match.turns = turns;
      shift.match.pairs = [
        ...contours(shift.from)
          .slice(1)
          .map((a) => ({ a, b: null })),
        ...contours(shift.to)
          .slice(1)
          .map((b) => ({ a: null, b })),
      ];
      const compiled = compilePiece({ ...draft, playback: 'once' } as Piece);
      const text = writeAnimatedSvg(compiled, { title: '' });
      const [values, times, splines] = ['values', 'keyTimes', 'keySplines'].map(
        (name) => attribute(text.slice(text.indexOf('attributeName="d"')), name)[0]?.split(';') ?? [],
      );
      const keys = values.map((d) => [...d.matchAll(/-?[\d.]+/g)].map(Number));
      const [{ plan }] = compiled.figures[0].spans[0].parts;
      for (let i = 0; i <= 200; i++) {
        const at = i / 200;
        const k = Math.max(0, times.findIndex((time) => Number(time) >= at) - 1);
        const [begin, end] = [Number(times[k]), Number(times[k + 1])];
        const [x1, y1, x2, y2] = (splines[k] ?? '0 0 1 1').split(/[ ,]+/).map(Number);
        const share = ease({ kind: 'cubic-bezier', x1, y1, x2, y2 }, (at - begin) / (end - begin));
        const played = keys[k].map((value, n) => value + (keys[k + 1][n] - value) * share);
        const progress = spanProgress(compiled.figures[0].spans[0], at * compiled.duration);
        if (progress === 1 && at < 1) continue;
        const d = inBetweenPathData(plan, evaluate(plan, progress), 4);
        const wanted = [...d.matchAll(/-?[\d.]+/g)].map(Number);
        expect(played).toHaveLength(wanted.length);
        expect(Math.max(...wanted.map((value, n) => Math.abs(value - played[n])))).toBeLessThan(0.08);
      }
    }
  });

  test('a stroke leaves out the slit through which a hole opens: elements of its own, each seen in its half', () => {
    const ring = 'M0 0H100V100H0ZM30 30V70H70V30Z';
    const draft = structuredClone(pieceOf([ring, 'M0 0H100V100H0Z'])) as PieceDraft;
    for (const part of Object.values(draft.parts))
      part.stroke = structuredClone(plainStroke('#000000', 4)) as typeof part.stroke;
    const text = file(draft as Piece);
    const paths = text.match(/<path[^>]*>/g) ?? [];
    const strokes = paths.filter((path) => path.includes('stroke-width'));
    expect(paths).toHaveLength(3);
    expect(strokes).toHaveLength(2);
    expect(strokes.map((path) => attribute(path, 'visibility')[0])).toEqual(['visible', 'hidden']);
    for (const stroke of strokes) expect(stroke).toContain('fill="none"');
    expect(paths.filter((path) => !path.includes('stroke-width'))[0]).toContain('fill="#204060"');
    // What is stroked is as long as the ring's edges, 400 + 160 against the square's 400; with the slit it would be longer.
    const length = (d: string): number =>
      readPathData(d).contours.reduce((sum, contour) => sum + measureArcLength(contour).cumulative.slice(-1)[0], 0);
    const [last] = attribute(text.slice(text.indexOf(strokes[1])), 'values')[0]
      .split(';')
      .slice(-1);
    expect(length(attribute(strokes[0], 'd')[0]) / length(last)).toBeCloseTo(1.4, 2);
  });
});
