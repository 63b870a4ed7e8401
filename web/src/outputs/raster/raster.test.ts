import { planAndCompile, readOptions, seededRandom } from '@core';
import { describe, expect, test } from '@jest/globals';
import { strFromU8, unzipSync } from 'fflate';
import { GifReader } from 'omggif';
import { PNG } from 'pngjs';
import { pieceOf } from '../../testing/pieces';
import { comparePictures } from '../proof/compare-pictures';
import { ZipWriter } from '../zip';
import { ApngWriter } from './apng';
import { BlobSink } from './blob-sink';
import { ChangedPictures, type Pixels } from './changed-pictures';
import { gif } from './gif';
import { addDither, indexed, paletteOf } from './gif-colours';
import { pngSequence } from './png-forms';
import { rasterSettings, sizeOf } from './raster-settings';
import { mp4, webm } from './video';
import { hundredths, writeGif } from './write-gif';
import { i420aSize, i420Size, writeI420, writeI420A } from './yuv';

const bytesOf = async (blob: Blob): Promise<number[]> => [...new Uint8Array(await blob.arrayBuffer())];

describe('a file that is written in pieces', () => {
  test('bytes follow each other, and may be written over, over the end too', async () => {
    const sink = new BlobSink();
    sink.write(Uint8Array.of(1, 2, 3, 4));
    sink.write(Uint8Array.of(9), 1);
    sink.write(Uint8Array.of(7, 8), 3);
    expect(sink.size).toBe(5);
    expect(await bytesOf(sink.blob('x/y'))).toEqual([1, 9, 3, 7, 8]);
  });
  test('a gap is filled with nothing, and what is given may be used again', async () => {
    const sink = new BlobSink();
    const buffer = Uint8Array.of(5);
    sink.write(buffer);
    buffer[0] = 6;
    sink.write(buffer, 3);
    expect(await bytesOf(sink.blob('x/y'))).toEqual([5, 0, 0, 6]);
  });
  test('a ZIP reads back, and is the same bytes each time', async () => {
    const zip = (): Promise<number[]> => {
      const writer = new ZipWriter();
      writer.add('a.txt', new TextEncoder().encode('hello hello hello'), false);
      writer.add('b.bin', Uint8Array.of(1, 2, 3), true);
      return bytesOf(writer.end());
    };
    const first = await zip();
    const files = unzipSync(Uint8Array.from(first));
    expect(strFromU8(files['a.txt'])).toBe('hello hello hello');
    expect([...files['b.bin']]).toEqual([1, 2, 3]);
    expect(await zip()).toEqual(first);
  });
});

describe('an animated PNG', () => {
  const picture = (shade: number): Uint8Array => {
    const png = new PNG({ width: 3, height: 2 });
    png.data.fill(shade);
    return new Uint8Array(PNG.sync.write(png));
  };
  test('its first picture is read by any decoder; times, plays and numbers are where the specification has them', async () => {
    const sink = new BlobSink();
    const writer = new ApngWriter(5, (bytes, position) => sink.write(bytes, position));
    writer.add(picture(200), { x: 0, y: 0, over: false }, { num: 1001, den: 24_000 });
    writer.add(picture(90), { x: 4, y: 7, over: true }, { num: 1, den: 12 });
    writer.end();
    const file = Buffer.from(await bytesOf(sink.blob('image/apng')));
    // The decoder checks each chunk's CRC.
    const decoded = PNG.sync.read(file, { checkCRC: true });
    expect([decoded.width, decoded.height, decoded.data[0]]).toEqual([3, 2, 200]);
    const chunks: [string, Buffer][] = [];
    for (let at = 8; at < file.length; at += 12 + file.readUInt32BE(at))
      chunks.push([file.toString('latin1', at + 4, at + 8), file.subarray(at + 8, at + 8 + file.readUInt32BE(at))]);
    expect(chunks.map(([type]) => type)).toEqual(['IHDR', 'acTL', 'fcTL', 'IDAT', 'fcTL', 'fdAT', 'IEND']);
    const [, control, first, , second, data] = chunks.map(([, content]) => content);
    expect([control.readUInt32BE(0), control.readUInt32BE(4)]).toEqual([2, 5]);
    expect([first.readUInt32BE(0), first.readUInt16BE(20), first.readUInt16BE(22)]).toEqual([0, 1001, 24_000]);
    expect([second.readUInt32BE(0), second.readUInt16BE(22), data.readUInt32BE(0)]).toEqual([1, 12, 2]);
    expect([second.readUInt32BE(12), second.readUInt32BE(16), first[25], second[25]]).toEqual([4, 7, 0, 1]);
  });
});

