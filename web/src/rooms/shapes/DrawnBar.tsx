import { isClosedRail } from '@core';
import { X } from 'lucide-react';
import { useAppStore, useOpenPiece } from '../../context';
import { commandById, redrawAs, toggleLoop, typedAsPose } from '../../editor';
import { type DrawsAs, drawingActions, useAppDispatch, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { keysText } from '../piece/keys-text';
import './arrival.scss';

/** Tells what a drawn outline has become, and lets it become something else, until the next change. */
export function DrawnBar() {
  const { editor } = useOpenPiece();
  const store = useAppStore();
  const dispatch = useAppDispatch();
  const drawn = useAppSelector((state) => state.drawing.drawn);
  const last = useAppSelector((state) => state.document.past[state.document.past.length - 1]?.id);
  const piece = useAppSelector((state) => state.document.piece);
  const typed = useAppSelector((state) => state.drawing.typed);
  const chosen = useAppSelector((state) => state.session.selection?.figureId);
  const figure = drawn?.into && piece?.figures[drawn.into.figureId];
  const before = typed && chosen === typed.figureId ? piece?.figures[typed.into.figureId] : undefined;
  if (before && typed && piece?.figures[typed.figureId])
    return (
      <div className="arrival" role="status" data-testid="drawn">
        <span>The text became a new figure.</span>
        <button type="button" className="btn btn-link p-0" onClick={() => typedAsPose(store)}>
          Make it the next pose of {before.name}
        </button>
        <IconButton icon={X} label="Close" onClick={() => dispatch(drawingActions.changed({ typed: null }))} />
      </div>
    );
  // A first figure could become nothing else.
  if (!drawn?.into || drawn.entry !== last || !figure) return null;
  const words: Readonly<Record<DrawsAs, string>> = {
    figure: 'a new figure',
    pose: `the next pose of ${figure.name}`,
    part: `a part of ${figure.name}`,
    contour: `a contour of ${figure.name}`,
  };
  const others = (['pose', 'figure', 'part'] as const).filter((as) => as !== drawn.as);
  const redraw = (as: DrawsAs): void => {
    redrawAs(store, as, editor.clock.seconds);
    editor.drawing.standAtPose();
  };
  return (
    <div className="arrival" role="status" data-testid="drawn">
      <span>
        {drawn.part.name} became {words[drawn.as]}.
      </span>
      {others.map((as) => (
        <button
          key={as}
          type="button"
          className="btn btn-link p-0"
          title={as === 'pose' ? keysText(commandById('drawn-as-pose').keys[0]) : undefined}
          onClick={() => redraw(as)}
        >
          Make it {words[as]}
        </button>
      ))}
      {drawn.as === 'pose' && !isClosedRail(piece, figure) && (
        <button
          type="button"
          className="btn btn-link p-0"
          title={`The loop closes without a jump (${keysText(commandById('loop').keys[0])})`}
          onClick={() => toggleLoop(store)}
        >
          Then back to the first
        </button>
      )}
      <IconButton icon={X} label="Close" onClick={() => dispatch(drawingActions.changed({ drawn: null }))} />
    </div>
  );
}
