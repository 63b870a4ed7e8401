import {
  changeKey,
  figureOfLane,
  isColourLane,
  type LaneRecord,
  type Piece,
  type PieceDraft,
  pieceDuration,
  timedKeys,
  toMillionths,
} from '@core';
import { type Editor, followPointer } from '../../editor';
import { changePiece, type KeyRef, makeChange, sessionActions } from '../../state';
import { isEven, type KeyBlock, laneGraph } from './lane-graph';
import { laneWords, nearestThatCanBe } from './lane-words';

const DRAG_START_PX = 3;
/** What a value takes at most beside the place where its block begins, px. */
const VALUE_ROOM = 70;

/** Writes a lane's graph into its elements, which carry their keys: by React after it has rendered, and by a drag at the display's rate. */
export function applyLane(svg: SVGSVGElement, piece: Piece, lane: LaneRecord, x: (seconds: number) => number): void {
  const duration = pieceDuration(piece);
  const curves = laneGraph(piece, lane, x, duration);
  const last = x(duration);
  const set = (key: string, attributes: Record<string, string | number>): void => {
    const element = svg.querySelector(`[data-key="${key}"]`);
    for (const [name, value] of Object.entries(attributes)) element?.setAttribute(name, String(value));
  };
  curves.forEach(({ edge, area, blocks, colours }, part) => {
    set(`edge-${part}`, { d: edge });
    set(`area-${part}`, { d: area });
    colours.forEach(({ share, css }, i) => {
      set(`colour-${i}`, { offset: share, 'stop-color': css });
    });
    for (const block of blocks) {
      const [x0, x1] = [x(block.from), x(block.until)];
      const name = `${block.key.id}-${part}${block.again ? '-again' : ''}`;
      const width = Math.max(9, x1 - x0);
      set(`block-${name}`, { x: x1 - x0 < 9 ? (x0 + x1) / 2 - 4.5 : x0, y: block.y - 4, width });
      // Beside the end of the piece stand the names of the lanes: what would lie under them is written towards the left.
      const late = x0 > last - VALUE_ROOM && x0 > VALUE_ROOM;
      set(`text-${name}`, {
        x: late ? Math.max(x0, Math.min(x1, last)) : Math.max(x0, 2),
        y: block.y - 7,
        'text-anchor': late ? 'end' : 'start',
      });
    }
  });
}

/** What a drag of a key works with. */
interface KeyDrag {
  readonly editor: Editor;
  readonly svg: SVGSVGElement;
  readonly lane: LaneRecord;
  readonly x: (seconds: number) => number;
}

/** Drags a key: up and down its value, and a free one along in time, frame by frame. Nothing is rendered until the hand lets go. */
export function dragKey({ editor, svg, lane, x }: KeyDrag, event: React.PointerEvent, block: KeyBlock): void {
  const { piece } = editor.store.getState().document;
  if (!piece) return;
  const { property } = lane;
  const { factor } = laneWords(property);
  // A lane that does not change yet: a px is as much as an arrow key.
  const { key, part } = block;
  const curves = laneGraph(piece, lane, x, pieceDuration(piece));
  const perPx = curves[part].perPx || 1 / factor;
  const { num, den } = piece.canvas.rate;
  const scale = x(1) - x(0);
  const even = isEven(lane);
  let change: Parameters<typeof changeKey>[3] | undefined;
  followPointer(event, {
    move: (move) => {
      const [dx, dy] = [move.clientX - event.clientX, move.clientY - event.clientY];
      if (!change && Math.hypot(dx, dy) < DRAG_START_PX) return;
      const wanted = key.value[part] - dy * perPx;
      const value = nearestThatCanBe(property, part, Math.round(wanted * factor) / factor);
      const after = key.after === null ? null : Math.round((key.after + dx / scale) * (num / den)) * (den / num);
      const values = key.value.map((v, i) => (even || i === part ? value : v));
      change = { value: isColourLane(property) ? key.value : values, after };
      const made = change;
      const copy = makeChange(piece, '', (draft) => changeKey(draft, lane.id, key.id, made))?.piece ?? piece;
      applyLane(svg, copy, copy.lanes[lane.id], x);
      editor.preview(copy);
    },
    end: (up) => {
      editor.preview(null);
      const made = change;
      if (up && made)
        editor.store.dispatch(
          changePiece(`Key of ${laneWords(property).label}`, (draft) => changeKey(draft, lane.id, key.id, made)),
        );
      else applyLane(svg, piece, lane, x);
    },
  });
}