describe('a GIF', () => {
  test('a picture that is held is stored once, and shown as long as all the frames that it stands for', async () => {
    const [red, blue] = ['#ff0000', '#0000ff'];
    const shown = [red, red, red, blue, blue, red];
    let pixels = new Uint8ClampedArray(0);
    const painter = {
      paint(frame: number): void {
        const [r, b] = shown[frame] === red ? [255, 0] : [0, 255];
        pixels = new Uint8ClampedArray(4 * 4 * 4);
        for (let i = 0; i < pixels.length; i += 4) pixels.set([r, 0, b, 255], i);
      },
      pixels: () => ({ data: pixels, width: 4, height: 4 }),
    };
    const blob = await writeGif(
      painter as never,
      { times: [0, 1, 2, 3, 4, 5], width: 4, height: 4, ground: '#ffffff', rate: { num: 25, den: 1 } } as never,
      { colours: 16, palette: 'each', dither: 'none', matte: '#ffffff', repeat: 0 },
      () => {},
      new AbortController().signal,
    );
    const reader = new GifReader(new Uint8Array(await blob.arrayBuffer()));
    const delays = Array.from({ length: reader.numFrames() }, (_, k) => reader.frameInfo(k).delay);
    expect(delays).toEqual([12, 8, 4]);
  });

  test('12 frames a second are shown for 8, 9 and 8 hundredths, and never stray from the true time', () => {
    expect(hundredths(6, { num: 12, den: 1 })).toEqual([8, 9, 8, 8, 9, 8]);
    for (const rate of [
      { num: 30, den: 1 },
      { num: 24_000, den: 1001 },
      { num: 50, den: 1 },
    ]) {
      let sum = 0;
      hundredths(500, rate).forEach((delay, k) => {
        sum += delay;
        expect(Math.abs(sum - (100 * (k + 1) * rate.den) / rate.num)).toBeLessThanOrEqual(0.5 + 1e-9);
      });
    }
  });

  test('dithering adds the same at a place in every frame, nothing on average, and is told apart by kind', () => {
    const grey = (): Uint8ClampedArray => new Uint8ClampedArray(4 * 64 * 64).fill(128);
    const dithered = (dither: 'none' | 'pattern' | 'grain'): Uint8ClampedArray => {
      const data = grey();
      addDither(data, 64, dither);
      return data;
    };
    expect([...dithered('none')]).toEqual([...grey()]);
    for (const dither of ['pattern', 'grain'] as const) {
      expect([...dithered(dither)]).toEqual([...dithered(dither)]);
      const reds = [...dithered(dither)].filter((_, i) => i % 4 === 0);
      expect(Math.abs(reds.reduce((sum, v) => sum + v, 0) / reds.length - 128)).toBeLessThan(0.6);
      expect(new Set(reds).size).toBeGreaterThan(10);
    }
    expect([...dithered('pattern')]).not.toEqual([...dithered('grain')]);
    // Alpha is left alone.
    expect(new Set([...dithered('grain')].filter((_, i) => i % 4 === 3))).toEqual(new Set([128]));
  });

  test('a palette has the colours that are there, and none of what is not seen', () => {
    const data = new Uint8ClampedArray([255, 0, 0, 255, 0, 0, 255, 255, 0, 255, 0, 0, 255, 0, 0, 255]);
    const palette = paletteOf([data], 16).map((c) => c.slice(0, 3).join());
    expect(palette.sort()).toEqual(['0,0,255', '255,0,0']);
    const table = paletteOf([data], 16);
    const index = indexed(data, table);
    expect(table[index[0]].slice(0, 3)).toEqual([255, 0, 0]);
    expect(index[0]).toBe(index[3]);
    expect(paletteOf([new Uint8ClampedArray(8)], 16)).toEqual([[0, 0, 0]]);
  });
});

describe('a frame of video', () => {
  // Rec. ITU-R BT.709-6 in 8 bits: black is 16, white 235; 100 % bars by its own formula, item 3 (luma of 100 % bars 235, 219, 188, 173, 78, 63, 32: from memory).
  test.each([
    ['black', [0, 0, 0], [16, 128, 128]],
    ['white', [255, 255, 255], [235, 128, 128]],
    ['yellow', [255, 255, 0], [219, 16, 138]],
    ['cyan', [0, 255, 255], [188, 154, 16]],
    ['green', [0, 255, 0], [173, 42, 26]],
    ['magenta', [255, 0, 255], [78, 214, 230]],
    ['red', [255, 0, 0], [63, 102, 240]],
    ['blue', [0, 0, 255], [32, 240, 118]],
  ])('%s has the luma and the colour differences of the recommendation', (_name, [r, g, b], wanted) => {
    const rgba = new Uint8ClampedArray(Array.from({ length: 16 }, (_, k) => [r, g, b, 255][k % 4]));
    const out = writeI420(rgba, 2, 2, new Uint8Array(i420Size(2, 2)));
    expect([out[0], out[3], out[4], out[5]]).toEqual([wanted[0], wanted[0], wanted[1], wanted[2]]);
  });
});

