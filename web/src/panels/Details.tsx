import { selectedPose, selectedShift, selectPiece, selectSelection, useAppSelector } from '../state';
import { PieceDetails } from './PieceDetails';
import { PoseDetails } from './PoseDetails';
import { ShiftDetails } from './ShiftDetails';
import './details.scss';

/** The column at the right: what fits the selection, and nothing else. */
export function Details() {
  const piece = useAppSelector(selectPiece);
  const selection = useAppSelector(selectSelection);
  if (!piece) return null;
  const shift = selectedShift(piece, selection);
  const pose = selectedPose(piece, selection);
  return (
    <aside className="details" aria-label="Details">
      {shift ? (
        <ShiftDetails key={shift.id} piece={piece} shift={shift} />
      ) : pose ? (
        <PoseDetails key={pose.pose.id} piece={piece} found={pose} />
      ) : (
        <PieceDetails piece={piece} />
      )}
    </aside>
  );
}
