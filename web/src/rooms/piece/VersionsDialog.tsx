import { type Piece, pieceDuration } from '@core';
import { Button, Modal } from 'react-bootstrap';
import { PieceThumb } from '../../shelf/PieceThumb';

export interface VersionAction {
  readonly label: string;
  readonly primary?: boolean;
  readonly run: () => void;
}

/** One state of a piece that there is somewhere. */
export interface Version {
  readonly key: string;
  /** Where it is. */
  readonly title: string;
  readonly note: string;
  /** Null when it cannot be read. */
  readonly piece: Piece | null;
  /** In what it differs from the other one, in sentences. */
  readonly differs?: readonly string[];
  readonly actions: readonly VersionAction[];
}

/** Versions of one piece side by side, playing, each with what can be done with it. */
export function VersionsDialog({
  title,
  intro,
  versions,
  onClose,
}: {
  readonly title: string;
  readonly intro: string;
  readonly versions: readonly Version[];
  /** Undefined where one has to be chosen. */
  readonly onClose?: () => void;
}) {
  return (
    <Modal
      show
      centered
      size="lg"
      onHide={onClose}
      backdrop={onClose ? true : 'static'}
      keyboard={onClose !== undefined}
      aria-labelledby="versions-title"
    >
      <Modal.Header closeButton={onClose !== undefined}>
        <Modal.Title id="versions-title">{title}</Modal.Title>
      </Modal.Header>
      <Modal.Body className="versions">
        <p>{intro}</p>
        <div className="versions-row">
          {versions.map((version) => (
            <section key={version.key} className="version" aria-label={version.title}>
              {version.piece && version.piece.figureOrder.length > 0 ? (
                <PieceThumb piece={version.piece} />
              ) : (
                <div className="thumb empty">{version.piece ? 'Empty' : 'Cannot be shown'}</div>
              )}
              <h2>{version.title}</h2>
              <p className="soft">
                {version.note}
                {version.piece && ` ${contents(version.piece)}`}
              </p>
              {version.differs && version.differs.length > 0 && (
                <ul className="version-differs">
                  {version.differs.map((text) => (
                    <li key={text}>{text}</li>
                  ))}
                </ul>
              )}
              <div className="version-actions">
                {version.actions.map(({ label, primary, run }) => (
                  <Button
                    key={label}
                    size="sm"
                    variant={primary ? 'primary' : 'link'}
                    className={primary ? '' : 'outlined text-decoration-none'}
                    onClick={run}
                  >
                    {label}
                  </Button>
                ))}
              </div>
            </section>
          ))}
        </div>
      </Modal.Body>
    </Modal>
  );
}

const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
const contents = (piece: Piece): string => {
  const { figures, poses, shifts } = piece;
  const counts = [
    many(Object.keys(figures).length, 'figure'),
    many(Object.keys(poses).length, 'pose'),
    many(Object.keys(shifts).length, 'shift'),
  ];
  return `${counts.join(', ')}, plays ${Number(pieceDuration(piece).toFixed(3))}\u00a0s.`;
};
