import {
  type DetailTab,
  drawingActions,
  selectedPose,
  selectedShift,
  selectPiece,
  selectSelection,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { ArrangeDetails } from './ArrangeDetails';
import { OutlineDetails } from './OutlineDetails';
import { PaintDetails } from './PaintDetails';
import { PieceDetails } from './PieceDetails';
import { PoseDetails } from './PoseDetails';
import { ShiftDetails } from './ShiftDetails';
import './details.scss';

const TABS: readonly { id: DetailTab; label: string }[] = [
  { id: 'pose', label: 'Pose' },
  { id: 'outline', label: 'Outline' },
  { id: 'paint', label: 'Paint' },
  { id: 'arrange', label: 'Arrange' },
];

/** The column at the right: what fits the selection, and nothing else. */
export function Details() {
  const dispatch = useAppDispatch();
  const piece = useAppSelector(selectPiece);
  const selection = useAppSelector(selectSelection);
  const tab = useAppSelector((state) => state.drawing.details);
  if (!piece) return null;
  const shift = selectedShift(piece, selection);
  const pose = selectedPose(piece, selection);
  return (
    <aside className="details" aria-label="Details">
      {pose && !shift && (
        <div className="details-tabs" role="tablist" aria-label="Details of">
          {TABS.map(({ id, label }) => (
            <button
              key={id}
              type="button"
              role="tab"
              aria-selected={tab === id}
              onClick={() => dispatch(drawingActions.changed({ details: id }))}
            >
              {label}
            </button>
          ))}
        </div>
      )}
      <div className="details-body">
        {shift ? (
          <ShiftDetails key={shift.id} piece={piece} shift={shift} />
        ) : !pose ? (
          <PieceDetails piece={piece} />
        ) : tab === 'outline' ? (
          <OutlineDetails />
        ) : tab === 'paint' ? (
          <PaintDetails />
        ) : tab === 'arrange' ? (
          <ArrangeDetails />
        ) : (
          <PoseDetails key={pose.pose.id} piece={piece} found={pose} />
        )}
      </div>
    </aside>
  );
}
