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

/** A text that is still being set. */
const never = new Promise(() => {});

describe('letters that are typed before there is a field for them', () => {
  test('are collected in their order and reach nobody else, until they are taken', () => {
    const source = new EventTarget();
    const early = new EarlyLetters(source);
    expect(press(source, 'L')).toBe(true);
    early.wait(never);
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
    early.wait(never);
    press(source, 'a');
    press(source, 'Escape');
    expect([press(source, 'b'), early.take()]).toEqual([true, '']);
    early.wait(never);
    press(source, 'a');
    source.dispatchEvent(new Event('pointerdown'));
    expect(early.take()).toBe('');
    const none = new EarlyLetters(null);
    none.wait(never);
    expect(none.take()).toBe('');
  });

  test('they are collected until the text is set; if no field comes then, keys are shortcuts again', async () => {
    const source = new EventTarget();
    const early = new EarlyLetters(source, 10);
    const longer = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 60));
    let set = (): void => {};
    early.wait(new Promise<void>((resolve) => (set = resolve)));
    await longer();
    expect(press(source, 'a')).toBe(false);
    set();
    await longer();
    expect([press(source, 'b'), early.take()]).toEqual([true, '']);
    // A text that cannot be set ends it too.
    early.wait(Promise.reject(new Error('no font')));
    await longer();
    expect(press(source, 'd')).toBe(true);
  });
});
