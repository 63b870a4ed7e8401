import { AUTOMATIC_MATCH, type MatchChoices, type PieceDraft } from '@core';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import type { AppStore } from '../../state';
import { openMatchRoom } from '../../testing/match-room';
import { Paper } from '../../testing/paper';
import { pieceOf } from '../../testing/pieces';
import type { PlanStore } from '../plans/plan-store';
import { addTie } from './match-actions';
import type { MatchEditing } from './match-editing';
import { MatchPainter, PICTURES, type PictureElements, type PictureId, startHandles } from './match-painter';

const RING = 'M0 0H100V100H0ZM30 30V70H70V30Z';
const SIZE = { width: 400, height: 300 };

/** An element of the layer of handles: its data and what was set on it. */
class Handle {
  readonly style: Record<string, string> = {};
  private readonly set = new Map<string, string>();
  constructor(readonly dataset: Record<string, string>) {}
  setAttribute(name: string, value: string): void {
    this.set.set(name, value);
  }
  get(name: string): string | undefined {
    return this.set.get(name);
  }
  /** Its place, as `translate` or its first end says. */
  get at(): number[] {
    return (this.get('transform')?.match(/-?[\d.]+/g) ?? []).map(Number);
  }
}
class Overlay {
  readonly handles: Handle[] = [{ key: 'echo' }, { key: 'rubber' }].map((data) => new Handle(data));
  add(dataset: Record<string, string>): Handle {
    const handle = new Handle(dataset);
    this.handles.push(handle);
    return handle;
  }
  querySelectorAll(selector: string): Handle[] {
    const [, name, value] = /^\[data-([a-z]+)(?:="([^"]*)")?\]$/.exec(selector) ?? [];
    return this.handles.filter(({ dataset }) => name in dataset && (value === undefined || dataset[name] === value));
  }
  querySelector(selector: string): Handle | null {
    return this.querySelectorAll(selector)[0] ?? null;
  }
}

let store: AppStore;
let plans: PlanStore;
let editing: MatchEditing;
let painter: MatchPainter;
let papers: Record<PictureId, Paper>;
let overlays: Record<PictureId, Overlay>;
let canvases: Record<PictureId, { width: number; height: number; dataset: Record<string, string> }>;
let waiting: (() => void)[] = [];
let watched: { over: boolean }[] = [];
let themeChanged: () => void;
const root = { dataset: {} as Record<string, string> };

/** Opens a shift between two outlines in the room, painted once. */
async function open(a: string, b: string, match: Partial<MatchChoices> = {}): Promise<void> {
  const piece = structuredClone(pieceOf([a, b])) as PieceDraft;
  const [shiftId] = piece.figures.f.rail;
  piece.shifts[shiftId].match = { ...AUTOMATIC_MATCH, ...match } as PieceDraft['shifts'][string]['match'];
  ({ store, plans, editing } = await openMatchRoom(piece));
  const each = <T>(make: (id: PictureId) => T): Record<PictureId, T> =>
    Object.fromEntries(PICTURES.map((id) => [id, make(id)])) as Record<PictureId, T>;
  papers = each(() => new Paper());
  overlays = each(() => new Overlay());
  canvases = each((id) => ({
    clientWidth: SIZE.width,
    clientHeight: SIZE.height,
    width: 0,
    height: 0,
    dataset: {},
    getContext: () => papers[id].context,
  }));
  painter = new MatchPainter(
    editing,
    each((id) => ({ canvas: canvases[id], overlay: overlays[id] })) as unknown as PictureElements,
  );
  frame();
}
/** The display asks for its next picture. */
function frame(): void {
  const due = waiting;
  waiting = [];
  for (const { marks } of Object.values(papers)) marks.length = 0;
  for (const paint of due) paint();
}
const parts = () => Object.values(store.getState().document.piece?.parts ?? {});
const shiftId = (): string => store.getState().document.piece?.figures.f.rail[0] ?? '';
/** A place of the first part of a side, on its picture. */
function seen(side: 'a' | 'b', x: number, y: number): [number, number] {
  const [{ matrix: m }] = editing.parts(side);
  const { scale, dx, dy } = painter.views[side];
  return [(m[0] * x + m[2] * y + m[4]) * scale + dx, (m[1] * x + m[3] * y + m[5]) * scale + dy];
}
/** The same place, in px of the canvas. */
function onCanvas(side: 'a' | 'b', x: number, y: number): [number, number] {
  const [{ matrix: m }] = editing.parts(side);
  return [m[0] * x + m[2] * y + m[4], m[1] * x + m[3] * y + m[5]];
}

