import { addFreeKey, addLane, compileLane, type LaneProperty, laneOf, type Piece } from '@core';
import { describe, expect, test } from '@jest/globals';
import { changePiece, sessionActions } from '../../state';
import { drawnPiece } from '../../testing/drawn-piece';
import { Driver } from '../../testing/driver';
import { freshId } from '../../workers';
import { chooseFigure } from './figure-actions';
import { copiedKeys, nudgeKeys, pasteKeys, removeChosenKeys, withoutDrives } from './key-actions';

const SQUARE = { d: 'M100 100H200V200H100Z' };
/** Two figures; the first has free keys of a lane at 0.1 and 0.3 s, which are chosen. */
function open(
  property: LaneProperty = 'position',
  values = [
    [0, 0],
    [40, 10],
  ],
): Driver {
  const driver = new Driver(drawnPiece(SQUARE, SQUARE)).select();
  driver.store.dispatch(
    changePiece('Lane', (draft) => {
      const lane = addLane(draft, 'f0', property, freshId) ?? '';
      draft.lanes[lane].keys = [];
      values.forEach((value, i) => {
        addFreeKey(draft, lane, 0.1 + 0.2 * i, value, freshId);
      });
      draft.lanes[lane].keys[0].easing = { kind: 'linear' };
    }),
  );
  const [lane] = Object.values(driver.piece.lanes);
  driver.store.dispatch(sessionActions.keysChosen(lane.keys.map(({ id }) => ({ lane: lane.id, key: id }))));
  return driver;
}
const keysOf = (piece: Piece, figure: string, property: LaneProperty = 'position') =>
  laneOf(piece, figure, property)?.keys.map(({ after, value, easing }) => [after, [...value], easing?.kind ?? null]) ??
  [];

describe('keys of lanes', () => {
  test('go through the clipboard to another figure, the first where the bead stands; its lane is made', () => {
    const driver = open();
    const copied = copiedKeys(driver.store);
    expect(copied?.text).toBe('position\t0 s\t0, 0\nposition\t0.2 s\t40, 10');
    chooseFigure(driver.store, 'f1', 0, 'alone');
    expect(pasteKeys(driver.store, copied?.json ?? '', 0.25)).toBe(true);
    expect(keysOf(driver.piece, 'f1').slice(-2)).toEqual([
      [0.25, [0, 0], 'linear'],
      [0.45, [40, 10], null],
    ]);
    expect(driver.store.getState().session.keys).toHaveLength(2);
    driver.run('undo');
    expect(keysOf(driver.piece, 'f1')).toEqual([]);
  });
  test('go to the figure whose key was chosen last, not to that of the rail, and it is said which', () => {
    const driver = open();
    const copied = copiedKeys(driver.store);
    expect(copied?.said).toMatch(/^2 keys of “.+” are copied\.$/);
    chooseFigure(driver.store, 'f0', 0, 'alone');
    driver.store.dispatch(changePiece('Lane', (draft) => void addLane(draft, 'f1', 'position', freshId)));
    const other = laneOf(driver.piece, 'f1', 'position');
    driver.store.dispatch(sessionActions.keysChosen([{ lane: other?.id ?? '', key: other?.keys[0].id ?? '' }]));
    const before = keysOf(driver.piece, 'f0');
    expect(pasteKeys(driver.store, copied?.json ?? '', 0.25)).toBe(true);
    expect(keysOf(driver.piece, 'f0')).toEqual(before);
    expect(keysOf(driver.piece, 'f1')).toHaveLength(3);
    const messages = driver.store.getState().session.messages.map(({ text }) => text);
    expect(messages.at(-1)).toBe(`2 keys pasted into “${driver.piece.figures.f1.name}”.`);
  });
  test('colours of the canvas are pasted into the canvas, whatever is chosen; strokes not where there are none', () => {
    const driver = open();
    const text = (property: string, value: number[]): string =>
      JSON.stringify({ kind: 'keys', keys: [{ property, at: 0, value, easing: null }] });
    expect(pasteKeys(driver.store, text('background', [1, 0, 0, 1]), 0.5)).toBe(true);
    expect(laneOf(driver.piece, null, 'background')?.keys.at(-1)).toMatchObject({ after: 0.5, value: [1, 0, 0, 1] });
    expect(pasteKeys(driver.store, text('stroke', [1, 0, 0, 1]), 0.5)).toBe(false);
  });
  test('what is no key is not taken, and changes nothing', () => {
    const driver = open();
    const before = driver.piece;
    for (const text of [
      'M0 0H1',
      '{}',
      '{"kind":"keys","keys":[]}',
      '{"kind":"keys","keys":[{"property":"nothing","at":0,"value":[1],"easing":null}]}',
      '{"kind":"keys","keys":[{"property":"opacity","at":0,"value":[7],"easing":null}]}',
      '{"kind":"keys","keys":[{"property":"opacity","at":-1,"value":[1],"easing":null}]}',
      '{"kind":"keys","keys":[{"property":"position","at":0,"value":[1],"easing":null}]}',
      '{"kind":"keys","keys":[{"property":"turn","at":0,"value":["1"],"easing":{"kind":"magic"}}]}',
    ])
      expect([text, pasteKeys(driver.store, text, 0)]).toEqual([text, false]);
    expect(driver.piece).toBe(before);
  });
  test('are nudged by frames and removed together, each in one step', () => {
    const driver = open();
    expect(nudgeKeys(driver.store, -3)).toBe(true);
    expect(keysOf(driver.piece, 'f0').map(([after]) => after)).toEqual([0.05, 0.25]);
    expect(removeChosenKeys(driver.store)).toBe(true);
    expect(driver.piece.lanes).toEqual({});
    expect([nudgeKeys(driver.store, 1), removeChosenKeys(driver.store), copiedKeys(driver.store)]).toEqual([
      false,
      false,
      undefined,
    ]);
    driver.run('undo');
    driver.run('undo');
    expect(keysOf(driver.piece, 'f0').map(([after]) => after)).toEqual([0.1, expect.closeTo(0.3, 9)]);
  });
  test('what is added to keys is no part of them', () => {
    const driver = open('turn', [[10], [10]]);
    driver.store.dispatch(
      changePiece('Pulse', (draft) => {
        const [lane] = Object.values(draft.lanes);
        lane.pulse = { shape: 'square', period: 1, from: 0, until: null, amount: [90] };
      }),
    );
    const value = new Float64Array(1);
    const [lane] = Object.values(driver.piece.lanes);
    compileLane(driver.piece, 'f0', 'turn')?.sample(0.1, value);
    expect(value[0]).toBe(100);
    compileLane(withoutDrives(driver.piece, lane), 'f0', 'turn')?.sample(0.1, value);
    expect(value[0]).toBe(10);
  });
});
