import { differencesOf } from '@core';
import { Button } from 'react-bootstrap';
import { useNavigate } from 'react-router';
import type { LeftCopy } from '../../editor';
import { downloadPiece, downloadPieceText } from '../../shelf/download-piece';
import { problemText, sessionActions, useAppDispatch, useCreatePieceMutation } from '../../state';
import { freshId } from '../../workers';
import type { Found, PieceOpening } from './use-opened-piece';
import { type Version, type VersionAction, VersionsDialog } from './VersionsDialog';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** Asks which version to go on with, where this browser has something of a piece that the server has not. Nothing is removed unasked. */
export function LeftVersions({ found, opening }: { readonly found: Found; readonly opening: PieceOpening }) {
  const navigate = useNavigate();
  const dispatch = useAppDispatch();
  const [create] = useCreatePieceMutation();
  const { onServer, gone, failure, copies } = found;
  const keepBeside = async (left: LeftCopy): Promise<void> => {
    if (!left.piece) return;
    // A piece that is gone comes back under a name of its own too: its id may lie in the bin.
    const name = gone ? left.piece.name : `${left.piece.name} (from this browser)`.slice(0, 200);
    const result = await create({ ...left.piece, id: freshId('piece'), name });
    if (result.error) dispatch(sessionActions.told({ tone: 'error', text: problemText(result.error) }));
    else {
      opening.throwAway(left);
      if (gone) await navigate(`/piece/${result.data.id}/shapes`);
      else dispatch(sessionActions.told({ tone: 'notice', text: `${name} is on the shelf now.` }));
    }
  };
  const actionsOf = (left: LeftCopy, latest: boolean): VersionAction[] => {
    const { piece, copy } = left;
    const download = piece ? () => downloadPiece(piece) : () => downloadPieceText(copy.name, copy.text);
    return [
      ...(piece && !gone ? [{ label: 'Use this version', primary: latest, run: () => opening.takeCopy(left) }] : []),
      ...(piece && (gone || onServer)
        ? [
            {
              label: gone ? 'Restore' : 'Keep as a copy',
              primary: gone && latest,
              run: () => void keepBeside(left),
            },
          ]
        : []),
      { label: 'Download', run: download },
      { label: 'Discard', run: () => opening.throwAway(left) },
    ];
  };
  const versions: Version[] = copies.map((left, i) => ({
    key: left.copy.key,
    title: copies.length > 1 ? `In this browser, tab ${i + 1}` : 'In this browser',
    note: `${left.copy.at === null ? 'Kept by an older version of the program.' : `Changed ${when.format(left.copy.at)}.`}${
      left.piece ? '' : ' It cannot be read; download it to keep what there is.'
    }`,
    piece: left.piece,
    ...(left.piece && onServer && { differs: differencesOf(left.piece, onServer.piece) }),
    actions: actionsOf(left, i === 0),
  }));
  if (onServer)
    versions.push({
      key: 'server',
      title: 'On the server',
      note: onServer.updatedAt ? `Saved ${when.format(new Date(onServer.updatedAt))}.` : 'Saved.',
      piece: onServer.piece,
      ...(copies[0]?.piece && { differs: differencesOf(onServer.piece, copies[0].piece) }),
      actions: [
        { label: 'Use this version', run: opening.takeServer },
        { label: 'Download', run: () => downloadPiece(onServer.piece) },
      ],
    });
  const intro = onServer
    ? 'Changes of last time had not reached the server. Which version do you want to go on with? Versions that you do not discard are kept in this browser and offered again.'
    : gone
      ? 'This piece was deleted, and this browser still has changes to it that never reached the server.'
      : `${failure ?? ''} This browser has a version that you can go on with; it is saved when the server is back.`;
  return (
    <div className="page-notice">
      <h1>{gone ? 'This piece was deleted' : 'Which version?'}</h1>
      <Button variant="link" className="outlined text-decoration-none" onClick={() => void navigate('/')}>
        To the shelf
      </Button>
      <VersionsDialog
        title={gone ? 'Changes to a deleted piece' : 'This browser has unsaved changes'}
        intro={intro}
        versions={versions}
        onClose={() => void navigate('/')}
      />
    </div>
  );
}
