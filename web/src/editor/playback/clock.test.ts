import { describe, expect, test } from '@jest/globals';
import { type ClockRange, PlaybackClock } from './clock';

const LOOP: ClockRange = { duration: 2, playback: 'loop', stretch: [0, 2], rate: 60 };

/** A clock whose surroundings are driven by hand. */
function driven(range = LOOP) {
  let now = 0;
  let next: (() => void) | undefined;
  const clock = new PlaybackClock({
    now: () => now,
    requestFrame: (callback) => {
      next = callback;
      return 1;
    },
    cancelFrame: () => {
      next = undefined;
    },
  });
  clock.setRange(range);
  const advance = (ms: number): void => {
    now += ms;
    const callback = next;
    next = undefined;
    callback?.();
  };
  return { clock, advance };
}

describe('the play position', () => {
  test('is sampled from the clock: many small steps and one large one end on the same frame', () => {
    const small = driven();
    const large = driven();
    small.clock.play();
    large.clock.play();
    for (let i = 0; i < 1000; i++) small.advance(1.234);
    large.advance(1234);
    expect(small.clock.seconds).toBe(large.clock.seconds);
    expect(Math.round(large.clock.seconds * 60) / 60).toBeCloseTo(large.clock.seconds, 12);
  });

  test('plays slower from where it is, on the same frames', () => {
    const { clock, advance } = driven();
    clock.play();
    advance(500);
    clock.setSpeed(0.1);
    expect(clock.seconds).toBeCloseTo(0.5, 6);
    advance(1000);
    expect(clock.seconds).toBeCloseTo(0.6, 6);
    expect(Math.round(clock.seconds * 60) / 60).toBeCloseTo(clock.seconds, 12);
  });

  test('loops, or stops at the end and starts again from there', () => {
    const loop = driven();
    loop.clock.play();
    loop.advance(2500);
    expect(loop.clock.seconds).toBeCloseTo(0.5, 6);
    const once = driven({ ...LOOP, playback: 'once' });
    once.clock.play();
    once.advance(2500);
    expect([once.clock.seconds, once.clock.playing]).toEqual([2, false]);
    once.clock.play();
    expect([once.clock.seconds, once.clock.playing]).toEqual([0, true]);
  });

  test('goes there and back without showing an end twice, and from the start once, then through a stretch', () => {
    const back = driven({ ...LOOP, playback: 'back' });
    const shown: number[] = [];
    back.clock.onMove((seconds) => shown.push(Math.round(seconds * 60)));
    back.clock.play();
    for (let i = 0; i < 240; i++) back.advance(1000 / 60);
    const there = Array.from({ length: 120 }, (_, i) => i + 1);
    expect(shown).toEqual([...there, ...there.map((frame) => 120 - frame)]);
    // From its end it goes back at once.
    back.clock.pause();
    back.clock.seek(2);
    back.clock.play();
    back.advance(500);
    expect(back.clock.seconds).toBeCloseTo(1.5, 6);
    const stretch = driven({ ...LOOP, playback: 'stretch', stretch: [0.5, 1.5] });
    stretch.clock.play();
    stretch.advance(1250);
    expect(stretch.clock.seconds).toBeCloseTo(1.25, 6);
    stretch.advance(500);
    expect(stretch.clock.seconds).toBeCloseTo(0.75, 6);
    stretch.advance(2000);
    expect(stretch.clock.seconds).toBeCloseTo(0.75, 6);
  });

  test('a stretch that is looked at is played alone, again and again, until it is lifted', () => {
    const { clock, advance } = driven({ ...LOOP, playback: 'once' });
    clock.look([0.5, 1]);
    clock.seek(0.75);
    clock.play();
    advance(200);
    expect(clock.seconds).toBeCloseTo(0.95, 2);
    advance(150);
    expect(clock.seconds).toBeCloseTo(0.6, 1);
    advance(5000);
    expect([clock.seconds >= 0.5, clock.seconds < 1, clock.playing]).toEqual([true, true, true]);
    clock.look(null);
    advance(5000);
    expect([clock.seconds, clock.playing]).toEqual([2, false]);
  });

  test('seeking while it plays goes on from there; stepping stops and lands on frames', () => {
    const { clock, advance } = driven();
    clock.play();
    advance(100);
    clock.seek(1);
    advance(500);
    expect(clock.seconds).toBeCloseTo(1.5, 6);
    clock.step(1);
    expect([clock.playing, Math.round(clock.seconds * 60)]).toEqual([false, 91]);
    clock.step(-100);
    expect(clock.seconds).toBe(0);
    clock.step(1000);
    expect(clock.seconds).toBe(2);
  });

  test('a shorter piece pulls it in, an empty one stops it', () => {
    const { clock } = driven();
    clock.seek(1.8);
    clock.play();
    clock.setRange({ ...LOOP, duration: 1 });
    expect(clock.seconds).toBe(1);
    clock.setRange({ ...LOOP, duration: 0 });
    expect([clock.seconds, clock.playing]).toEqual([0, false]);
  });

  test('listeners hear of moves and of starting and stopping until they leave', () => {
    const { clock, advance } = driven();
    const moves: number[] = [];
    let states = 0;
    const leave = clock.onMove((seconds) => moves.push(seconds));
    clock.onState(() => states++);
    clock.play();
    advance(500);
    leave();
    advance(500);
    clock.pause();
    expect([moves, states]).toEqual([[0.5], 2]);
  });
});
