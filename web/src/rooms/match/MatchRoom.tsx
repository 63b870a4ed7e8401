import { Hash, Link2, type LucideIcon, Move, Scissors, Shuffle, Spline, SquareDashedMousePointer } from 'lucide-react';
import { useEffect, useMemo, useState, useSyncExternalStore } from 'react';
import { useEditor, useEngines } from '../../context';
import { MatchEditing, type MatchTool, matchedShift, startHandles } from '../../editor';
import { MatchDetails } from '../../panels';
import { type AppStore, selectPiece, selectSelection, useAppSelector } from '../../state';
import { IconButton } from '../../ui';
import { RoomColumns } from '../RoomColumns';
import { MatchPictures } from './MatchPictures';
import { MatchStrip } from './MatchStrip';
import './match.scss';

const TOOLS: readonly { id: MatchTool; icon: LucideIcon; label: string; help: string }[] = [
  {
    id: 'tie',
    icon: Link2,
    label: 'Tie places',
    help: 'Press a place on either outline, then its place on the other, or drag across. Start points (with an arrow) can be dragged.',
  },
  {
    id: 'pair',
    icon: Shuffle,
    label: 'Pair contours',
    help: 'Drag from a contour to the one that it is to become; drag it into the in-between to let it come or go alone.',
  },
  {
    id: 'cut',
    icon: Scissors,
    label: 'Split the solid',
    help: 'Drag a line across a solid that is to become several: along it the solid is divided. Its ends can be dragged afterwards.',
  },
  {
    id: 'touch-up',
    icon: Move,
    label: 'Touch up',
    help: 'Choose a moment below, then drag the points of the in-between. It passes them smoothly.',
  },
  {
    id: 'point',
    icon: SquareDashedMousePointer,
    label: 'Add points',
    help: 'Press the first outline where the shift is to have another point. The outline does not change.',
  },
];

/** One shift at full size: what was matched, what comes of it, and everything that steers it. */
export function MatchRoom() {
  const editor = useEditor();
  const engines = useEngines();
  const store = editor.store as AppStore;
  const piece = useAppSelector(selectPiece);
  const selection = useAppSelector(selectSelection);
  const [editing, setDrawing] = useState<MatchEditing | null>(null);
  useEffect(() => {
    const made = new MatchEditing({
      store,
      plans: editor.plans,
      clock: editor.clock,
      quick: (input) => engines.previewer.planQuickly(input),
      full: (input) => engines.refiner.planShift(input),
      cancelFull: () => engines.refiner.cancel(),
    });
    setDrawing(made);
    return () => {
      setDrawing(null);
      made.destroy();
    };
  }, [store, editor, engines]);
  const shift = piece ? matchedShift(piece, selection) : undefined;
  if (!piece || !editing) return null;
  if (!shift)
    return (
      <div className="match-empty" role="note">
        <h2>Nothing to match yet</h2>
        <p>
          A shift needs two poses of one figure. Drop a second drawing on the rail, or draw one in Shapes; the match is
          made at once and shown here.
        </p>
      </div>
    );
  return <MatchPicture key={shift.id} editing={editing} store={store} shiftId={shift.id} />;
}

function MatchPicture({
  editing,
  store,
  shiftId,
}: {
  readonly editing: MatchEditing;
  readonly store: AppStore;
  readonly shiftId: string;
}) {
  const piece = useAppSelector(selectPiece);
  const view = useSyncExternalStore(editing.subscribe, editing.snapshot);
  const shift = piece?.shifts[shiftId];
  const starts = useMemo(() => startHandles(editing, view.plan), [editing, view.plan]);
  const ties = useMemo(() => shift?.match.ties.map(({ id }) => id) ?? [], [shift]);
  const { waiting } = view;
  useEffect(() => {
    if (!waiting) return;
    // Escape drops the half-set tie, and nothing else.
    const leave = (event: KeyboardEvent): void => {
      if (event.key !== 'Escape') return;
      event.stopImmediatePropagation();
      editing.change({ waiting: null });
    };
    window.addEventListener('keydown', leave, { capture: true });
    return () => window.removeEventListener('keydown', leave, { capture: true });
  }, [editing, waiting]);
  if (!piece || !shift) return null;
  const help = TOOLS.find(({ id }) => id === view.tool)?.help;
  return (
    <RoomColumns right={<MatchDetails editing={editing} store={store} piece={piece} shift={shift} view={view} />}>
      <div className="match-room">
        <div className="match-tools" role="toolbar" aria-label="Match tools">
          {TOOLS.map(({ id, icon, label }) => (
            <IconButton
              key={id}
              icon={icon}
              label={label}
              pressed={view.tool === id}
              onClick={() => editing.change({ tool: id })}
            />
          ))}
          <span className="match-tools-gap" />
          <IconButton
            icon={Spline}
            label="Paths of points"
            pressed={view.threads}
            onClick={() => editing.change({ threads: !view.threads })}
          />
          <IconButton
            icon={Hash}
            label="Numbers on the points"
            pressed={view.numbers}
            onClick={() => editing.change({ numbers: !view.numbers })}
          />
          <p className="match-help" role="status">
            {waiting
              ? `Now press its place on the ${waiting.side === 'a' ? 'second' : 'first'} outline. Escape drops it.`
              : help}
          </p>
        </div>
        <MatchPictures
          editing={editing}
          store={store}
          names={[piece.poses[shift.from].name, piece.poses[shift.to].name]}
          starts={starts}
          ties={ties}
          cuts={shift.match.cuts}
        />
        <MatchStrip editing={editing} piece={piece} shift={shift} plan={view.tried ?? view.plan} />
      </div>
    </RoomColumns>
  );
}
