import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { followPointer } from './follow-pointer';

/** As much of a page's window as a pointer needs: the platform's own event target. */
class Page extends EventTarget {
  send(type: string, fields: object): Event {
    const event = Object.assign(new Event(type, { cancelable: true }), fields);
    this.dispatchEvent(event);
    return event;
  }
}

let page: Page;
let seen: string[];
const follower = {
  move: ({ clientX }: PointerEvent) => void seen.push(`move ${clientX}`),
  end: (up: PointerEvent | undefined) => void seen.push(up ? `end ${up.clientX}` : 'given up'),
};

beforeEach(() => {
  page = new Page();
  seen = [];
  Object.assign(globalThis, { window: page });
});
afterEach(() => Object.assign(globalThis, { window: undefined }));

test('a press is followed by its own pointer only, until that is released', () => {
  followPointer({ pointerId: 7 }, follower);
  page.send('pointermove', { pointerId: 7, clientX: 10 });
  page.send('pointermove', { pointerId: 8, clientX: 99 });
  page.send('pointerup', { pointerId: 8, clientX: 99 });
  page.send('pointermove', { pointerId: 7, clientX: 20 });
  page.send('pointerup', { pointerId: 7, clientX: 21 });
  expect(seen).toEqual(['move 10', 'move 20', 'end 21']);
});

test('after its end nothing is heard any more', () => {
  followPointer({ pointerId: 1 }, follower);
  page.send('pointerup', { pointerId: 1, clientX: 5 });
  page.send('pointermove', { pointerId: 1, clientX: 6 });
  page.send('pointerup', { pointerId: 1, clientX: 7 });
  page.send('keydown', { key: 'Escape' });
  expect(seen).toEqual(['end 5']);
});

test('Escape gives the gesture up and goes no further; other keys pass', () => {
  followPointer({ pointerId: 1 }, follower);
  expect(page.send('keydown', { key: 'ArrowLeft' }).defaultPrevented).toBe(false);
  expect(seen).toEqual([]);
  expect(page.send('keydown', { key: 'Escape' }).defaultPrevented).toBe(true);
  page.send('pointerup', { pointerId: 1, clientX: 3 });
  expect(seen).toEqual(['given up']);
});

test('a pointer that is taken away gives the gesture up', () => {
  followPointer({ pointerId: 2 }, follower);
  page.send('pointercancel', { pointerId: 3 });
  page.send('pointercancel', { pointerId: 2 });
  expect(seen).toEqual(['given up']);
});
