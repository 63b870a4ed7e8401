import {
  changeKey,
  compileLane,
  figureOfLane,
  frameCount,
  type LaneRecord,
  middleOf,
  type Piece,
  secondsOfFrame,
  timedKeys,
  type View,
} from '@core';
import { type Editor, followPointer } from '../../editor';
import { changePiece, makeChange } from '../../state';

type Point = readonly [x: number, y: number];

/** A key on a path. */
interface PathKey {
  readonly id: string;
  /** Counted from 1, in the order of time. */
  readonly number: number;
  readonly at: Point;
  readonly handles: { readonly in?: Point; readonly out?: Point };
}

/** The path of a figure's pivot, or middle, on the canvas, px. */
export interface FigurePath {
  readonly points: readonly Point[];
  /** Where it is at each frame, with the direction there. */
  readonly ticks: readonly { readonly at: Point; readonly across: Point }[];
  readonly keys: readonly PathKey[];
}

/** Points of the line between two frames, and the most frames that get a tick. */
const BETWEEN = 2;
const MOST_TICKS = 1200;

/** Where a figure goes over time by its position lane. */
export function pathOf(piece: Piece, lane: LaneRecord): FigurePath {
  const figure = figureOfLane(piece, lane);
  const compiled = figure && compileLane(piece, figure.id, 'position');
  if (!figure || !compiled) return { points: [], ticks: [], keys: [] };
  const [px, py] = figure.pivot ?? figure.middle ?? middleOf(piece, figure.id);
  const place = new Float64Array(2);
  const at = (seconds: number): Point => {
    compiled.sample(seconds, place);
    return [px + place[0], py + place[1]];
  };
  const frames = Math.min(MOST_TICKS, frameCount(piece));
  const points = Array.from({ length: frames * BETWEEN + 1 }, (_, i) => at(secondsOfFrame(piece, i / BETWEEN)));
  const ticks = Array.from({ length: frames }, (_, i) => {
    const [p, q] = [points[Math.max(0, i * BETWEEN - 1)], points[Math.min(points.length - 1, i * BETWEEN + 1)]];
    const [dx, dy] = [q[0] - p[0], q[1] - p[1]];
    const length = Math.hypot(dx, dy);
    return { at: points[i * BETWEEN], across: (length > 0 ? [-dy / length, dx / length] : [0, 0]) as Point };
  }).filter(({ across }) => across[0] !== 0 || across[1] !== 0);
  const seen = new Set<string>();
  const keys = timedKeys(piece, figure, lane).flatMap(({ key }): PathKey[] => {
    if (seen.has(key.id)) return [];
    seen.add(key.id);
    const [x, y] = [px + key.value[0], py + key.value[1]];
    const end = (handle: Point | undefined): Point | undefined => handle && [x + handle[0], y + handle[1]];
    const [into, out] = [end(key.path?.in), end(key.path?.out)];
    return [{ id: key.id, number: seen.size, at: [x, y], handles: { ...(into && { in: into }), ...(out && { out }) } }];
  });
  return { points, ticks, keys };
}

const TICK_PX = 4;

/** Writes a path into its elements, which carry their names: by React after it has rendered, and by a drag at the display's rate. */
export function applyPath(svg: SVGSVGElement, { points, ticks, keys }: FigurePath, { x, y, zoom }: View): void {
  const screen = ([px, py]: Point): Point => [x + px * zoom, y + py * zoom];
  const set = (name: string, attributes: Record<string, string | number>): void => {
    const element = svg.querySelector(`[data-path="${name}"]`);
    for (const [attribute, value] of Object.entries(attributes)) element?.setAttribute(attribute, String(value));
  };
  const text = (point: Point): string =>
    screen(point)
      .map((v) => v.toFixed(1))
      .join(' ');
  set('line', { d: points.map((point, i) => `${i === 0 ? 'M' : 'L'}${text(point)}`).join('') });
  set('ticks', {
    d: ticks
      .map(({ at, across: [cx, cy] }) => {
        const [sx, sy] = screen(at);
        return `M${(sx - TICK_PX * cx).toFixed(1)} ${(sy - TICK_PX * cy).toFixed(1)}l${(2 * TICK_PX * cx).toFixed(1)} ${(2 * TICK_PX * cy).toFixed(1)}`;
      })
      .join(''),
  });
  for (const { id, at, handles } of keys) {
    const [kx, ky] = screen(at);
    set(`key-${id}`, { transform: `translate(${kx.toFixed(1)} ${ky.toFixed(1)})` });
    for (const side of ['in', 'out'] as const) {
      const handle = handles[side];
      if (!handle) continue;
      const [hx, hy] = screen(handle);
      set(`${side}-${id}`, { cx: hx.toFixed(1), cy: hy.toFixed(1) });
      set(`arm-${side}-${id}`, { x1: kx.toFixed(1), y1: ky.toFixed(1), x2: hx.toFixed(1), y2: hy.toFixed(1) });
    }
  }
}

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** Drags a key of a path, or one of its handles: the picture goes along, and nothing is rendered until the hand lets go. */
export function dragOnPath(
  editor: Editor,
  svg: SVGSVGElement,
  event: React.PointerEvent,
  lane: LaneRecord,
  keyId: string,
  part: 'key' | 'in' | 'out',
): void {
  const { piece } = editor.store.getState().document;
  const key = lane.keys.find(({ id }) => id === keyId);
  if (!piece || !key) return;
  let change: Parameters<typeof changeKey>[3] | undefined;
  followPointer(event, {
    move: (move) => {
      const { zoom } = editor.viewport.view;
      const [dx, dy] = [(move.clientX - event.clientX) / zoom, (move.clientY - event.clientY) / zoom];
      const from = part === 'key' ? key.value : (key.path?.[part] ?? [0, 0]);
      const to: [number, number] = [tenth(from[0] + dx), tenth(from[1] + dy)];
      const made: Parameters<typeof changeKey>[3] =
        part === 'key' ? { value: to } : { path: { ...key.path, [part]: to } };
      change = made;
      const copy = makeChange(piece, '', (draft) => changeKey(draft, lane.id, keyId, made))?.piece ?? piece;
      applyPath(svg, pathOf(copy, copy.lanes[lane.id]), editor.viewport.view);
      editor.preview(copy);
    },
    end: (up) => {
      editor.preview(null);
      const made = change;
      if (up && made)
        editor.store.dispatch(
          changePiece(part === 'key' ? 'Move a key on its path' : 'Bend the path', (draft) =>
            changeKey(draft, lane.id, keyId, made),
          ),
        );
      else applyPath(svg, pathOf(piece, lane), editor.viewport.view);
    },
  });
}