describe('flat colours in video', () => {
  test('each of 500 seeded ones is shown within 1 of 255 by the formulas of the recommendation', () => {
    const random = seededRandom(11);
    // BT.709-6, items 3.2 to 3.4, inverted; 8 bits as in item 4.
    const shown = (y: number, cb: number, cr: number): number[] => {
      const [e, u, v] = [(y - 16) / 219, (cb - 128) / 224, (cr - 128) / 224];
      const [r, b] = [e + 1.5748 * v, e + 1.8556 * u];
      return [r, (e - 0.2126 * r - 0.0722 * b) / 0.7152, b].map((c) => Math.round(255 * c));
    };
    for (let n = 0; n < 500; n++) {
      const colour = [random(), random(), random()].map((v) => Math.floor(256 * v));
      const rgba = new Uint8ClampedArray(Array.from({ length: 16 }, (_, k) => [...colour, 255][k % 4]));
      const out = writeI420(rgba, 2, 2, new Uint8Array(i420Size(2, 2)));
      const off = shown(out[0], out[4], out[5]).map((v, k) => Math.abs(Math.min(255, Math.max(0, v)) - colour[k]));
      expect([colour, Math.max(...off) <= 1]).toEqual([colour, true]);
    }
  });
});

describe('a frame of video that can be seen through', () => {
  test('has its alpha after its colours, and what is not seen has the colour beside it', () => {
    const rgba = new Uint8ClampedArray(4 * 64);
    // A red pixel among what is transparent.
    rgba.set([255, 0, 0, 128], 4 * 9);
    const out = writeI420A(rgba, 8, 8, new Uint8Array(i420aSize(8, 8)));
    expect([...new Set(out.subarray(0, 64))]).toEqual([63]);
    expect([...new Set(out.subarray(64, 80)), ...new Set(out.subarray(80, 96))]).toEqual([102, 240]);
    expect([...out.subarray(96)].map((v, p) => (v === 0 ? -1 : p)).filter((p) => p >= 0)).toEqual([9]);
    expect(out[96 + 9]).toBe(128);
  });
});

describe('what changes from picture to picture', () => {
  const picture = (...dots: [x: number, y: number, alpha: number][]): Pixels => {
    const image = { width: 5, height: 4, data: new Uint8ClampedArray(80) };
    for (const [x, y, alpha] of dots) image.data.set([10 * x, 10 * y, 7, alpha], 4 * (5 * y + x));
    return image;
  };
  test('the first is whole; of the next the box of what changed, laid over where that is opaque; of the same nothing', () => {
    const changes = new ChangedPictures(5, 4);
    expect(changes.next(picture([0, 0, 255]))).toMatchObject({ x: 0, y: 0, over: false, picture: { width: 5 } });
    const more = changes.next(picture([0, 0, 255], [1, 1, 255], [3, 2, 255]));
    expect(more).toMatchObject({ x: 1, y: 1, over: true, picture: { width: 3, height: 2 } });
    expect([...(more?.picture.data ?? [])].filter((_, i) => i % 4 === 3)).toEqual([255, 0, 0, 0, 0, 255]);
    // A pixel that goes cannot be laid over: what is there is taken away.
    expect(changes.next(picture([0, 0, 255], [1, 1, 255]))).toMatchObject({ x: 3, y: 2, over: false });
    expect(changes.next(picture([0, 0, 255], [1, 1, 255]))).toBeNull();
  });
});

