import { moveStop, type Piece, type PieceDraft, type Pose, pieceDuration, toMillionths } from '@core';
import { chooseAll, chooseOnRail, choosingHow, type Editor, followPointer } from '../editor';
import { changePiece, chosenFigure, makeChange, sessionActions } from '../state';
import { freshId } from '../workers';
import { applyRailLayout } from './apply-layout';
import { insertionStop, itemsIn, layoutRail, RAIL, type RailLayout, xToTime } from './layout';

/** What a rail gesture works with. */
export interface RailGestureContext {
  readonly editor: Editor;
  readonly svg: SVGSVGElement;
  readonly layout: () => RailLayout;
}

const DRAG_START_PX = 5;

/** What a gesture has moved on a rail, to be shown again where React has rendered meanwhile. */
const moved = new WeakMap<SVGSVGElement, () => void>();

/** Shows what a gesture under way has moved; call it whenever the rail was laid out anew. */
export const showRailGesture = (svg: SVGSVGElement): void => moved.get(svg)?.();

/** Follows a pointer over a rail, in px from its left and top; what has been moved can be shown again where React rendered meanwhile. */
function followOnRail(
  svg: SVGSVGElement,
  event: React.PointerEvent,
  on: { move(x: number, y: number): void; end(kept: boolean): void; movesParts?: boolean },
): void {
  followPointer(event, {
    move: ({ clientX, clientY }) => {
      // The rail may be scrolled on the way.
      const move = (): void => {
        const box = svg.getBoundingClientRect();
        on.move(clientX - box.left, clientY - box.top);
      };
      if (on.movesParts) moved.set(svg, move);
      move();
    },
    end: (up) => {
      moved.delete(svg);
      on.end(up !== undefined);
    },
  });
}

/** Scrubs: the bead follows the pointer. */
export function dragBead({ editor, svg, layout }: RailGestureContext, event: React.PointerEvent): void {
  const before = editor.clock.seconds;
  editor.clock.pause();
  const seek = (x: number): void => editor.clock.seek(xToTime(layout(), x));
  seek(event.clientX - svg.getBoundingClientRect().left);
  followOnRail(svg, event, {
    move: (x) => seek(x),
    end: (kept) => {
      if (!kept) editor.clock.seek(before);
    },
  });
}

/** Changes a pose's hold by dragging the end of its bar; the rail keeps its scale until the end. */
export function dragHold({ editor, svg, layout }: RailGestureContext, event: React.PointerEvent, poseId: string): void {
  const { document, session } = editor.store.getState();
  const piece = document.piece;
  const figure = piece && chosenFigure(piece, session.selection);
  if (!piece || !figure) return;
  const start = layout();
  const pose: Pose = piece.poses[poseId];
  const startX = event.clientX - svg.getBoundingClientRect().left;
  const frame = piece.canvas.rate.den / piece.canvas.rate.num;
  const recipe = (hold: number) => (draft: PieceDraft) => {
    draft.poses[poseId].hold = hold;
  };
  let hold = pose.hold;
  followOnRail(svg, event, {
    movesParts: true,
    move: (x) => {
      const wanted = Math.max(0, pose.hold + (x - startX) / start.scale);
      hold = toMillionths(Math.round(wanted / frame) * frame);
      const copy: Piece = makeChange(piece, '', recipe(hold))?.piece ?? piece;
      applyRailLayout(svg, layoutRail(copy, copy.figures[figure.id], start.width, pieceDuration(copy), start.scale));
    },
    end: (kept) => {
      if (kept && hold !== pose.hold) editor.store.dispatch(changePiece(`Hold ${pose.name} ${hold} s`, recipe(hold)));
      else applyRailLayout(svg, layout());
    },
  });
}

