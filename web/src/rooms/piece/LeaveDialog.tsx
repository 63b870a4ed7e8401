import { useEffect, useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { useBlocker } from 'react-router';
import { useOpenPiece } from '../../context';
import { downloadPiece } from '../../shelf/download-piece';
import { selectPiece, useAppSelector } from '../../state';

/** Asks before a piece is left whose changes neither the server nor the browser has, or into which something is just being read. */
export function LeaveDialog() {
  const { autosave, arrivals } = useOpenPiece();
  const isReadingFile = useAppSelector((state) => state.session.busy?.stoppable === true);
  const piece = useAppSelector(selectPiece);
  const save = useAppSelector((state) => state.session.save);
  // What is just being saved is no reason to ask: the last save goes on when the piece is left.
  const waiting = save === 'offline' || save === 'refused' || save === 'gone' || save === 'conflict';
  /** Why it was asked: changes at risk stay a reason while saving them is tried again. */
  const [why, setWhy] = useState<'reading' | 'risk'>('reading');
  const blocker = useBlocker(({ currentLocation, nextLocation }) => {
    const risk = waiting && autosave.atRisk();
    setWhy(risk ? 'risk' : 'reading');
    return (isReadingFile || risk) && pieceOf(currentLocation.pathname) !== pieceOf(nextLocation.pathname);
  });
  useEffect(() => {
    if (!isReadingFile) return;
    const ask = (event: Event): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [isReadingFile]);
  const asked = blocker.state === 'blocked' && blocker;
  // What was read, or stopped, in the meantime is no reason any more.
  useEffect(() => {
    if (asked && why === 'reading' && !isReadingFile) asked.proceed();
  }, [asked, why, isReadingFile]);
  if (!asked || !piece) return null;
  if (why === 'reading')
    return (
      <Modal show centered onHide={() => asked.reset()} aria-labelledby="leave-title">
        <Modal.Header closeButton>
          <Modal.Title id="leave-title">Leave while files are being read?</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          Reading stops when you leave, and nothing of these files comes in. The piece itself is kept.
        </Modal.Body>
        <Modal.Footer>
          <Button variant="link" className="outlined text-decoration-none" onClick={() => arrivals.stop()}>
            Stop reading and leave
          </Button>
          <Button variant="primary" onClick={() => asked.reset()}>
            Stay
          </Button>
        </Modal.Footer>
      </Modal>
    );
  return (
    <Modal show centered onHide={() => asked.reset()} aria-labelledby="leave-title">
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
        <Button variant="link" className="outlined text-decoration-none" onClick={() => asked.proceed()}>
          Leave
        </Button>
        <Button variant="primary" onClick={() => asked.reset()}>
          Stay
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** The piece that an address is in. */
const pieceOf = (pathname: string): string => /^\/piece\/([^/]+)/.exec(pathname)?.[1] ?? '';
