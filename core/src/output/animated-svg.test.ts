import { describe, expect, test } from '@jest/globals';
import { SaxesParser } from 'saxes';
import { DEFAULT_EASING } from '../easing';
import { planAndCompile, prepareFrame, sampleFrame } from '../frame';
import { inBetweenOutline } from '../morph';
import { measureArcLength } from '../outline';
import { type Piece, type PieceDraft, plainStroke } from '../piece';
import { readPathData } from '../svg';
import { outlineDistance } from '../testing/outline-distance';
import { pieceOf } from '../testing/pieces';
import { playSmil } from '../testing/play-smil';
import { writeAnimatedSvg } from './animated-svg';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';
const piece = pieceOf([SQUARE, DIAMOND]);
const file = (p: Piece = piece): string => writeAnimatedSvg(planAndCompile(p), { title: p.name });
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
    const once = file({ ...piece, playback: 'once' });
    const [values] = attribute(once, 'values');
    const keys = values.split(';');
    expect(new Set(keys).size).toBe(2);
    for (const key of keys) expect(readPathData(key).contours).toHaveLength(1);
    expect(attribute(once, 'keySplines')[0]).toBe('0 0 1 1;.5 0 .15 1');
  });

  test('an overshooting easing is split where it turns back: splines stay within 0..1', () => {
    const draft = structuredClone(piece) as PieceDraft;
    draft.shifts[draft.figures.f.rail[0]].easing = { kind: 'cubic-bezier', x1: 0.3, y1: 0.1, x2: 0.25, y2: 1.35 };
    const text = file(draft as Piece);
    const splines = attribute(text, 'keySplines').flatMap((list) => list.split(/[; ]/).map(Number));
    expect(splines.length).toBeGreaterThan(8);
    for (const v of splines) expect(v >= 0 && v <= 1).toBe(true);
    expect(new Set(attribute(text, 'values')[0].split(';')).size).toBeGreaterThan(2);
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
    const compiled = planAndCompile(pieceOf(['M0 0L10.123 3.3L7 9.87Z', DIAMOND]));
    expect(writeAnimatedSvg(compiled, { digits: 1 }).length).toBeLessThan(
      writeAnimatedSvg(compiled, { digits: 4 }).length,
    );
  });

  test('played as SMIL says, it is the plan at 40 moments to 0.1 px: whatever the easing, the playback and the turns of contours', () => {
    const CASE = 'M0 0H100V100H0ZM30 20V80H38V20ZM62 20V80H70V20Z';
    const TICKETS = 'M0 0H100V100H0ZM20 30V38H80V30ZM20 62V70H80V62Z';
    const DROP = 'M50 0C70 30 90 50 90 70A40 40 0 0 1 10 70C10 50 30 30 50 0Z';
    const STAR = 'M50 2L61 38L98 38L68 59L79 95L50 73L21 95L32 59L2 38L39 38Z';
    const back = { kind: 'cubic-bezier', x1: 0.4, y1: -0.4, x2: 0.3, y2: 1.4 } as const;
    const cases = [
      { ds: [CASE, TICKETS], turns: 'together', method: 'auto', easing: DEFAULT_EASING, playback: 'once' },
      { ds: [CASE, TICKETS], turns: 'overlap', method: 'auto', easing: back, playback: 'loop' },
      { ds: [CASE, TICKETS], turns: 'after', method: 'auto', easing: { kind: 'linear' }, playback: 'loop' },
      { ds: [DROP, STAR], turns: 'auto', method: 'turning', easing: DEFAULT_EASING, playback: 'loop' },
      { ds: [DROP, STAR], turns: 'auto', method: 'blended', easing: back, playback: 'once' },
    ] as const;
    for (const { ds, turns, method, easing, playback } of cases) {
      const draft = structuredClone(pieceOf(ds)) as PieceDraft;
      const shift = draft.shifts[draft.figures.f.rail[0]];
      const contours = (pose: string) => draft.parts[draft.poses[pose].parts[0]].contours.map(({ id }) => id);
      Object.assign(shift, { method, easing });
      shift.match.unpairedOrder = turns;
      shift.match.pairs = [
        ...contours(shift.from)
          .slice(1)
          .map((a) => ({ a, b: null })),
        ...contours(shift.to)
          .slice(1)
          .map((b) => ({ a: null, b })),
      ];
      const compiled = planAndCompile({ ...draft, playback } as Piece);
      const text = writeAnimatedSvg(compiled, { title: '' });
      const [tag] = text.match(/<animate attributeName="d"[^>]*>/) ?? [''];
      expect(tag).not.toBe('');
      const frame = prepareFrame(compiled);
      for (let i = 0; i < 40; i++) {
        const seconds = (compiled.duration * (i + 0.37)) / 40;
        const played = readPathData(playSmil(tag, seconds) ?? attribute(text, 'd')[0]);
        const [part] = sampleFrame(compiled, seconds, frame).figures[0].parts;
        const wanted = inBetweenOutline(part.lanes.plan, part.points);
        expect(played.contours).toHaveLength(wanted.contours.length);
        for (const [c, { points }] of wanted.contours.entries()) {
          const theirs = played.contours[c].points;
          const off = outlineDistance(
            { ...played, contours: [played.contours[c]] },
            { ...wanted, contours: [wanted.contours[c]] },
          );
          expect(theirs.length).toBeLessThanOrEqual(points.length);
          expect(off).toBeLessThan(0.1);
        }
      }
    }
  });

  test('copies of one pose are one element, whose poses are written once for each time they are reached and left', () => {
    const draft = structuredClone(pieceOf([SQUARE, SQUARE, SQUARE])) as PieceDraft;
    Object.values(draft.parts).forEach((part, i) => {
      part.contours[0].anchors[2].at = [10 + 3 * i, 10];
    });
    for (const shift of Object.values(draft.shifts)) Object.assign(shift, { method: 'straight' });
    const text = file({ ...draft, playback: 'once' } as Piece);
    expect(text.match(/<path/g)).toHaveLength(1);
    expect(text).not.toContain('display');
    expect(attribute(text, 'values')[0].split(';').length).toBeLessThanOrEqual(5);
    // Strangers have an element each, switched exactly where the one ends and the other begins.
    const strangers = file({ ...pieceOf([SQUARE, 'M5 0A5 5 0 1 1 4.9 0Z', 'M0 0L10 2L3 9Z']), playback: 'once' });
    expect(strangers.match(/<path/g)).toHaveLength(2);
    const shown = [...strangers.matchAll(/attributeName="display"[^>]*values="([^"]*)" keyTimes="([^"]*)"/g)];
    expect(shown.map(([, values, times]) => [values, times])).toEqual([
      ['inline;none', '0;.388888'],
      ['none;inline', '0;.388888'],
    ]);
  });

  test('areas have their fill rule, also where they clip; only what is clipped refers to a clip', () => {
    const text = (fillRule: 'nonzero' | 'evenodd', clip: string | null): string => {
      const draft = structuredClone(piece) as PieceDraft;
      for (const part of Object.values(draft.parts)) part.fillRule = fillRule;
      draft.figures.g = { ...structuredClone(draft.figures.f), id: 'g', clip, rail: [] };
      draft.figures.g.poses = draft.figures.g.poses.slice(0, 1);
      draft.figureOrder.push('g');
      return file(draft as Piece);
    };
    expect(text('nonzero', 'f')).not.toMatch(/(fill|clip)-rule/);
    expect(text('evenodd', 'f').match(/ clip-rule="evenodd"/g)).toHaveLength(1);
    expect(text('evenodd', 'f').match(/ fill-rule="evenodd"/g)).toHaveLength(2);
    expect(text('evenodd', null)).not.toContain('clip');
    expect(text('evenodd', 'f').match(/ clip-path="url\(#test-[a-z0-9]+-clip0\)"/g)).toHaveLength(1);
  });

  test('a contour that waits as a point, or is one in the end, leaves no dot of its stroke', () => {
    const draft = structuredClone(pieceOf([SQUARE, 'M0 0H10V10H0ZM40 40H45V45H40Z'])) as PieceDraft;
    for (const part of Object.values(draft.parts))
      part.stroke = structuredClone(plainStroke('#000000', 4)) as typeof part.stroke;
    const shift = draft.shifts[draft.figures.f.rail[0]];
    const second = draft.parts[draft.poses[shift.to].parts[0]].contours[1].id;
    shift.match.pairs = [{ a: null, b: second }];
    const text = file({ ...draft, playback: 'once' } as Piece);
    const waiting = (text.match(/<path[^>]*class="test-[a-z0-9]+-not-seen"[^>]*>.*/g) ?? []).map(
      (line) => /attributeName="visibility"[^>]*/.exec(line)?.[0],
    );
    expect(waiting).toHaveLength(1);
    expect(waiting[0]).toContain('values="hidden;visible"');
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
    expect(strokes.map((path) => attribute(path, 'class')[0]?.replace(/^test-[a-z0-9]+-/, ''))).toEqual([
      undefined,
      'not-seen',
    ]);
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

  test('at the moment at which a pose is reached, whatever the times are rounded to, what has gone is not seen again', () => {
    for (const duration of [0.24, 1 / 3, 0.7001, 0.123456789]) {
      const draft = structuredClone(pieceOf([SQUARE, 'M0 0H90V90H0ZM30 30V60H60V30Z', SQUARE])) as PieceDraft;
      const [first] = draft.figures.f.rail;
      draft.shifts[first].duration = duration;
      draft.poses[draft.figures.f.poses[0]].hold = 1.1;
      const reached = 1.1 + duration;
      const text = file(draft as Piece);
      // The elements that show the first shift, one after the other: is it shown, and if it is, has its outline begun again?
      const [display] = text.match(/<animate attributeName="display"[^>]*>/) ?? [''];
      const [outline] = text.match(/<animate attributeName="d"[^>]*>/) ?? [''];
      const [start] = attribute(outline, 'values')[0].split(';');
      for (const off of [-2e-6, -1e-7, 0, 1e-7, 3e-7, 1e-6, 2e-6]) {
        const seen = playSmil(display, reached + off) !== 'none';
        const numbers = (d = ''): number[] => (d.match(/-?(?:\d+\.?\d*|\.\d+)/g) ?? []).map(Number);
        const begun = numbers(playSmil(outline, reached + off)).every((v, k) => Math.abs(v - numbers(start)[k]) < 1e-3);
        expect([duration, off, seen && begun]).toEqual([duration, off, false]);
      }
    }
  });
});
