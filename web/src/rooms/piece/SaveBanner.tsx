import { differencesOf } from '@core';
import { CircleAlert } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Button } from 'react-bootstrap';
import { useOpenPiece } from '../../context';
import { downloadPiece } from '../../shelf/download-piece';
import { documentActions, selectPiece, useAppDispatch, useAppSelector } from '../../state';
import { VersionsDialog } from './VersionsDialog';

/** Says why the piece is not saved, where that takes a decision of the user, and offers what can be done. */
export function SaveBanner() {
  const { autosave } = useOpenPiece();
  const dispatch = useAppDispatch();
  const save = useAppSelector((state) => state.session.save);
  const problem = useAppSelector((state) => state.session.saveProblem);
  const piece = useAppSelector(selectPiece);
  const canUndo = useAppSelector((state) => state.document.past.length > 0);
  const [comparing, setComparing] = useState(false);
  if (!piece) return null;
  const download = <Act label="Download the piece" run={() => downloadPiece(piece)} />;
  const keepMine = (): void => autosave.resolve('mine');
  const takeOther = (): void => autosave.resolve('theirs');
  switch (save) {
    case 'conflict': {
      const newer = autosave.newer();
      return (
        <Banner text="This piece was changed elsewhere. Your version is kept in this browser until you decide.">
          <Act label="Compare" run={() => setComparing(true)} />
          <Act label="Use my version" run={keepMine} />
          <Act label="Use the server’s version" run={takeOther} />
          {comparing && newer && (
            <VersionsDialog
              title="Two versions of this piece"
              intro="The one that you keep is saved. The other is kept in this browser for 30 days, under History, Replaced versions."
              onClose={() => setComparing(false)}
              versions={[
                {
                  key: 'mine',
                  title: 'Yours',
                  note: 'As it is in this tab.',
                  piece,
                  differs: differencesOf(piece, newer.piece),
                  actions: [
                    { label: 'Use my version', primary: true, run: keepMine },
                    { label: 'Download', run: () => downloadPiece(piece) },
                  ],
                },
                {
                  key: 'theirs',
                  title: 'The other',
                  note: 'As it is on the server.',
                  piece: newer.piece,
                  differs: differencesOf(newer.piece, piece),
                  actions: [
                    { label: 'Use the server’s version', run: takeOther },
                    { label: 'Download', run: () => downloadPiece(newer.piece) },
                  ],
                },
              ]}
            />
          )}
        </Banner>
      );
    }
    case 'refused':
      return (
        <Banner
          text={`This piece cannot be saved. ${sentence(problem)} It is kept in this browser. Undo what led here, or download it.`}
        >
          {canUndo && <Act label="Undo the last step" run={() => dispatch(documentActions.undone())} />}
          {download}
        </Banner>
      );
    case 'gone':
      return (
        <Banner text={`This piece was deleted elsewhere. ${problem ?? ''} Your version is kept in this browser.`}>
          <Act label="Restore" run={() => void autosave.bringBack()} />
          {download}
        </Banner>
      );
    default:
      return null;
  }
}

/** The server's reason as a sentence of its own. */
const sentence = (problem: string | null): string => (problem ?? '').replace(/^The piece cannot be used: /, 'Where: ');

function Banner({ text, children }: { readonly text: string; readonly children: ReactNode }) {
  return (
    <div className="save-banner" role="alert">
      <CircleAlert size={16} aria-hidden="true" />
      <span>{text}</span>
      <div className="save-banner-acts">{children}</div>
    </div>
  );
}

function Act({ label, run }: { readonly label: string; readonly run: () => void }) {
  return (
    <Button size="sm" variant="link" className="outlined text-decoration-none" onClick={run}>
      {label}
    </Button>
  );
}