/** Drags a figure's strip of poses: it begins earlier or later, by whole frames. Nothing is rendered until the hand lets go. */
export function dragStart(editor: Editor, svg: SVGSVGElement, event: React.PointerEvent, figureId: string): void {
  const { piece } = editor.store.getState().document;
  if (!piece) return;
  const { name, start } = piece.figures[figureId];
  const { num, den } = piece.canvas.rate;
  const { scale } = editor.timeView;
  const strip = svg.querySelector('g');
  let next = start;
  const put = (seconds: number) => (draft: PieceDraft) => {
    draft.figures[figureId].start = seconds;
  };
  followPointer(event, {
    move: (move) => {
      const wanted = Math.max(0, start + (move.clientX - event.clientX) / scale);
      next = toMillionths((Math.round((wanted * num) / den) * den) / num);
      strip?.setAttribute('transform', `translate(${(next - start) * scale} 0)`);
      editor.preview(makeChange(piece, '', put(next))?.piece ?? piece);
    },
    end: (up) => {
      strip?.removeAttribute('transform');
      editor.preview(null);
      if (up && next !== start) editor.store.dispatch(changePiece(`Start ${name} at ${next} s`, put(next)));
    },
  });
}

/** Scrubs: the bead follows the pointer over the lanes. `left` is where time 0 px lies on the window. */
export function scrubLanes(editor: Editor, event: React.PointerEvent, timeAt: (clientX: number) => number): void {
  const before = editor.clock.seconds;
  editor.clock.pause();
  editor.clock.seek(timeAt(event.clientX));
  followPointer(event, {
    move: (move) => editor.clock.seek(timeAt(move.clientX)),
    end: (up) => {
      if (!up) editor.clock.seek(before);
    },
  });
}

/** Chooses a key: alone, or besides those that are chosen. The bead goes to one that is chosen alone, so that what is changed is seen. */
export function chooseKey(editor: Editor, ref: KeyRef, more: boolean): void {
  const { keys } = editor.store.getState().session;
  if (!more) showKey(editor, ref);
  const known = keys.some(({ lane, key }) => lane === ref.lane && key === ref.key);
  const rest = keys.filter(({ lane, key }) => lane !== ref.lane || key !== ref.key);
  editor.store.dispatch(sessionActions.keysChosen(more ? (known ? rest : [...rest, ref]) : [ref]));
}

/** Brings the bead to where a key is, unless it is there, or plays. */
function showKey({ store, clock }: Editor, { lane: id, key }: KeyRef): void {
  const { piece } = store.getState().document;
  const lane = piece?.lanes[id];
  if (!piece || !lane || clock.playing) return;
  const timed = timedKeys(piece, figureOfLane(piece, lane), lane).find((each) => each.key.id === key);
  if (timed && (clock.seconds < timed.from || clock.seconds > timed.until)) clock.seek(timed.from);
}

/** Chooses the keys whose blocks lie in a box of the window. */
export function chooseInBox(editor: Editor, rows: Element, box: DOMRect, more: boolean): void {
  const found: KeyRef[] = [];
  for (const block of rows.querySelectorAll<SVGElement>('[data-lane][data-lane-key]')) {
    const { left, right, top, bottom } = block.getBoundingClientRect();
    if (left > box.right || right < box.left || top > box.bottom || bottom < box.top) continue;
    const { lane = '', laneKey = '' } = block.dataset;
    if (!found.some((ref) => ref.lane === lane && ref.key === laneKey)) found.push({ lane, key: laneKey });
  }
  const { keys } = editor.store.getState().session;
  const kept = more ? keys.filter((ref) => !found.some(({ lane, key }) => lane === ref.lane && key === ref.key)) : [];
  editor.store.dispatch(sessionActions.keysChosen([...kept, ...found]));
}

/** Draws a box over the lanes and chooses the keys in it when the hand lets go; a press without moving chooses none. */
export function boxKeys(editor: Editor, rows: HTMLElement, frame: HTMLElement, event: React.PointerEvent): void {
  const origin = rows.getBoundingClientRect();
  let box = new DOMRect(event.clientX, event.clientY, 0, 0);
  followPointer(event, {
    move: (move) => {
      box = new DOMRect(
        Math.min(event.clientX, move.clientX),
        Math.min(event.clientY, move.clientY),
        Math.abs(move.clientX - event.clientX),
        Math.abs(move.clientY - event.clientY),
      );
      frame.hidden = box.width + box.height < 2 * DRAG_START_PX;
      frame.style.transform = `translate(${box.x - origin.x}px, ${box.y - origin.y}px)`;
      frame.style.width = `${box.width}px`;
      frame.style.height = `${box.height}px`;
    },
    end: (up) => {
      frame.hidden = true;
      if (up) chooseInBox(editor, rows, box, event.shiftKey);
    },
  });
}
