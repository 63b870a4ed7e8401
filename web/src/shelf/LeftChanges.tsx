import { HardDrive } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { useSavingDesk } from '../context';
import type { PieceCopy } from '../editor';

/** Pieces of which this browser has something that the server has not; each link asks which version to go on with. */
export function LeftChanges() {
  const desk = useSavingDesk();
  const [left, setLeft] = useState<readonly PieceCopy[]>([]);
  useEffect(() => {
    let gone = false;
    const look = async (): Promise<void> => {
      const copies = await desk.left();
      // A piece that was just left may have its last save on the way.
      await Promise.all(copies.map(({ pieceId }) => desk.settled(pieceId)));
      const now = await desk.left();
      if (!gone) setLeft(now);
    };
    void look();
    return () => {
      gone = true;
    };
  }, [desk]);
  const pieces = [...new Map(left.map((copy) => [copy.pieceId, copy])).values()];
  if (pieces.length === 0) return null;
  return (
    <p className="shelf-left" role="status">
      <HardDrive size={15} aria-hidden="true" />
      <span>This browser has changes that are not on the server:</span>
      {pieces.map(({ pieceId, name }) => (
        <Link key={pieceId} to={`/piece/${pieceId}/shapes`}>
          {name}
        </Link>
      ))}
    </p>
  );
}
