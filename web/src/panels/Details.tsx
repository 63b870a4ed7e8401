import {
  type DetailTab,
  drawingActions,
  railChoice,
  selectedPose,
  selectedShift,
  selectPiece,
  selectSelection,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { Tabs } from '../ui';
import { ArrangeDetails } from './ArrangeDetails';
import { OutlineDetails } from './OutlineDetails';
import { PaintDetails } from './PaintDetails';
import { PieceDetails } from './PieceDetails';
import { PoseDetails } from './PoseDetails';
import { SeveralDetails } from './SeveralDetails';
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
  const more = useAppSelector((state) => state.session.more);
  if (!piece) return null;
  const choice = more.length > 0 ? railChoice(piece, selection, more) : undefined;
  if (choice && choice.stops.length + choice.shifts.length > 1)
    return (
      <aside className="details" aria-label="Details">
        <div className="details-body">
          <SeveralDetails piece={piece} choice={choice} />
        </div>
      </aside>
    );
  const shift = selectedShift(piece, selection);
  const pose = selectedPose(piece, selection);
  if (shift || !pose)
    return (
      <aside className="details" aria-label="Details">
        <div className="details-body">
          {shift ? <ShiftDetails key={shift.id} piece={piece} shift={shift} /> : <PieceDetails piece={piece} />}
        </div>
      </aside>
    );
  return (
    <aside className="details" aria-label="Details">
      <Tabs
        label="Details of"
        tabs={TABS}
        chosen={tab}
        onChoose={(details) => dispatch(drawingActions.changed({ details }))}
        panelClass="details-body"
      >
        {tab === 'outline' ? (
          <OutlineDetails />
        ) : tab === 'paint' ? (
          <PaintDetails />
        ) : tab === 'arrange' ? (
          <ArrangeDetails />
        ) : (
          <PoseDetails key={pose.pose.id} piece={piece} found={pose} />
        )}
      </Tabs>
    </aside>
  );
}
