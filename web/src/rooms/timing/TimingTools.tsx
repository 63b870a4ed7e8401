import { Expand } from 'lucide-react';
import { useEffect, useState } from 'react';
import { useEditor } from '../../context';
import { lookWindow } from '../../editor';
import { drawingActions, selectPiece, selectSelection, useAppDispatch, useAppSelector } from '../../state';
import { IconButton } from '../../ui';

const SPEEDS = [
  { value: 1, label: 'Normal (1 ×)' },
  { value: 0.5, label: '½' },
  { value: 0.25, label: '¼' },
  { value: 0.1, label: '⅒' },
] as const;
const COUNTS = [0, 1, 2, 3, 5];
const STRENGTHS = [
  { value: 0.18, label: 'Faintly' },
  { value: 0.34, label: 'Normally' },
  { value: 0.6, label: 'Strongly' },
] as const;
const APART = [1, 2, 3, 6, 12];

/** What helps to see motion: playing slowly, and moments before and after lying faintly under the picture. */
export function TimingTools() {
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const onion = useAppSelector((state) => state.drawing.onion);
  const points = useAppSelector((state) => state.drawing.pointPaths);
  const [speed, setSpeed] = useState(editor.clock.speed);
  const piece = useAppSelector(selectPiece);
  const selection = useAppSelector(selectSelection);
  const keys = useAppSelector((state) => state.session.keys);
  const [looks, setLooks] = useState<'all' | 'chosen'>('all');
  const chosen = piece && looks === 'chosen' ? lookWindow(piece, selection, keys) : undefined;
  const [from, until] = chosen ?? [];
  useEffect(() => {
    editor.clock.look(from !== undefined && until !== undefined ? [from, until] : null);
    return () => editor.clock.look(null);
  }, [editor, from, until]);
  const change = (made: Partial<typeof onion>): void =>
    void dispatch(drawingActions.changed({ onion: { ...onion, ...made } }));
  return (
    <div className="timing-tools" role="toolbar" aria-label="Looking at motion">
      <label>
        Speed
        <select
          value={speed}
          onChange={(event) => {
            const next = Number(event.target.value);
            setSpeed(next);
            editor.clock.setSpeed(next);
          }}
        >
          {SPEEDS.map(({ value, label }) => (
            <option key={value} value={value}>
              {label}
            </option>
          ))}
        </select>
      </label>
      <label title="What is chosen is played alone, again and again">
        Play
        <select value={looks} onChange={(event) => setLooks(event.target.value as typeof looks)}>
          <option value="all">Whole piece</option>
          <option value="chosen">Selection</option>
        </select>
      </label>
      <label>
        Onion skins
        <select value={onion.count} onChange={(event) => change({ count: Number(event.target.value) })}>
          {COUNTS.map((count) => (
            <option key={count} value={count}>
              {count === 0 ? 'None' : `${count} each way`}
            </option>
          ))}
        </select>
      </label>
      {onion.count > 0 && (
        <label>
          Strength
          <select value={onion.strength} onChange={(event) => change({ strength: Number(event.target.value) })}>
            {STRENGTHS.map(({ value, label }) => (
              <option key={value} value={value}>
                {label}
              </option>
            ))}
          </select>
        </label>
      )}
      {onion.count > 0 && (
        <label title="Moments before in plum, moments after in cobalt">
          <input type="checkbox" checked={onion.tint} onChange={(event) => change({ tint: event.target.checked })} />
          Tinted
        </label>
      )}
      {onion.count > 0 && (
        <label>
          Apart
          <select value={onion.frames} onChange={(event) => change({ frames: Number(event.target.value) })}>
            {APART.map((frames) => (
              <option key={frames} value={frames}>
                {frames === 1 ? '1 frame' : `${frames} frames`}
              </option>
            ))}
          </select>
        </label>
      )}
      <label title="Where points of the chosen figure go, a dot a frame: those that are chosen, else some of all">
        <input
          type="checkbox"
          checked={points}
          onChange={(event) => dispatch(drawingActions.changed({ pointPaths: event.target.checked }))}
        />
        Paths of points
      </label>
      <IconButton
        icon={Expand}
        label="Full screen (Escape leaves it)"
        onClick={() => void document.querySelector('.canvas-pane')?.requestFullscreen()}
      />
    </div>
  );
}
