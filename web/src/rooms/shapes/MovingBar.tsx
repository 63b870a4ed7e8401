import { X } from 'lucide-react';
import { useOpenPiece } from '../../context';
import { sessionActions, useAppDispatch, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import './arrival.scss';

/** Tells that figures came with their movement, and lets drawings be taken still instead; never in the way. */
export function MovingBar() {
  const { arrivals, editor } = useOpenPiece();
  const moving = useAppSelector((state) => state.session.moving);
  const last = useAppSelector((state) => state.document.past[state.document.past.length - 1]?.id);
  const present = useAppSelector(
    (state) => moving?.figureIds.filter((id) => state.document.piece?.figures[id]).length ?? 0,
  );
  const dispatch = useAppDispatch();
  if (!moving || present === 0) return null;
  const { notes, drawings, entry } = moving;
  return (
    <div className="arrival" role="status" data-testid="moving-arrival">
      <span>{present === 1 ? 'One figure came' : `${present} figures came`} with what moves in the file.</span>
      {drawings > 0 && entry === last && (
        <button
          type="button"
          className="btn btn-link p-0"
          title="As a pose: what it shows at its beginning"
          onClick={() => void arrivals.takeStillInstead().then(() => editor.viewport.fit())}
        >
          Take it still instead
        </button>
      )}
      {notes.length > 0 && (
        <details>
          <summary>
            {notes.length === 1 ? '1 thing was changed on import' : `${notes.length} things were changed on import`}
          </summary>
          <ul>
            {notes.map((note) => (
              <li key={note}>{note}</li>
            ))}
          </ul>
        </details>
      )}
      <IconButton icon={X} label="Close" onClick={() => dispatch(sessionActions.cameMoving(null))} />
    </div>
  );
}
