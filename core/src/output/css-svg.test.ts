import { describe, expect, test } from '@jest/globals';
import { planAndCompile } from '../frame';
import type { PieceDraft } from '../piece';
import { countedIds, drawnPose, pieceBetween, pieceOf } from '../testing/pieces';
import { cssKeyframes } from './css-keyframes';
import { writeCssSvg } from './css-svg';

const SQUARE = 'M0 0H10V10H0Z';
const DIAMOND = 'M5 0L10 5L5 10L0 5Z';

describe('keyframes', () => {
  test('easing stands in the frame that it leaves; even ways have none; what jumps has steps', () => {
    const keyed = {
      times: [0, 0.5, 1],
      values: ['0', '5', '9'],
      splines: [[0.4, 0, 0.6, 1] as const, [0, 0, 1, 1] as const],
      jumps: false,
    };
    expect(cssKeyframes('opacity', keyed)).toBe(
      '0%{opacity:0;animation-timing-function:cubic-bezier(0.4,0,0.6,1)}50%{opacity:5}100%{opacity:9}',
    );
    expect(cssKeyframes('opacity', { times: [0, 0.25], values: ['0', '1'], splines: [], jumps: true })).toBe(
      '0%{opacity:0;animation-timing-function:step-end}25%{opacity:1;animation-timing-function:step-end}100%{opacity:1}',
    );
  });

  test('of several keys at one time the first and the last are kept, a moment apart; at the beginning the last', () => {
    const keyed = {
      times: [0, 0, 0.5, 0.5, 0.5, 1],
      values: ['a', 'b', 'c', 'd', 'e', 'f'],
      splines: [],
      jumps: false,
    };
    expect(cssKeyframes('x', keyed)).toBe('0%{x:b}49.99999%{x:c}50%{x:e}100%{x:f}');
  });
});

describe('a piece as CSS animation', () => {
  const write = (playback: 'once' | 'loop', page = false): string =>
    writeCssSvg(planAndCompile({ ...pieceOf([SQUARE, DIAMOND]), playback }), { title: 'A & B', page });

  test('the outline is the property d; it plays as the piece does and rests where less motion is asked for', () => {
    expect(write('loop')).toMatch(/@keyframes a-b-[a-z0-9]+-k1\{0%\{d:path\("m/);
    expect(write('loop')).toMatch(/animation:a-b-[a-z0-9]+-k1 [\d.]+s(?: -[\d.]+s)? linear infinite forwards/);
    expect(write('once')).not.toContain('infinite');
    expect(write('once')).toMatch(
      /@media \(prefers-reduced-motion:reduce\)\{\.a-b-[a-z0-9]+-file \*\{animation:none!important\}\}/,
    );
    expect(write('once')).not.toContain('<animate');
  });

  test('a page is HTML with the picture and its name in it', () => {
    expect(write('loop', true)).toMatch(
      /^<!doctype html>\n<html lang="en">\n<meta charset="utf-8">\n<title>A &amp; B<\/title>/,
    );
    expect(write('loop', true)).toMatch(/<svg class="a-b-[a-z0-9]+-file" viewBox=/);
  });

  test('motion is translate, rotate and scale about an origin, each with its own keyframes', () => {
    const [part] = drawnPose(SQUARE, countedIds()).parts;
    const draft = structuredClone(pieceBetween([part], [{ ...part, id: 'other' }])) as PieceDraft;
    draft.figures.f.pivot = [40, 30];
    const [shift] = draft.figures.f.rail;
    const key = (pose: string, value: number, leaving: string | null) => ({
      id: pose,
      stop: { pose, shift: leaving },
      after: null,
      value: [value],
      easing: null,
    });
    draft.lanes.turn = { id: 'turn', figure: 'f', property: 'turn', keys: [key('A', 0, null), key('B', 90, shift)] };
    const text = writeCssSvg(planAndCompile(draft as never));
    expect(text).toContain('translate:0px 0px;rotate:0deg;transform-origin:40px 30px');
    expect(text).toContain('0%{rotate:0deg}100%{rotate:90deg}');
  });

  test('what stands still has no style sheet', () => {
    expect(writeCssSvg(planAndCompile(pieceOf([SQUARE])))).not.toContain('<style>');
  });
});