beforeEach(() => {
  waiting = [];
  watched = [];
  root.dataset = {};
  class Watcher {
    readonly entry = { over: false };
    constructor(changed: () => void) {
      themeChanged = changed;
      watched.push(this.entry);
    }
    observe(): void {}
    disconnect(): void {
      this.entry.over = true;
    }
  }
  Object.assign(globalThis, {
    window: { devicePixelRatio: 2 },
    document: { documentElement: root },
    getComputedStyle: () => ({ getPropertyValue: (name: string) => ` ${name.slice(2)}` }),
    ResizeObserver: Watcher,
    MutationObserver: Watcher,
    requestAnimationFrame: (paint: () => void) => waiting.push(paint),
    cancelAnimationFrame: () => {
      waiting = [];
    },
  });
});
afterEach(() => {
  painter.destroy();
  editing.destroy();
  plans.destroy();
  for (const name of ['window', 'document', 'getComputedStyle', 'ResizeObserver', 'MutationObserver'])
    Object.assign(globalThis, { [name]: undefined });
});

describe('the three pictures', () => {
  test('are painted once for many wishes, at the density of the display, all at one scale', async () => {
    await open(RING, RING);
    painter.ask();
    painter.ask();
    expect(waiting).toHaveLength(1);
    frame();
    expect(PICTURES.map((id) => [canvases[id].width, canvases[id].height])).toEqual(Array(3).fill([800, 600]));
    expect(papers.a.transform).toEqual([2, 0, 0, 2, 0, 0]);
    expect(new Set(PICTURES.map((id) => canvases[id].dataset.view)).size).toBe(1);
    expect(PICTURES.every((id) => papers[id].marks.length > 0)).toBe(true);
  });

  test('keep their scale while something is dragged', async () => {
    await open(RING, RING);
    const before = { ...painter.views.a };
    editing.dragging = 1;
    SIZE.width = 200;
    painter.ask();
    frame();
    SIZE.width = 400;
    expect(painter.views.a).toEqual(before);
  });

  test('show the slits that a ring needs to become a square, and tell what is wrong in the middle', async () => {
    await open(RING, 'M0 0H100V100H0Z');
    const told: unknown[] = [];
    const stop = painter.onMarks((marks, progress) => told.push([marks.length, progress]));
    editing.setProgress(0.25);
    frame();
    expect(told).toEqual([[1, 0.25]]);
    stop();
    editing.setProgress(0.5);
    frame();
    expect(told).toHaveLength(1);
  });

  test('are painted in the colours of the page, in new ones when the theme changes, and no more when the room closes', async () => {
    await open(RING, RING);
    expect(papers.a.fills).toContain('plum');
    const hue = papers.a.strokes[0].style;
    root.dataset.bsTheme = 'dark';
    themeChanged();
    frame();
    expect(papers.a.strokes[0].style).not.toBe(hue);
    painter.ask();
    painter.destroy();
    expect([waiting, watched.every(({ over }) => over)]).toEqual([[], true]);
    editing.paint();
    expect(waiting).toEqual([]);
  });
});

describe('pointing', () => {
  test('shows the place in all three pictures, and lights its contour up; away from all outlines neither', async () => {
    await open(RING, RING);
    painter.point('a', onCanvas('a', 50, 1));
    frame();
    const echo = (id: PictureId) => overlays[id].handles[0];
    expect(PICTURES.map((id) => echo(id).get('visibility'))).toEqual(['visible', 'visible', 'visible']);
    const [x, y] = seen('a', 50, 0);
    expect([Number(echo('a').get('cx')), Number(echo('a').get('cy'))]).toEqual([
      expect.closeTo(x, 1),
      expect.closeTo(y, 1),
    ]);
    expect(new Set(PICTURES.map((id) => echo(id).style.fill)).size).toBe(1);
    expect(editing.snapshot().lit).toEqual({ side: 'a', contour: parts()[0].contours[0].id });
    // Both ends of the lit contour, see-through.
    const lit = (id: PictureId) => papers[id].strokes.filter(({ style, alpha }) => style === 'ink' && alpha < 1);
    expect(PICTURES.map((id) => lit(id).map(({ width, paths }) => [width, paths.length]))).toEqual(
      Array(3).fill([[12, 1]]),
    );
    painter.point('b', onCanvas('b', 31, 50));
    expect(editing.snapshot().lit).toEqual({ side: 'b', contour: parts()[1].contours[1].id });
    painter.point('a', onCanvas('a', 50, 50));
    frame();
    expect([echo('a').get('visibility'), editing.snapshot().lit]).toEqual(['hidden', null]);
    expect(lit('a')).toEqual([]);
  });

  test('lights nothing where there is one contour alone, and shows nothing while something is dragged', async () => {
    await open('M0 0H100V100H0Z', 'M0 0H100V100H0Z');
    painter.point('a', onCanvas('a', 50, 1));
    frame();
    expect([overlays.a.handles[0].get('visibility'), editing.snapshot().lit]).toEqual(['visible', null]);
    editing.dragging = 1;
    painter.point('a', onCanvas('a', 50, 1));
    frame();
    expect(overlays.a.handles[0].get('visibility')).toBe('hidden');
  });
});

