const NAMES: Readonly<Record<string, string>> = {
  mod: /Mac|iP(hone|ad)/.test(globalThis.navigator?.platform ?? '') ? '⌘' : 'Ctrl',
  shift: '⇧',
  space: 'Space',
  left: '←',
  right: '→',
  period: '.',
  comma: ',',
  plus: '+',
  equal: '+',
  minus: '−',
  slash: '/',
  delete: 'Delete',
  backspace: '⌫',
  escape: 'Esc',
};

/** A key combination as people read it. */
export function keysText(keys: string): string {
  if (keys === 'shift+slash') return '?';
  return keys
    .split('+')
    .map((key) => NAMES[key] ?? key.toUpperCase())
    .join(' ');
}