/** Moves a card to another place in the order; a press without a drag selects it. */
export function dragCard({ editor, svg, layout }: RailGestureContext, event: React.PointerEvent, stop: number): void {
  const { document, session } = editor.store.getState();
  const piece = document.piece;
  const figure = piece && chosenFigure(piece, session.selection);
  if (!piece || !figure) return;
  const how = choosingHow(event);
  if (how !== 'alone') {
    chooseOnRail(editor.store, figure.id, { kind: 'stop', stop }, how);
    return;
  }
  const box = svg.getBoundingClientRect();
  const startX = event.clientX - box.left;
  const card = svg.querySelector<SVGElement>(`[data-key="card-${stop}"]`);
  const marker = svg.querySelector<SVGElement>('[data-key="insertion"]');
  let dragging = false;
  let target = stop;
  followOnRail(svg, event, {
    movesParts: true,
    move: (x) => {
      if (!dragging && Math.abs(x - startX) < DRAG_START_PX) return;
      dragging = true;
      const now = layout();
      target = insertionStop(now, x);
      const { cardX } = now.bars[stop];
      card?.setAttribute('transform', `translate(${cardX + x - startX} ${RAIL.cardTop - RAIL.lift})`);
      showInsertion(marker, now, target);
    },
    end: (kept) => {
      marker?.setAttribute('visibility', 'hidden');
      applyRailLayout(svg, layout());
      const to = target > stop ? target - 1 : target;
      if (!kept) return;
      if (dragging && to !== stop) {
        editor.store.dispatch(
          changePiece(`Move ${piece.poses[layout().bars[stop].poseId].name}`, (draft) =>
            moveStop(draft, figure.id, stop, to, freshId),
          ),
        );
        editor.store.dispatch(sessionActions.selected({ kind: 'stop', figureId: figure.id, stop: to }));
      } else if (!dragging) selectStop(editor, figure.id, stop, layout());
    },
  });
}

/** Chooses all that a box touches which is drawn over the rail; a press without a drag chooses nothing any more. */
export function dragBox({ editor, svg, layout }: RailGestureContext, event: React.PointerEvent): void {
  const { document, session } = editor.store.getState();
  const figure = document.piece && chosenFigure(document.piece, session.selection);
  const shown = svg.querySelector<SVGElement>('[data-key="box"]');
  if (!figure || !shown) return;
  const start = svg.getBoundingClientRect();
  const [x0, y0] = [event.clientX - start.left, event.clientY - start.top];
  let items: ReturnType<typeof itemsIn> = [];
  followOnRail(svg, event, {
    move: (x, y) => {
      if (Math.hypot(x - x0, y - y0) < DRAG_START_PX) return;
      items = itemsIn(layout(), x0, y0, x, y);
      for (const [name, value] of Object.entries({
        x: Math.min(x, x0),
        y: Math.min(y, y0),
        width: Math.abs(x - x0),
        height: Math.abs(y - y0),
        visibility: 'visible',
      }))
        shown.setAttribute(name, String(value));
    },
    end: (kept) => {
      shown.setAttribute('visibility', 'hidden');
      if (kept) chooseAll(editor.store, figure.id, items);
    },
  });
}

/** Selects a stop and goes there. */
export function selectStop(editor: Editor, figureId: string, stop: number, layout: RailLayout): void {
  editor.store.dispatch(sessionActions.selected({ kind: 'stop', figureId, stop }));
  editor.clock.pause();
  editor.clock.seek(xToTime(layout, layout.bars[stop].x0));
}

/** Shows where a pose would go. */
export function showInsertion(marker: SVGElement | null, layout: RailLayout, stop: number): void {
  if (!marker) return;
  const before = layout.bars[stop - 1];
  const after = layout.bars[stop];
  const beside = RAIL.cardGap / 2 + 1;
  const x =
    before && after
      ? (before.cardX + RAIL.card + after.cardX) / 2
      : after
        ? after.cardX - beside
        : before
          ? before.cardX + RAIL.card + beside
          : RAIL.padding;
  marker.setAttribute('visibility', 'visible');
  marker.setAttribute('transform', `translate(${x} 0)`);
}