describe('handles', () => {
  test('of start points stand on closed pairs, and point where the outline leaves', async () => {
    await open(RING, RING);
    const handles = startHandles(editing, editing.shown);
    expect(handles.map(({ contourA }) => contourA)).toEqual(parts()[0].contours.map(({ id }) => id));
    const mark = overlays.a.add({ handle: `start:${handles[0].key}` });
    painter.ask();
    frame();
    const plan = editing.shown?.parts[0].plan;
    const at = plan?.contours[0].at ?? 0;
    const { scale, dx, dy } = painter.views.a;
    const [x, y] = [plan?.from[at] ?? NaN, plan?.from[at + 1] ?? NaN];
    expect(mark.get('visibility')).toBe('visible');
    expect(mark.at.slice(0, 2)).toEqual([expect.closeTo(x * scale + dx, 1), expect.closeTo(y * scale + dy, 1)]);
    // Sides of a square lie along the axes.
    expect(Math.abs(mark.at[2]) % 90).toBe(0);
  });

  test('are none where a slit was cut, and where a line stays open', async () => {
    await open(RING, 'M0 0H100V100H0Z');
    expect(startHandles(editing, editing.shown)).toEqual([]);
    painter.destroy();
    await open('M0 0H100V100', 'M0 0H50V80');
    expect(startHandles(editing, editing.shown)).toEqual([]);
    expect(startHandles(editing, undefined)).toEqual([]);
  });

  test('of ties stand where the tie is, hidden where there is none any more, and follow the hand at once', async () => {
    await open(RING, RING);
    const [a, b] = parts().map(({ contours }) => contours[0]);
    const id = addTie(store, shiftId(), { a: { anchor: a.anchors[1].id }, b: { anchor: b.anchors[2].id } });
    const tie = overlays.b.add({ handle: `tie:${id}` });
    const gone = overlays.b.add({ handle: 'tie:gone' });
    painter.ask();
    frame();
    const [x, y] = seen('b', 100, 100);
    expect(tie.at.slice(0, 2)).toEqual([expect.closeTo(x, 1), expect.closeTo(y, 1)]);
    expect([tie.get('visibility'), gone.get('visibility')]).toEqual(['visible', 'hidden']);
    painter.dragged.set(`b:tie:${id}`, onCanvas('b', 10, 20));
    painter.ask();
    frame();
    const [px, py] = seen('b', 10, 20);
    expect(tie.at.slice(0, 2)).toEqual([expect.closeTo(px, 1), expect.closeTo(py, 1)]);
  });

  test('of a cut lie on its line, which goes on beyond both; only on its own side', async () => {
    await open(RING, RING, { cuts: [{ id: 'c', side: 'from', line: [-10, 50, 110, 50] }] });
    const [line, other] = [overlays.a.add({ cut: 'c' }), overlays.b.add({ cut: 'c' })];
    const end = overlays.a.add({ handle: 'cut:1:c' });
    painter.ask();
    frame();
    const [x, y] = seen('a', 110, 50);
    expect(end.at.slice(0, 2)).toEqual([expect.closeTo(x, 1), expect.closeTo(y, 1)]);
    expect([line.get('visibility'), other.get('visibility')]).toEqual(['visible', 'hidden']);
    expect(Number(line.get('x1'))).toBeLessThan(-1000);
    expect(Number(line.get('x2'))).toBeGreaterThan(1000);
    expect([Number(line.get('y1')), Number(line.get('y2'))]).toEqual([expect.closeTo(y, 0), expect.closeTo(y, 0)]);
    expect(painter.cutEnd('a', 'none', 0)).toBeUndefined();
    expect(painter.cutEnd('a', 'c', 0)).toEqual(onCanvas('a', -10, 50));
  });

  test('the line that follows the hand is shown in the picture where it began', async () => {
    await open(RING, RING);
    painter.rubber = { picture: 'a', from: [1, 2], to: [30, 40] };
    painter.ask();
    frame();
    const rubber = (id: PictureId) => overlays[id].handles[1];
    expect(['x1', 'y1', 'x2', 'y2'].map((name) => rubber('a').get(name))).toEqual(['1', '2', '30', '40']);
    expect([rubber('a').get('visibility'), rubber('b').get('visibility')]).toEqual(['visible', 'hidden']);
  });

  test('a ring waits where the first press of a tie was', async () => {
    await open(RING, RING);
    const [contour] = parts()[0].contours;
    editing.change({ waiting: { side: 'a', place: { anchor: contour.anchors[2].id } } });
    frame();
    const rings = (id: PictureId) => papers[id].strokes.filter(({ arcs, width }) => width === 2 && arcs[0]?.[2] === 6);
    const [x, y] = seen('a', 100, 100);
    expect(rings('a').map(({ arcs: [[cx, cy]] }) => [cx, cy])).toEqual([[expect.closeTo(x, 1), expect.closeTo(y, 1)]]);
    expect(rings('b')).toEqual([]);
    editing.change({ waiting: { side: 'a', place: { anchor: 'gone' } } });
    frame();
    expect([rings('a'), editing.snapshot().numbers]).toEqual([[], false]);
  });
});
