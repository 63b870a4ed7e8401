import { changeKey, type LaneRecord, laneOf, type Piece, pieceDuration } from '@core';
import { type KeyboardEvent, type PointerEvent, useLayoutEffect, useRef } from 'react';
import { useEditor } from '../../context';
import { changePiece, chosenFigure, selectSelection, useAppDispatch, useAppSelector } from '../../state';
import { chooseKey } from './lane-gestures';
import { applyPath, dragOnPath, pathOf } from './motion-path';

/** The path of the chosen figure over the picture: ticks for its frames, whose spacing shows its speed; its keys and handles to be dragged. */
export function MotionPathLayer({ piece }: { readonly piece: Piece }) {
  const selection = useAppSelector(selectSelection);
  const figure = chosenFigure(piece, selection);
  const lane = figure && laneOf(piece, figure.id, 'position');
  const moves = lane?.keys.some(({ value }) => value.some((v, i) => v !== lane.keys[0].value[i]));
  if (!lane || (!moves && !lane.drift && !lane.pulse && !lane.follow) || !(pieceDuration(piece) > 0)) return null;
  return <MotionPath piece={piece} lane={lane} />;
}

function MotionPath({ piece, lane }: { readonly piece: Piece; readonly lane: LaneRecord }) {
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const svg = useRef<SVGSVGElement>(null);
  const chosen = useAppSelector((state) => state.session.keys);
  const path = pathOf(piece, lane);
  useLayoutEffect(() => {
    const place = (): void => {
      if (svg.current) applyPath(svg.current, path, editor.viewport.view);
    };
    place();
    return editor.viewport.onChange(place);
  });
  const drag = (event: PointerEvent, keyId: string, part: 'key' | 'in' | 'out'): void => {
    if (event.button !== 0 || !svg.current) return;
    event.stopPropagation();
    chooseKey(editor, { lane: lane.id, key: keyId }, event.shiftKey);
    dragOnPath(editor, svg.current, event, lane, keyId, part);
  };
  const nudge = (event: KeyboardEvent, keyId: string): void => {
    const step = event.shiftKey ? 10 : 1;
    const dx = event.key === 'ArrowRight' ? step : event.key === 'ArrowLeft' ? -step : 0;
    const dy = event.key === 'ArrowDown' ? step : event.key === 'ArrowUp' ? -step : 0;
    const key = lane.keys.find(({ id }) => id === keyId);
    if ((dx === 0 && dy === 0) || !key) return;
    event.preventDefault();
    event.stopPropagation();
    dispatch(
      changePiece('Move a key on its path', (draft) =>
        changeKey(draft, lane.id, keyId, { value: [key.value[0] + dx, key.value[1] + dy] }),
      ),
    );
  };
  return (
    <svg ref={svg} className="motion-path" role="group" aria-label="Path of the figure">
      <path data-path="line" className="path-line" />
      <path data-path="ticks" className="path-ticks" />
      {path.keys.map(({ id, handles, number }) => (
        <g key={id} className={chosen.some((ref) => ref.lane === lane.id && ref.key === id) ? 'chosen' : ''}>
          {(['in', 'out'] as const).map(
            (side) =>
              handles[side] && (
                <g key={side} className="path-handle">
                  <line data-path={`arm-${side}-${id}`} />
                  <circle data-path={`${side}-${id}`} r="5" onPointerDown={(event) => drag(event, id, side)} />
                </g>
              ),
          )}
          <rect
            data-path={`key-${id}`}
            className="path-key"
            x="-5.5"
            y="-5.5"
            width="11"
            height="11"
            role="button"
            tabIndex={0}
            aria-label={`Key ${number} on the path`}
            onPointerDown={(event) => drag(event, id, 'key')}
            onKeyDown={(event) => nudge(event, id)}
          />
        </g>
      ))}
    </svg>
  );
}
