import { describe, expect, test } from '@jest/globals';
import { rankAlternatives } from '../../morph';
import { contourArea } from '../../outline';
import { readSvg } from '../../svg';
import { countedIds } from '../../testing/pieces';
import { outlineOfPart } from '../records/geometry';
import type { Part } from '../records/records';
import { poseFromSvg } from './from-svg';

const partsOf = (inner: string): readonly Part[] =>
  poseFromSvg(readSvg(`<svg viewBox="0 0 100 100">${inner}</svg>`), 'Test', countedIds()).parts;
const closed = ({ contours }: Part): boolean[] => contours.map((contour) => contour.closed);

describe('open subpaths (SVG 2, section 13.4: filled as if they were closed)', () => {
  test('what is filled is an area, and is matched as one', () => {
    const [open] = partsOf('<path d="M10 10H30V90H10M70 10H90V90H70"/>');
    const [whole] = partsOf('<path d="M10 10H30V90H10ZM70 10H90V90H70Z"/>');
    expect(closed(open)).toEqual([true, true]);
    expect(outlineOfPart(open).contours.map(contourArea)).toEqual(outlineOfPart(whole).contours.map(contourArea));
    // Two bars are not grown out of a point: each becomes one.
    const [ring] = partsOf('<path d="M0 0H40V40H0M60 60H90V90H60"/>');
    const [{ match }] = rankAlternatives(outlineOfPart(open), outlineOfPart(ring));
    expect(match.pairs).toHaveLength(2);
  });

  test('ends that lie on each other become one anchor', () => {
    const [part] = partsOf('<path d="M10 10H90V90L10 10"/>');
    expect(part.contours[0].closed).toBe(true);
    expect(part.contours[0].anchors).toHaveLength(3);
  });

  test('what is stroked only stays open, and so does a line that encloses nothing', () => {
    expect(closed(partsOf('<path fill="none" stroke="red" d="M10 10H90V90"/>')[0])).toEqual([false]);
    expect(closed(partsOf('<path stroke="red" d="M10 10L90 90"/>')[0])).toEqual([false]);
    expect(closed(partsOf('<line x1="1" y1="1" x2="9" y2="5" stroke="red"/>')[0])).toEqual([false]);
  });

  test('what has both is an area under an open stroke', () => {
    const parts = partsOf('<path fill="blue" stroke="red" d="M10 10H90V90H10"/>');
    expect(parts.map(({ fill, stroke }) => [fill, stroke !== null])).toEqual([
      ['#0000ff', false],
      [null, true],
    ]);
    expect(parts.map(closed)).toEqual([[true], [false]]);
    // Where all is closed there is nothing to divide.
    expect(partsOf('<path fill="blue" stroke="red" d="M10 10H90V90Z"/>')).toHaveLength(1);
  });
});
