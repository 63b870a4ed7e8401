import fs from 'node:fs';
import {
  CAPS,
  checkPiece,
  contourArea,
  contourBox,
  contourLength,
  type FramePart,
  JOINS,
  type PaintSample,
  planAndCompile,
  prepareFrame,
  sampleFrame,
} from '@core';
import { describe, expect, test } from '@jest/globals';
import { boardingButton } from './boarding-button';
import { gate } from './gate';
import { pierLetters } from './pier-letters';
import { quayMark } from './quay-mark';
import { tideGauge } from './tide-gauge';

/** A part at a moment as the program drew it when the table was written: box, area and length of each contour, and all of its paint. */
interface KnownPart {
  readonly contours: readonly (readonly number[])[];
  readonly fill?: readonly number[];
  readonly fillGradient?: readonly number[];
  readonly stroke?: readonly number[];
  readonly width?: number;
  readonly dash?: readonly number[];
  readonly dashOffset?: number;
  readonly miter?: number;
  readonly cap?: string;
  readonly join?: string;
}
type Known = Record<string, { seconds: number; figures: { opacity: number; parts: KnownPart[] }[] }[]>;

const known = JSON.parse(fs.readFileSync(`${import.meta.dirname}/known-frames.json`, 'utf8')) as Known;
const round = (v: number): number => +v.toFixed(3);

/** Are a contour's box, area and length the same? Areas are as exact as the outline times its length. */
function alike(numbers: readonly number[], known: readonly number[]): boolean {
  const room = [0.02, 0.02, 0.02, 0.02, 0.02 * Math.max(1, known[5]), 0.1];
  return numbers.every((v, k) => Math.abs(v - known[k]) <= room[k]);
}

function described(part: FramePart): KnownPart {
  const contours = part.contours.map(({ at, segments, closed }) => {
    const contour = { points: part.points.slice(at, at + 6 * segments + 2), closed };
    const { minX, minY, maxX, maxY } = contourBox(contour);
    return [minX, minY, maxX, maxY, Math.abs(contourArea(contour)), contourLength(contour)];
  });
  const gradient = (paint: PaintSample) =>
    paint.gradient && [...paint.gradient.geometry, ...paint.gradient.at, ...paint.gradient.colours].map(round);
  const { fill, stroke } = part;
  const pen = stroke?.values;
  return {
    contours,
    ...(fill && !fill.gradient && { fill: [...fill.colour].map(round) }),
    ...(fill?.gradient && { fillGradient: gradient(fill) ?? [] }),
    ...(stroke &&
      pen && {
        stroke: [...stroke.paint.colour].map(round),
        width: round(pen.strokeWidth[0]),
        dash: [...pen.dash].map(round),
        dashOffset: round(pen.dashOffset[0]),
        miter: round(pen.miter[0]),
        cap: CAPS[pen.cap[0]],
        join: JOINS[pen.join[0]],
      }),
  };
}

describe('old pieces open unchanged', () => {
  test.each([
    ['Gate', gate],
    ['Tide Gauge', tideGauge],
    ['Pier Letters', pierLetters],
    ['Boarding Button', boardingButton],
    ['Quay Mark', quayMark],
  ])('%s looks at 20 moments as it did before', (_name, make) => {
    const piece = checkPiece(make());
    const compiled = planAndCompile(piece);
    const frame = prepareFrame(compiled);
    expect(known[piece.id]).toHaveLength(20);
    for (const { seconds, figures } of known[piece.id]) {
      const now = sampleFrame(compiled, seconds, frame).figures;
      expect(now.map(({ opacity }) => opacity[0])).toEqual(figures.map(({ opacity }) => opacity));
      now.forEach(({ parts }, f) => {
        expect(parts).toHaveLength(figures[f].parts.length);
        parts.forEach((part, i) => {
          const { contours: wanted, ...paint } = figures[f].parts[i];
          const { contours, ...paintNow } = described(part);
          expect(paintNow).toEqual(paint);
          expect(contours).toHaveLength(wanted.length);
          // In which order contours of one paint are written changes nothing of the picture.
          const left = [...wanted];
          for (const numbers of contours) {
            const at = left.findIndex((other) => alike(numbers, other));
            expect(at < 0 ? { numbers, left } : 'known').toBe('known');
            left.splice(at, 1);
          }
        });
      });
    }
  });
});
