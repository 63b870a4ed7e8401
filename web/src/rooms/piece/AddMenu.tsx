import { pastedSvg } from '@core';
import { ClipboardPaste, CopyPlus, FileDown, Maximize2, PencilLine, Repeat, Shapes, Type } from 'lucide-react';
import { useEffect, useRef } from 'react';
import { Overlay, Popover } from 'react-bootstrap';
import { PoseThumb } from '../../canvas/PoseThumb';
import { useAppStore, useOpenPiece } from '../../context';
import { FIRST_SHAPES, shippedSvg } from '../../drawer';
import {
  addCopyOf,
  backToFirst,
  backToFirstBigger,
  chainEnd,
  poseSeen,
  posesOfOthers,
  takeToolForPose,
} from '../../editor';
import { drawingActions, type RoomId, selectPiece, sessionActions, useAppDispatch, useAppSelector } from '../../state';

/** So many poses of other figures are offered. */
const MOST_OTHERS = 6;

/** Where the next pose comes from: a shape at once, or a way to get one. */
export function AddMenu({
  anchor,
  openRoom,
  onClose,
}: {
  /** What was pressed; null: it is closed. */
  readonly anchor: Element | null;
  readonly openRoom: (room: RoomId) => void;
  readonly onClose: () => void;
}) {
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const { chooseFiles, takeSvg } = useOpenPiece();
  const piece = useAppSelector(selectPiece);
  const first = useRef<HTMLButtonElement>(null);
  useEffect(() => {
    if (anchor) first.current?.focus();
  }, [anchor]);
  if (!piece || !anchor) return null;
  const end = chainEnd(store);
  const count = end ? end.last + 1 : 0;
  const others = posesOfOthers(piece, end?.figureId).slice(0, MOST_OTHERS);
  const done = (act: () => void) => () => {
    onClose();
    act();
  };
  const draw = (tool: 'draw' | 'shape' | 'text') =>
    done(() => {
      openRoom('shapes');
      takeToolForPose(store, tool);
    });
  const paste = async (): Promise<void> => {
    const text = await navigator.clipboard.readText().catch(() => '');
    if (text.trim() !== '') takeSvg('Pasted shape', pastedSvg(text));
    else
      dispatch(
        sessionActions.told({
          tone: 'notice',
          text: 'The browser does not show what was copied. Press Ctrl V (on a Mac ⌘ V) instead.',
        }),
      );
  };
  return (
    <Overlay target={anchor as HTMLElement} show placement="bottom" rootClose onHide={onClose} transition={false}>
      {(props) => (
        <Popover
          {...props}
          role="dialog"
          aria-label="Add a pose"
          className="add-menu"
          onKeyDown={(event) => {
            if (event.key === 'Escape') {
              onClose();
              (anchor as SVGElement).focus();
            }
            event.stopPropagation();
          }}
        >
          <h2>{count === 0 ? 'The first pose' : 'The next pose'}</h2>
          <div className="add-shapes" role="group" aria-label="A shape">
            {FIRST_SHAPES.map((shape, i) => (
              <button
                key={shape.name}
                ref={i === 0 ? first : undefined}
                type="button"
                title={`${shape.name}${shape.source ? ', adjustable' : ''}`}
                aria-label={shape.name}
                onClick={done(() => takeSvg(shape.name, shippedSvg(shape)))}
              >
                <img
                  src={`data:image/svg+xml;utf8,${encodeURIComponent(shippedSvg(shape))}`}
                  alt=""
                  draggable={false}
                />
              </button>
            ))}
          </div>
          <button type="button" onClick={draw('shape')}>
            <Shapes size={15} aria-hidden="true" /> A shape, drawn on the canvas
          </button>
          <button type="button" onClick={draw('draw')}>
            <PencilLine size={15} aria-hidden="true" /> With the pen
          </button>
          <button type="button" onClick={draw('text')}>
            <Type size={15} aria-hidden="true" /> A text
          </button>
          <button type="button" onClick={done(() => chooseFiles())}>
            <FileDown size={15} aria-hidden="true" /> From SVG files …
          </button>
          <button type="button" onClick={done(() => void paste())}>
            <ClipboardPaste size={15} aria-hidden="true" /> What was copied
          </button>
          <button
            type="button"
            onClick={done(() => {
              openRoom('shapes');
              dispatch(drawingActions.changed({ column: 'drawer', left: true, firstColumn: 'left' }));
            })}
          >
            <Shapes size={15} aria-hidden="true" /> From the drawer
          </button>
          {end && (
            <button type="button" onClick={done(() => addCopyOf(store, end.poseId))}>
              <CopyPlus size={15} aria-hidden="true" /> A copy of {piece.poses[end.poseId].name}
            </button>
          )}
          {end && count > 1 && !end.closed && (
            <button type="button" onClick={done(() => backToFirst(store))}>
              <Repeat size={15} aria-hidden="true" /> Back to the first: it closes the loop
            </button>
          )}
          {end && count > 1 && !end.closed && (
            <button type="button" onClick={done(() => backToFirstBigger(store))}>
              <Maximize2 size={15} aria-hidden="true" /> Back to the first, bigger
            </button>
          )}
          {others.length > 0 && end && (
            <div className="add-shapes" role="group" aria-label="A pose of another figure">
              {others.map(({ figure, pose }) => (
                <button
                  key={figure.id}
                  type="button"
                  title={`A copy of ${pose.name}, of ${figure.name}`}
                  aria-label={`A copy of ${pose.name}, of ${figure.name}`}
                  onClick={done(() => addCopyOf(store, pose.id))}
                >
                  <PoseThumb piece={piece} pose={pose} seen={poseSeen(piece, figure, 0)} size={26} />
                </button>
              ))}
            </div>
          )}
        </Popover>
      )}
    </Overlay>
  );
}
