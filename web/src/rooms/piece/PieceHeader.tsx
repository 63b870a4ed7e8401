import {
  CircleAlert,
  CloudCheck,
  CloudOff,
  CloudUpload,
  History,
  Keyboard,
  Moon,
  Redo2,
  Sun,
  Undo2,
} from 'lucide-react';
import { useState } from 'react';
import { Dropdown } from 'react-bootstrap';
import { Link, NavLink, useParams } from 'react-router';
import { type CommandContext, commandById } from '../../editor';
import { Wordmark } from '../../shelf/Wordmark';
import {
  changePiece,
  documentActions,
  ROOMS,
  selectPiece,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../../state';
import { IconButton, TextField } from '../../ui';
import { GivenWayVersions } from './GivenWayVersions';
import { keysText } from './keys-text';

const SAVE = {
  saved: { icon: CloudCheck, text: 'Saved' },
  saving: { icon: CloudUpload, text: 'Saving …' },
  unsaved: { icon: CloudUpload, text: 'Not saved yet' },
  offline: { icon: CloudOff, text: 'Offline: kept in this browser, trying again' },
  conflict: { icon: CircleAlert, text: 'Changed elsewhere' },
  refused: { icon: CircleAlert, text: 'Cannot be saved' },
  gone: { icon: CircleAlert, text: 'Deleted elsewhere' },
} as const;

/** Back to the shelf, the piece's name, the rooms, undo and its history, and whether all is saved. */
export function PieceHeader({ context }: { readonly context: CommandContext }) {
  const { id = '' } = useParams();
  const dispatch = useAppDispatch();
  const piece = useAppSelector(selectPiece);
  const save = useAppSelector((state) => state.session.save);
  const problem = useAppSelector((state) => state.session.saveProblem);
  const theme = useAppSelector((state) => state.session.theme);
  const past = useAppSelector((state) => state.document.past);
  const future = useAppSelector((state) => state.document.future);
  const kept = useAppSelector((state) => state.document.kept);
  const [versions, setVersions] = useState(false);
  const command = (name: 'undo' | 'redo' | 'sheet') => {
    const { label, keys, run } = commandById(name);
    return { label, keys: keysText(keys[0]), onClick: () => run(context) };
  };
  const steps = (count: number, action: () => Parameters<typeof dispatch>[0]): void => {
    for (let i = 0; i < count; i++) dispatch(action());
  };
  const { icon: SaveIcon, text: saveText } = SAVE[save];
  return (
    <header className="piece-header">
      <Link to="/" className="home-link" title="To the shelf" aria-label="To the shelf">
        <Wordmark />
      </Link>
      <TextField
        className="piece-name"
        label="Name of the piece"
        hideLabel
        live
        value={piece?.name ?? ''}
        onChange={(name) => dispatch(changePiece(`Rename to ${name}`, (draft) => void (draft.name = name)))}
      />
      <nav className="piece-rooms" aria-label="Rooms">
        {ROOMS.map((room) => (
          <NavLink key={room.id} to={`/piece/${id}/${room.id}`} title={`${room.label} (${room.key})`}>
            {room.label}
          </NavLink>
        ))}
      </nav>
      <div className="piece-tools">
        <span className={`piece-save ${save}`} role="status" data-testid="save-state" title={problem ?? saveText}>
          <SaveIcon size={16} aria-hidden="true" />
          {save !== 'offline' ? saveText : problem ? 'Not stored' : 'Offline'}
        </span>
        <IconButton icon={Undo2} disabled={past.length === 0} {...command('undo')} />
        <IconButton icon={Redo2} disabled={future.length === 0} {...command('redo')} />
        <Dropdown align="end">
          <Dropdown.Toggle variant="link" className="quiet icon-button" aria-label="History" title="History">
            <History size={17} aria-hidden="true" />
          </Dropdown.Toggle>
          <Dropdown.Menu className="piece-history">
            <Dropdown.Header>What was done, the latest first</Dropdown.Header>
            {[...future].reverse().map((entry, i) => (
              <Dropdown.Item
                key={entry.id}
                className="undone"
                onClick={() => steps(future.length - i, documentActions.redone)}
              >
                {entry.name}
              </Dropdown.Item>
            ))}
            {[...past].reverse().map((entry, i) => (
              <Dropdown.Item key={entry.id} active={i === 0} onClick={() => steps(i, documentActions.undone)}>
                {entry.name}
              </Dropdown.Item>
            ))}
            <Dropdown.Item active={past.length === 0} onClick={() => steps(past.length, documentActions.undone)}>
              {kept ? 'Before these steps' : 'As it was opened'}
            </Dropdown.Item>
            <Dropdown.Divider />
            <Dropdown.Item onClick={() => setVersions(true)}>Replaced versions …</Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
        {versions && <GivenWayVersions onClose={() => setVersions(false)} />}
        <IconButton
          icon={theme === 'dark' ? Sun : Moon}
          label={theme === 'dark' ? 'Light theme' : 'Dark theme'}
          onClick={() => dispatch(sessionActions.themeChosen(theme === 'dark' ? 'light' : 'dark'))}
        />
        <IconButton icon={Keyboard} {...command('sheet')} />
      </div>
    </header>
  );
}
