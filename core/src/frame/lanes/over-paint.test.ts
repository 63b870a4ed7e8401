import { describe, expect, test } from '@jest/globals';
import { contourLength } from '../../outline';

import {
  addLane,
  checkPiece,
  type LaneProperty,
  type Part,
  type PieceDraft,
  plainStroke,
  setLaneAtStop,
} from '../../piece';
import { readPathData } from '../../svg';
import { countedIds, drawnPose, pieceBetween } from '../../testing/pieces';
import { RecordingTarget } from '../../testing/recording-target';
import { drawFrame } from '../picture/draw';
import { prepareFrame, sampleFrame } from '../picture/sample';
import { planAndCompile } from './plan-and-compile';

const newId = countedIds();
const SQUARE = 'M0 0H100V100H0Z';
const part = (): Part => ({
  ...drawnPose(SQUARE, newId).parts[0],
  fill: '#ff0000',
  stroke: { ...plainStroke('#00ff00', 10), cap: 'round', dash: [5, 5] },
});
/** What is drawn at a time where one lane goes from a value to another during the shift from 0 to 1 s. */
function drawn(
  values: Partial<Record<LaneProperty, readonly [readonly number[], readonly number[]]>>,
  seconds: number,
) {
  const draft = structuredClone(pieceBetween([part()], [part()])) as PieceDraft;
  for (const pose of Object.values(draft.poses)) pose.hold = 0;
  for (const shift of Object.values(draft.shifts)) {
    shift.duration = 1;
    shift.easing = { kind: 'linear' };
  }
  for (const [property, ends = []] of Object.entries(values)) {
    addLane(draft, 'f', property as LaneProperty, newId);
    ends.forEach((value, i) => {
      setLaneAtStop(draft, 'f', property as LaneProperty, i, value, newId);
    });
  }
  draft.playback = 'once';
  const compiled = planAndCompile(checkPiece(JSON.parse(JSON.stringify(draft))));
  const target = new RecordingTarget();
  drawFrame(sampleFrame(compiled, seconds, prepareFrame(compiled)), target);
  return target.calls;
}

/** Lengths of dashes and gaps, and the offset where there are any, by which each stroke was drawn. */
function dashesOf(calls: readonly string[]): number[][] {
  let dash: number[] = [];
  return calls.flatMap((call) => {
    if (call.startsWith('dash')) {
      const [lengths = '', offset = '0'] = call.slice(5).split(' ');
      dash = lengths.includes(',') ? [...lengths.split(','), offset].map((v) => +Number(v).toFixed(6)) : [];
    }
    return call.startsWith('stroke') ? [dash] : [];
  });
}

describe('lanes in place of what parts have', () => {
  test('colours and width are those of the lanes', () => {
    const calls = drawn(
      {
        fill: [
          [1, 1, 1, 1],
          [0, 0, 1, 1],
        ],
        stroke: [
          [0, 0, 0, 1],
          [0, 0, 0, 1],
        ],
        strokeWidth: [[20], [40]],
      },
      0.5,
    );
    expect(calls.some((call) => /^stroke #000000 30 round/.test(call))).toBe(true);
    expect(calls.filter((call) => call.startsWith('fill'))).toHaveLength(1);
    expect(calls.join(' ')).not.toMatch(/#ff0000|#00ff00/);
  });
  test('a stroke that is drawn in part has one dash, of its share of the length, and none of its own', () => {
    const calls = drawn(
      {
        drawn: [
          [0.25, 0.25, 0],
          [0.25, 0.75, 1],
        ],
      },
      1,
    );
    const length = contourLength(readPathData(SQUARE).contours[0]);
    expect(length).toBeCloseTo(400, 9);
    expect(dashesOf(calls)).toEqual([[200, 200.4, -500.5]]);
    expect(calls.filter((call) => call.startsWith('stroke'))).toHaveLength(1);
  });
  test('what is drawn of nothing is not drawn at all, round ends or not; the whole has no dash', () => {
    const nothing = drawn(
      {
        drawn: [
          [0.5, 0.5, 0],
          [0, 1, 0],
        ],
      },
      0,
    );
    expect(nothing.some((call) => call.startsWith('stroke'))).toBe(false);
    expect(nothing.some((call) => call.startsWith('fill'))).toBe(true);
    const whole = drawn(
      {
        drawn: [
          [0.5, 0.5, 0],
          [0, 1, 0],
        ],
      },
      1,
    );
    expect(whole.filter((call) => call.startsWith('stroke'))).toHaveLength(1);
    expect(dashesOf(whole)).toEqual([[]]);
  });
  test('what is soft is put together first', () => {
    const calls = drawn({ softness: [[0], [12]] }, 0.5);
    expect(calls[0]).toBe('layer over 1 soft 6');
    expect(calls.at(-1)).toBe('laid');
    expect(drawn({ softness: [[0], [12]] }, 0).some((call) => call.startsWith('layer'))).toBe(false);
  });
});
