import {
  addFigure,
  type CompiledPiece,
  compilePiece,
  emptyPiece,
  insertPoses,
  type PieceDraft,
  posesOfArrival,
  readSvg,
  Stage,
  storableReading,
} from '@core';
import { describe, expect, test } from '@jest/globals';
import { Showing } from './showing';

/** A drawing of differently painted squares as a piece of one pose, ready to be shown. */
function squares(count: number): CompiledPiece {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const rects = Array.from(
    { length: count },
    (_, i) => `<rect x="${2 * i}" width="1" height="1" fill="hsl(${i},50%,50%)"/>`,
  );
  const reading = storableReading(readSvg(`<svg viewBox="0 0 999 99">${rects.join('')}</svg>`));
  const draft = structuredClone(emptyPiece('test', 'Test')) as PieceDraft;
  addFigure(draft, 'f', 'Figure');
  insertPoses(draft, 'f', posesOfArrival([{ name: 'A', reading }], 'parts', null, newId), newId);
  return compilePiece(draft, () => undefined);
}

/** A stage on a machine on which every look at the clock takes `ms`. */
function slowStage(ms: number) {
  let now = 0;
  let frame: (() => void) | undefined;
  const stage = new Stage(() => {
    throw new Error('Nothing is painted here.');
  });
  let painted = 0;
  const deps = {
    now: () => {
      now += ms;
      return now;
    },
    requestFrame: (callback: () => void) => {
      frame = callback;
      return 1;
    },
    cancelFrame: () => {
      frame = undefined;
    },
  };
  const showing = new Showing(
    stage,
    deps,
    () => 0,
    () => painted++,
  );
  return {
    stage,
    showing,
    painted: () => painted,
    isWaiting: () => frame !== undefined,
    nextFrame() {
      const callback = frame;
      frame = undefined;
      callback?.();
    },
  };
}

describe('what is put on the stage', () => {
  test('is there at once when one step is enough', () => {
    const { stage, showing, isWaiting } = slowStage(0.1);
    const piece = squares(200);
    showing.show(piece);
    expect([stage.piece === piece, isWaiting()]).toEqual([true, false]);
  });

  test('waits over several frames when it is too much for one; until then what was there is shown', () => {
    const { stage, showing, painted, isWaiting, nextFrame } = slowStage(20);
    const before = squares(3);
    const after = squares(200);
    showing.show(before);
    showing.show(after);
    expect([stage.piece === before, isWaiting()]).toEqual([true, true]);
    const paintedBefore = painted();
    let frames = 0;
    while (isWaiting() && frames < 100) {
      nextFrame();
      frames++;
    }
    expect(frames).toBeGreaterThan(1);
    expect(frames).toBeLessThan(100);
    expect(stage.piece).toBe(after);
    expect(painted()).toBe(paintedBefore + 1);
  });

  test('a later piece takes the place of one that is still waiting', () => {
    const { stage, showing, isWaiting, nextFrame } = slowStage(20);
    showing.show(squares(200));
    const small = squares(3);
    showing.show(small);
    expect([stage.piece === small, isWaiting()]).toEqual([true, false]);
    nextFrame();
    expect(stage.piece).toBe(small);
    showing.show(squares(200));
    showing.stop();
    expect([isWaiting(), stage.piece === small]).toEqual([false, true]);
  });
});
