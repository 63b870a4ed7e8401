import { Plus, Search, Trash2 } from 'lucide-react';
import { useMemo, useState } from 'react';
import { SHAPE_DRAG_TYPE } from '../canvas/drag-type';
import {
  problemText,
  sessionActions,
  useAppDispatch,
  useListDrawerQuery,
  useRemoveFromDrawerMutation,
  useRenameInDrawerMutation,
} from '../state';
import { IconButton, TextField } from '../ui';
import { SHIPPED_SHAPES, shippedSvg } from './shipped-shapes';
import './drawer.scss';

interface Entry {
  readonly key: string;
  readonly name: string;
  readonly words: string;
  readonly svg: string;
  readonly ownId?: string;
}

const SHIPPED: readonly Entry[] = SHIPPED_SHAPES.map((shape) => ({
  key: shape.name,
  name: shape.name,
  words: `${shape.name} ${shape.words}`.toLowerCase(),
  svg: shippedSvg(shape),
}));

/** Shapes kept for reuse: own ones first, then those that come with the application; search, drag, add, rename, remove. */
export function DrawerShapes({
  onAdd,
  addLabel,
  large = false,
}: {
  readonly onAdd: (name: string, svg: string) => void;
  readonly addLabel: string;
  readonly large?: boolean;
}) {
  const { data, error, isLoading } = useListDrawerQuery();
  const [rename] = useRenameInDrawerMutation();
  const [remove] = useRemoveFromDrawerMutation();
  const dispatch = useAppDispatch();
  const [search, setSearch] = useState('');
  const own = useMemo(
    (): Entry[] =>
      (data ?? []).map(({ id, name, svg }) => ({ key: id, name, words: name.toLowerCase(), svg, ownId: id })),
    [data],
  );
  const words = search.toLowerCase().split(/\s+/).filter(Boolean);
  const fits = ({ words: all }: Entry): boolean => words.every((word) => all.includes(word));
  const found = [...own.filter(fits), ...SHIPPED.filter(fits)];
  const tell = (failure: unknown): void =>
    void dispatch(sessionActions.told({ tone: 'error', text: problemText(failure) }));
  return (
    <div className={`drawer ${large ? 'large' : ''}`}>
      <label className="drawer-search">
        <Search size={14} aria-hidden="true" />
        <input
          type="search"
          className="form-control form-control-sm"
          placeholder="Search shapes"
          aria-label="Search shapes"
          value={search}
          onChange={(event) => setSearch(event.target.value)}
          onKeyDown={(event) => event.stopPropagation()}
        />
      </label>
      {error && <p className="drawer-note">{problemText(error)}</p>}
      {isLoading && <p className="drawer-note">Opening the drawer …</p>}
      {found.length === 0 && !isLoading && (
        <p className="drawer-note">No shape fits “{search}”. Your own get in by “Keep in the drawer” under Outline.</p>
      )}
      <ul className="drawer-shapes">
        {found.map((entry) => (
          <li key={entry.key}>
            <div
              className="drawer-shape"
              draggable
              title={`${entry.name}: drag it onto the canvas or the rail`}
              onDragStart={(event) => {
                event.dataTransfer.setData(SHAPE_DRAG_TYPE, entry.svg);
                event.dataTransfer.setData('text/x-arcshift-name', entry.name);
                event.dataTransfer.effectAllowed = 'copy';
              }}
            >
              {/* Drawn as a picture: whatever is in it cannot act. */}
              <img src={`data:image/svg+xml;utf8,${encodeURIComponent(entry.svg)}`} alt="" draggable={false} />
              <span className="drawer-actions">
                <IconButton
                  icon={Plus}
                  label={`${addLabel}: ${entry.name}`}
                  onClick={() => onAdd(entry.name, entry.svg)}
                />
                {entry.ownId && (
                  <IconButton
                    icon={Trash2}
                    label={`Remove ${entry.name} from the drawer`}
                    onClick={() =>
                      void remove(entry.ownId as string)
                        .unwrap()
                        .catch(tell)
                    }
                  />
                )}
              </span>
            </div>
            {entry.ownId && large ? (
              <TextField
                label={`Name of ${entry.name}`}
                hideLabel
                value={entry.name}
                onChange={(name) =>
                  void rename({ id: entry.ownId as string, name })
                    .unwrap()
                    .catch(tell)
                }
              />
            ) : (
              <span className="drawer-name">{entry.name}</span>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