describe('how pictures are painted', () => {
  const piece = pieceOf(['M0 0H10V10H0Z', 'M5 0L10 5L5 10L0 5Z']);
  const compiled = planAndCompile(piece);
  const settings = (form: typeof gif, given: Record<string, string>) =>
    rasterSettings(form.id, piece, compiled, readOptions(form, given));

  test('a size that is left out follows from the canvas in proportion; video is even', () => {
    const canvas = { width: 640, height: 360 };
    expect(sizeOf(canvas, {})).toEqual({ width: 640, height: 360 });
    expect(sizeOf(canvas, { width: '320', height: '' })).toEqual({ width: 320, height: 180 });
    expect(sizeOf(canvas, { width: '', height: '90' })).toEqual({ width: 160, height: 90 });
    expect(sizeOf(canvas, { width: '550', height: '200' })).toEqual({ width: 550, height: 200 });
    expect(sizeOf({ width: 33, height: 21 }, {}, true)).toEqual({ width: 34, height: 22 });
    expect(() => sizeOf({ width: 20_000, height: 10 }, {})).toThrow('at most 8192 px a side');
    expect(() => sizeOf({ width: 8192, height: 8193 - 1 + 8 }, {})).toThrow('found 8192 × 8200');
  });

  test('frames of a stretch of time, as often as it is played', () => {
    const { times, rate } = settings(gif, { fps: '10', from: '0.5', until: '1' });
    expect(times.map((time) => +time.toFixed(6))).toEqual([0.5, 0.6, 0.7, 0.8, 0.9]);
    expect(rate.num / rate.den).toBe(10);
    const { times: twice } = settings(mp4, { fps: '10', until: '0.2', loops: '2' });
    expect(twice.map((time) => +time.toFixed(6))).toEqual([0, 0.1, 0, 0.1]);
  });

  test('rates of film are fractions, and the piece’s own rate is taken as it is', () => {
    expect(settings(pngSequence, { fps: '23.976' }).rate).toEqual({ num: 24_000, den: 1001 });
    expect(settings(pngSequence, { fps: '29.97' }).rate).toEqual({ num: 30_000, den: 1001 });
    expect(settings(pngSequence, { fps: '12.5' }).rate).toEqual({ num: 12_500, den: 1000 });
    expect(settings(pngSequence, {}).rate).toEqual(piece.canvas.rate);
  });

  test('a GIF has at most 50 frames a second, as browsers play them; others have as many as the piece', () => {
    expect(piece.canvas.rate).toEqual({ num: 60, den: 1 });
    const { rate, times } = settings(gif, {});
    expect(rate).toEqual({ num: 50, den: 1 });
    expect(times).toHaveLength(Math.ceil(50 * compiled.duration - 1e-6));
    expect(Math.min(...hundredths(500, rate))).toBe(2);
    expect(settings(mp4, {}).rate).toEqual(piece.canvas.rate);
    const slower = { ...piece, canvas: { ...piece.canvas, rate: { num: 30_000, den: 1001 } } };
    expect(rasterSettings('gif', slower, compiled, readOptions(gif)).rate).toEqual({ num: 30_000, den: 1001 });
  });

  test('a stretch that is not there, and too many frames, are refused with what was asked for', () => {
    expect(() => settings(gif, { from: '3', until: '2' })).toThrow('found 3 s until');
    expect(() => rasterSettings('gif', piece, { ...compiled, duration: 1e5 }, readOptions(gif))).toThrow(
      'at most 36000 frames',
    );
    expect(rasterSettings('gif', piece, { ...compiled, duration: 0 }, readOptions(gif)).times).toEqual([0]);
  });

  test('where the piece has no background there is none, or white where there must be one; the shutter is a share', () => {
    const bare = { ...compiled, background: null };
    const ground = (form: typeof gif, given: Record<string, string>) =>
      rasterSettings(form.id, piece, bare, readOptions(form, given)).ground;
    expect(ground(gif, {})).toBe('none');
    expect(ground(mp4, {})).toEqual({ colour: '#ffffff' });
    expect(ground(webm, {})).toEqual({ colour: '#ffffff' });
    expect(ground(webm, { ground: 'none' })).toBe('none');
    expect(ground(gif, { ground: 'colour', matte: '#aabbcc' })).toEqual({ colour: '#aabbcc' });
    expect(settings(gif, { shutter: '180', samples: '4' }).shutter).toEqual({ share: 0.5, samples: 4 });
    expect(settings(gif, {}).shutter.samples).toBe(1);
  });
});

describe('two pictures', () => {
  const image = (fill: (data: Uint8ClampedArray) => void): ImageData => {
    const data = new Uint8ClampedArray(4 * 16).fill(255);
    fill(data);
    return { width: 4, height: 4, data, colorSpace: 'srgb' } as ImageData;
  };
  test('the same are the same; of those that differ the share is of what is inked', () => {
    const black = (from: number, until: number) =>
      image((data) =>
        data.forEach((_, i) => {
          if (i % 4 < 3 && i / 4 >= from && i / 4 < until) data[i] = 0;
        }),
      );
    expect(comparePictures(black(4, 8), black(4, 8))).toEqual({ share: 0, mean: 0 });
    expect(comparePictures(black(4, 8), black(4, 9)).share).toBeCloseTo(1 / 5, 9);
    expect(comparePictures(black(4, 8), { ...black(4, 8), width: 2 } as ImageData).share).toBe(1);
  });
  test('a pixel is off from 33 of 255 on', () => {
    const grey = (level: number) => image((data) => data.fill(level, 0, 3));
    expect(comparePictures(grey(100), grey(132)).share).toBe(0);
    expect(comparePictures(grey(100), grey(133)).share).toBeGreaterThan(0);
  });
  test('what is transparent is as on white', () => {
    const clear = image((data) => data.fill(0));
    expect(
      comparePictures(
        clear,
        image(() => {}),
      ),
    ).toEqual({ share: 0, mean: 0 });
  });
});
