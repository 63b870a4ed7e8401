import { Button, Modal } from 'react-bootstrap';
import { useBlocker } from 'react-router';
import { useOpenPiece } from '../../context';
import { downloadPiece } from '../../shelf/download-piece';
import { selectPiece, useAppSelector } from '../../state';

/** Asks before a piece is left whose changes neither the server nor the browser has. */
export function LeaveDialog() {
  const { autosave } = useOpenPiece();
  const piece = useAppSelector(selectPiece);
  const save = useAppSelector((state) => state.session.save);
  // What is just being saved is no reason to ask: the last save goes on when the piece is left.
  const waiting = save === 'offline' || save === 'refused' || save === 'gone' || save === 'conflict';
  const blocker = useBlocker(
    ({ currentLocation, nextLocation }) =>
      waiting && autosave.atRisk() && pieceOf(currentLocation.pathname) !== pieceOf(nextLocation.pathname),
  );
  if (blocker.state !== 'blocked' || !piece) return null;
  return (
    <Modal show centered onHide={() => blocker.reset()} aria-labelledby="leave-title">
      <Modal.Header closeButton>
        <Modal.Title id="leave-title">Leave and lose the last changes?</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        The server has not taken them, and this browser could keep no copy. Download the piece to be able to import it
        again.
      </Modal.Body>
      <Modal.Footer>
        <Button variant="link" className="outlined text-decoration-none me-auto" onClick={() => downloadPiece(piece)}>
          Download the piece
        </Button>
        <Button variant="link" className="outlined text-decoration-none" onClick={() => blocker.proceed()}>
          Leave
        </Button>
        <Button variant="primary" onClick={() => blocker.reset()}>
          Stay
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** The piece that an address is in. */
const pieceOf = (pathname: string): string => /^\/piece\/([^/]+)/.exec(pathname)?.[1] ?? '';
