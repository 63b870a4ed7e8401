import { type Id, outlineOfPart, type Piece, type Pose, placementMatrix, transformOutline, writePathData } from '@core';
import { useRef, useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { PoseThumb } from '../canvas/PoseThumb';
import { squareBox } from '../canvas/pose-picture';
import { useAppStore, useEngines } from '../context';
import { type ExchangeOffer, previewExchange, readExchange, takeExchange } from '../editor';

/** Puts a new version of a file in a pose's place: shows the difference before it is kept. */
export function ExchangeDialog({ poseId, onClose }: { readonly poseId: Id; readonly onClose: () => void }) {
  const store = useAppStore();
  const engines = useEngines();
  const chooser = useRef<HTMLInputElement>(null);
  const [offer, setOffer] = useState<ExchangeOffer | null>(null);
  const [keepPaint, setKeepPaint] = useState(true);
  const [refusal, setRefusal] = useState<string | null>(null);
  const { piece } = store.getState().document;
  const pose = piece?.poses[poseId];
  if (!piece || !pose) return null;
  const preview = offer ? previewExchange(piece, offer, keepPaint) : undefined;
  const read = async (file: File): Promise<void> => {
    setRefusal(null);
    try {
      setOffer(await readExchange(engines.files, poseId, file));
    } catch (error) {
      setRefusal(`${file.name}: ${(error as Error).message}`);
    }
  };
  return (
    <Modal show onHide={onClose} centered size="lg" aria-labelledby="exchange-title">
      <Modal.Header closeButton>
        <Modal.Title id="exchange-title">Exchange {pose.name} for a new version</Modal.Title>
      </Modal.Header>
      <Modal.Body>
        <div className="details-actions">
          <button type="button" className="btn outlined" onClick={() => chooser.current?.click()}>
            {offer ? 'Another file …' : 'Choose the new file …'}
          </button>
          <input
            ref={chooser}
            type="file"
            accept=".svg,image/svg+xml"
            hidden
            data-testid="exchange-chooser"
            onChange={(event) => {
              const [file] = event.target.files ?? [];
              if (file) void read(file);
              event.target.value = '';
            }}
          />
        </div>
        {refusal && (
          <p className="details-remark" role="alert">
            {refusal}
          </p>
        )}
        {!offer && !refusal && (
          <p className="details-note">
            Timing, shifts, starts, the place and your paint are carried over to the new outline. You see the difference
            first.
          </p>
        )}
        {preview && (
          <>
            <div className="exchange-pictures">
              <figure>
                <PoseThumb piece={piece} pose={pose} size={190} />
                <figcaption>As it is</figcaption>
              </figure>
              <figure>
                <Difference before={piece} after={preview.piece} poseId={poseId} />
                <figcaption>Difference: plum goes, cobalt comes</figcaption>
              </figure>
              <figure>
                <PoseThumb piece={preview.piece} pose={preview.piece.poses[poseId]} size={190} />
                <figcaption>New</figcaption>
              </figure>
            </div>
            <p data-testid="exchange-summary">
              {preview.summary.partsKept} of {preview.summary.partsKept + preview.summary.partsGone} parts are carried
              over
              {preview.summary.partsNew > 0 && `, ${preview.summary.partsNew} are new`}
              {preview.summary.partsGone > 0 && `, ${preview.summary.partsGone} go`}; {preview.summary.anchorsKept}{' '}
              points keep what refers to them, {preview.summary.anchorsNew} are new.
            </p>
            <label className="tool-check">
              <input
                type="checkbox"
                className="form-check-input"
                checked={keepPaint}
                onChange={(event) => setKeepPaint(event.target.checked)}
              />
              Keep my paint instead of the file’s
            </label>
            {offer?.notes.map((note) => (
              <p key={note} className="details-remark">
                {note}.
              </p>
            ))}
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="link" className="outlined" onClick={onClose}>
          Leave it as it is
        </Button>
        <Button
          variant="primary"
          disabled={!preview}
          onClick={() => {
            if (offer) takeExchange(store, offer, keepPaint);
            onClose();
          }}
        >
          Exchange
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

/** Old and new laid over each other where they will stand. */
function Difference({ before, after, poseId }: { readonly before: Piece; readonly after: Piece; readonly poseId: Id }) {
  const outlines = (piece: Piece, pose: Pose) =>
    pose.parts.map((id) => transformOutline(outlineOfPart(piece.parts[id]), placementMatrix(pose.placement)));
  const old = outlines(before, before.poses[poseId]);
  const next = outlines(after, after.poses[poseId]);
  const d = (all: typeof old): string => all.map((outline) => writePathData(outline)).join('');
  return (
    <svg
      viewBox={squareBox([...old, ...next], 0)}
      width={190}
      height={190}
      role="img"
      aria-label="Old and new over each other"
    >
      <path d={d(old)} fillRule="evenodd" fill="var(--plum)" fillOpacity={0.45} />
      <path d={d(next)} fillRule="evenodd" fill="var(--cobalt)" fillOpacity={0.45} />
    </svg>
  );
}
