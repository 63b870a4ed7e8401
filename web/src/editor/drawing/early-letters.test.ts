import { describe, expect, test } from '@jest/globals';
import { EarlyLetters } from './early-letters';

/** A key, and whether anything else was told of it. */
function press(source: EventTarget, key: string, more: object = {}): boolean {
  const event = new Event('keydown', { cancelable: true });
  Object.assign(event, { key, ctrlKey: false, metaKey: false, altKey: false, ...more });
  let passed = false;
  const told = (): void => void (passed = true);
  source.addEventListener('keydown', told);
  source.dispatchEvent(event);
  source.removeEventListener('keydown', told);
  return passed;
}

describe('letters that are typed before there is a field for them', () => {
  test('are collected in their order and reach nobody else, until they are taken', () => {
    const source = new EventTarget();
    const early = new EarlyLetters(source);
    expect(press(source, 'L')).toBe(true);
    early.wait();
    for (const key of 'Lax') expect(press(source, key)).toBe(false);
    press(source, 'Backspace');
    for (const key of ['n', ' ', 'Shift', 'Enter']) press(source, key);
    // Shortcuts with a modifier go on as always.
    expect(press(source, 'z', { ctrlKey: true })).toBe(true);
    expect(early.take()).toBe('Lan \n');
    expect([press(source, 'b'), early.take()]).toEqual([true, '']);
  });

  test('Escape, and a press elsewhere, end it; without keys there is nothing', () => {
    const source = new EventTarget();
    const early = new EarlyLetters(source);
    early.wait();
    press(source, 'a');
    press(source, 'Escape');
    expect([press(source, 'b'), early.take()]).toEqual([true, '']);
    early.wait();
    press(source, 'a');
    source.dispatchEvent(new Event('pointerdown'));
    expect(early.take()).toBe('');
    const none = new EarlyLetters(null);
    none.wait();
    expect(none.take()).toBe('');
  });
});
