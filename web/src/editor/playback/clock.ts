import { type RunTimes, runLength, runTime } from '@core';

/** What a clock needs from its surroundings. */
export interface ClockDeps {
  readonly now: () => number;
  readonly requestFrame: (callback: () => void) => number;
  readonly cancelFrame: (handle: number) => void;
}

/** What a clock runs through; its duration is 0 when there is nothing to play. */
export interface ClockRange extends RunTimes {
  /** Frames per second. */
  readonly rate: number;
}

/**
 * The play position. Time is sampled from the surroundings' clock, never added up, and shown on the piece's own frames, so that
 * playback shows the same pictures as every output.
 */
export class PlaybackClock {
  private range: ClockRange = { duration: 0, playback: 'loop', stretch: [0, 0], rate: 60 };
  private position = 0;
  /** How far the run has come, s: there and back it goes on while the position comes back. */
  private run = 0;
  private startedAt = 0;
  private startedFrom = 0;
  private handle: number | undefined;
  /** What is looked at alone, s: played again and again until it is lifted. */
  private window: readonly [from: number, until: number] | null = null;
  /** How fast it plays: 1 as it will be, ½ half as fast. */
  private pace = 1;
  private readonly moveListeners = new Set<(seconds: number) => void>();
  private readonly stateListeners = new Set<() => void>();

  constructor(private readonly deps: ClockDeps) {}

  /** s */
  get seconds(): number {
    return this.position;
  }

  get playing(): boolean {
    return this.handle !== undefined;
  }

  get speed(): number {
    return this.pace;
  }

  /** Plays slower or faster from here on; the frames are the same. */
  setSpeed(speed: number): void {
    this.startedAt = this.deps.now();
    this.startedFrom = this.run;
    this.pace = speed;
    this.tellState();
  }

  setRange(range: ClockRange): void {
    this.range = range;
    if (this.position > range.duration) this.seek(range.duration);
    if (!(range.duration > 0)) this.pause();
  }

  /** Plays a stretch alone, again and again, s; null: all that the piece plays. */
  look(window: readonly [from: number, until: number] | null): void {
    this.window = window && window[1] - window[0] > 1e-3 ? window : null;
    this.seek(this.position);
  }

  play(): void {
    if (this.playing || !(this.range.duration > 0)) return;
    // A run that has ended starts again; one that goes back does so from its end.
    if (this.range.playback !== 'back' && this.position >= this.range.duration - 1e-9) this.run = this.position = 0;
    this.startedAt = this.deps.now();
    this.startedFrom = this.run;
    this.handle = this.deps.requestFrame(this.tick);
    this.tellState();
  }

  pause(): void {
    if (this.handle === undefined) return;
    this.deps.cancelFrame(this.handle);
    this.handle = undefined;
    this.tellState();
  }

  toggle(): void {
    if (this.playing) this.pause();
    else this.play();
  }

  /** Moves the play position, in s; playback goes on from there. */
  seek(seconds: number): void {
    this.position = Math.min(this.range.duration, Math.max(0, seconds));
    this.run = this.position;
    this.startedAt = this.deps.now();
    this.startedFrom = this.run;
    this.tellMove();
  }

  /** Goes to the frame that lies `frames` after the present one. */
  step(frames: number): void {
    this.pause();
    const { rate } = this.range;
    this.seek((Math.floor(this.position * rate + 1e-6) + frames) / rate);
  }

  onMove(listener: (seconds: number) => void): () => void {
    this.moveListeners.add(listener);
    return () => void this.moveListeners.delete(listener);
  }

  onState(listener: () => void): () => void {
    this.stateListeners.add(listener);
    return () => void this.stateListeners.delete(listener);
  }

  destroy(): void {
    this.pause();
    this.moveListeners.clear();
    this.stateListeners.clear();
  }

  private readonly tick = (): void => {
    const { duration, playback, stretch, rate } = this.range;
    const elapsed = ((this.deps.now() - this.startedAt) / 1000) * this.pace;
    let time = this.startedFrom + elapsed;
    if (this.window) {
      const [from, until] = this.window;
      const inside = time < from || time >= until ? from + modulo(time - from, until - from) : time;
      this.run = this.position = Math.min(duration, Math.max(0, Math.ceil(inside * rate - 1e-6) / rate));
      this.handle = this.deps.requestFrame(this.tick);
      this.tellMove();
      return;
    }
    if (time >= duration && playback === 'once') {
      this.run = this.position = duration;
      this.handle = undefined;
      this.tellMove();
      this.tellState();
      return;
    }
    const length = runLength(this.range);
    if (playback !== 'stretch' && length > 0) time -= Math.floor(time / length) * length;
    // From beyond a stretch it goes on into it.
    if (playback === 'stretch' && this.startedFrom > stretch[1]) time -= this.startedFrom - stretch[1];
    this.run = Math.floor(time * rate + 1e-6) / rate;
    this.position = runTime(this.range, this.run);
    this.handle = this.deps.requestFrame(this.tick);
    this.tellMove();
  };

  private tellMove(): void {
    for (const listener of this.moveListeners) listener(this.position);
  }

  private tellState(): void {
    for (const listener of this.stateListeners) listener();
  }
}

const modulo = (value: number, round: number): number => value - Math.floor(value / round) * round;
