import { describe, expect, test } from '@jest/globals';
import { readSvg } from './document/read-svg';
import { looksLikeSvg, pastedSvg } from './pasted-svg';

const shapes = (text: string): number => readSvg(pastedSvg(text)).shapes.length;

describe('what is pasted', () => {
  test('a fragment, several, a group with its definitions, path data and whole documents are read', () => {
    expect(shapes('<path d="M0 0H9V9Z"/>')).toBe(1);
    expect(shapes('\n  <!-- a wing -->\n<path d="M0 0H9V9Z"/>\n<circle r="4"/>')).toBe(2);
    expect(
      shapes(
        '<defs><linearGradient id="a"><stop offset="0" stop-color="red"/></linearGradient></defs><g fill="url(#a)"><rect width="3" height="3"/></g>',
      ),
    ).toBe(1);
    expect(shapes('<g><use xlink:href="#p"/><path id="p" d="M0 0H9V9Z"/></g>')).toBe(2);
    expect(shapes('M0 0H9V9Z')).toBe(1);
    const whole = '<?xml version="1.0"?><svg viewBox="0 0 9 9"><path d="M0 0H9V9Z"/></svg>';
    expect(pastedSvg(whole)).toBe(whole);
    expect(shapes(`${whole}\n${whole.replace(/<\?.*\?>/, '')}`)).toBe(2);
  });

  test('anything else stays as it is, and is refused by its own words', () => {
    expect(pastedSvg('Hello <b>you</b>')).toBe('Hello <b>you</b>');
    expect(() => readSvg(pastedSvg('<html><path d="M0 0H9V9Z"/></html>'))).toThrow(/svg/);
    expect(['<path d="M0 0"/>', 'M0 0H9', '<svg/>', 'Milk', 'a <path/>'].map(looksLikeSvg)).toEqual([
      true,
      true,
      true,
      false,
      false,
    ]);
  });
});
