/** What follows a pointer: its moves, and its end (undefined: the gesture was given up). */
export interface PointerFollower {
  move(event: PointerEvent): void;
  end(up: PointerEvent | undefined): void;
}

/** Follows the pointer of a press until it is released, taken away or given up by Escape; every way out cleans up and calls `end` once. */
export function followPointer(press: { readonly pointerId: number }, on: PointerFollower): void {
  const controller = new AbortController();
  const options = { signal: controller.signal };
  const finish = (up: PointerEvent | undefined): void => {
    controller.abort();
    on.end(up);
  };
  const ours = (act: (event: PointerEvent) => void) => (event: PointerEvent) => {
    if (event.pointerId === press.pointerId) act(event);
  };
  window.addEventListener('pointermove', ours(on.move), options);
  window.addEventListener('pointerup', ours(finish), options);
  window.addEventListener(
    'pointercancel',
    ours(() => finish(undefined)),
    options,
  );
  window.addEventListener(
    'keydown',
    (key) => {
      if (key.key !== 'Escape') return;
      key.stopPropagation();
      key.preventDefault();
      finish(undefined);
    },
    { ...options, capture: true },
  );
}
