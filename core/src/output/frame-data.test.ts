import { describe, expect, test } from '@jest/globals';
import { frameAt, planAndCompile } from '../frame';
import { readPathData } from '../svg';
import { pieceOf } from '../testing/pieces';
import { frameTimes, writeFrameCsv, writeFrameJson } from './frame-data';
import { csvLines } from './proof/prove-text';

const piece = pieceOf(['M0 0H100V100H0Z', 'M50 0L100 50L50 100L0 50Z']);
const compiled = planAndCompile(piece);

describe('a piece frame by frame', () => {
  test('a frame for each 1/fps from 0 on, all before the end; there and back twice as many', () => {
    const { duration } = compiled;
    const times = frameTimes(compiled, 10);
    expect(times).toHaveLength(Math.ceil(duration * 10 - 1e-6));
    expect(times[3]).toBeCloseTo(0.3, 12);
    expect(frameTimes({ ...compiled, playback: 'back' }, 10)).toHaveLength(Math.ceil(2 * duration * 10 - 1e-6));
    expect(frameTimes({ ...compiled, duration: 0 }, 10)).toEqual([0]);
  });

  test('each frame of the JSON is the engine’s frame at its time, to its decimals', () => {
    const { canvas, frames } = JSON.parse(writeFrameJson(compiled, { fps: 20, digits: 3 }));
    expect(canvas).toMatchObject({ width: compiled.width, fps: 20 });
    expect(frames).toHaveLength(frameTimes(compiled, 20).length);
    for (const { time, figures } of frames) {
      const [part] = frameAt(piece, time).figures[0].parts;
      const [contour] = readPathData(figures[0].parts[0].d).contours;
      contour.points.forEach((v, i) => expect(Math.abs(v - part.points[part.contours[0].at + i])).toBeLessThan(6e-4));
    }
  });

  test('the table has a line for each part of each frame, and reads back as it was written', () => {
    const lines = csvLines(writeFrameCsv(compiled, { fps: 5 }));
    expect(lines[0]).toEqual([
      'frame',
      'time',
      'figure',
      'part',
      'd',
      'fill',
      'stroke',
      'strokeWidth',
      'opacity',
      'matrix',
      'drawn',
    ]);
    expect(lines.slice(1).map(([frame, time]) => [Number(frame), Number(time)])).toEqual(
      frameTimes(compiled, 5).map((time, k) => [k, time]),
    );
    expect(lines[1].slice(2, 4)).toEqual(['figure', '0']);
  });

  test('quotes, commas and line ends in cells are kept (RFC 4180, section 2)', () => {
    expect(csvLines('a,"b ""c"", d",e\r\n"x\r\ny",,z\r\n')).toEqual([
      ['a', 'b "c", d', 'e'],
      ['x\r\ny', '', 'z'],
    ]);
  });

  test('rates and lengths that make no sense are refused with what was expected', () => {
    expect(() => writeFrameJson(compiled, { fps: 0 })).toThrow('up to 1000 frames per second; found 0');
    expect(() => writeFrameJson({ ...compiled, duration: 1e6 }, { fps: 60 })).toThrow('at most 36000 frames');
  });
});
