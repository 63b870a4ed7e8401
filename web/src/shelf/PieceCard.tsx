import type { PieceSummary } from '@core';
import { Copy, Download, Ellipsis, Trash2 } from 'lucide-react';
import { Dropdown } from 'react-bootstrap';
import { Link } from 'react-router';
import {
  problemText,
  sessionActions,
  useAppDispatch,
  useDeletePieceMutation,
  useDuplicatePieceMutation,
  useLoadPieceQuery,
} from '../state';
import { downloadPiece } from './download-piece';
import { PieceThumb } from './PieceThumb';

const when = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' });

/** A piece on the shelf: it plays, opens with a click, and can be copied, exported and deleted. */
export function PieceCard({ summary }: { readonly summary: PieceSummary }) {
  const { data, error } = useLoadPieceQuery(summary.id);
  const [duplicate] = useDuplicatePieceMutation();
  const [remove] = useDeletePieceMutation();
  const dispatch = useAppDispatch();
  const tell = (failure: unknown): void =>
    void dispatch(sessionActions.told({ tone: 'error', text: problemText(failure) }));
  const exportPiece = (): void => {
    if (!data) return;
    downloadPiece(data.piece);
  };
  return (
    <article className="piece-card">
      <Link to={`/piece/${summary.id}/shapes`} aria-label={`Open ${summary.name}`} className="piece-card-open">
        {data && data.piece.figureOrder.length > 0 ? (
          <PieceThumb piece={data.piece} />
        ) : (
          <div className="thumb empty">{error ? 'Cannot be read' : data ? 'Empty' : ''}</div>
        )}
      </Link>
      <footer>
        <div>
          <h2>
            <Link to={`/piece/${summary.id}/shapes`} tabIndex={-1} className="piece-card-name">
              {summary.name}
            </Link>
          </h2>
          <span className="soft" title={error ? problemText(error) : undefined}>
            {error ? problemText(error) : summary.updatedAt ? when.format(new Date(summary.updatedAt)) : 'No date'}
          </span>
        </div>
        <Dropdown align="end">
          <Dropdown.Toggle variant="link" className="quiet icon-button" aria-label={`More for ${summary.name}`}>
            <Ellipsis size={17} aria-hidden="true" />
          </Dropdown.Toggle>
          <Dropdown.Menu>
            <Dropdown.Item onClick={() => void duplicate(summary.id).unwrap().catch(tell)}>
              <Copy size={14} aria-hidden="true" /> Duplicate
            </Dropdown.Item>
            {error ? (
              <Dropdown.Item href={`/api/pieces/${encodeURIComponent(summary.id)}/text`} download>
                <Download size={14} aria-hidden="true" /> Download what is stored
              </Dropdown.Item>
            ) : (
              <Dropdown.Item onClick={exportPiece} disabled={!data}>
                <Download size={14} aria-hidden="true" /> Export piece file
              </Dropdown.Item>
            )}
            <Dropdown.Item
              onClick={() =>
                void remove(summary.id)
                  .unwrap()
                  .then(
                    () =>
                      dispatch(
                        sessionActions.told({
                          tone: 'notice',
                          text: `${summary.name} was deleted.`,
                          undoDelete: summary.id,
                        }),
                      ),
                    tell,
                  )
              }
            >
              <Trash2 size={14} aria-hidden="true" /> Delete
            </Dropdown.Item>
          </Dropdown.Menu>
        </Dropdown>
      </footer>
    </article>
  );
}
