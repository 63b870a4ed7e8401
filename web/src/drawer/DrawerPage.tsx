import { emptyPiece } from '@core';
import { useState } from 'react';
import { Modal } from 'react-bootstrap';
import { Link, useNavigate } from 'react-router';
import { Messages } from '../shelf/Messages';
import { Wordmark } from '../shelf/Wordmark';
import {
  type NamedSvg,
  pendingSvgs,
  problemText,
  sessionActions,
  useAppDispatch,
  useCreatePieceMutation,
  useListPiecesQuery,
} from '../state';
import { freshId } from '../workers';
import { DrawerEasings } from './DrawerEasings';
import { DrawerShapes } from './DrawerShapes';

/** The drawer as a page of its own: everything kept for reuse, and into which piece it goes. */
export function DrawerPage() {
  const [shape, setShape] = useState<NamedSvg | null>(null);
  const { data: pieces } = useListPiecesQuery(undefined, { refetchOnMountOrArgChange: true });
  const [create] = useCreatePieceMutation();
  const dispatch = useAppDispatch();
  const navigate = useNavigate();
  const intoNew = async (taken: NamedSvg): Promise<void> => {
    const piece = emptyPiece(freshId('piece'), taken.name);
    const result = await create(piece);
    if (result.error) {
      dispatch(sessionActions.told({ tone: 'error', text: problemText(result.error) }));
      return;
    }
    pendingSvgs.put([taken]);
    await navigate(`/piece/${piece.id}/shapes`);
  };
  return (
    <div className="drawer-page">
      <header>
        <Link to="/" aria-label="To the shelf" title="To the shelf" className="home-link">
          <Wordmark />
        </Link>
        <h1>Drawer</h1>
        <p>
          Shapes and easings for reuse. Add a shape to a piece here, or drag it out of the drawer’s column in the Shapes
          room.
        </p>
      </header>
      <main>
        <DrawerShapes large addLabel="Add to a piece" onAdd={(name, svg) => setShape({ name, svg })} />
        <DrawerEasings />
      </main>
      <Modal show={shape !== null} onHide={() => setShape(null)} centered aria-labelledby="drawer-into">
        <Modal.Header closeButton>
          <Modal.Title id="drawer-into">{shape?.name}: into which piece?</Modal.Title>
        </Modal.Header>
        <Modal.Body className="drawer-pieces">
          <button type="button" className="btn btn-primary" onClick={() => shape && void intoNew(shape)}>
            A new piece
          </button>
          {pieces?.map(({ id, name }) => (
            <button
              key={id}
              type="button"
              className="btn outlined"
              onClick={() => {
                pendingSvgs.put(shape ? [shape] : []);
                void navigate(`/piece/${id}/shapes`);
              }}
            >
              {name}
            </button>
          ))}
        </Modal.Body>
      </Modal>
      <Messages />
    </div>
  );
}
