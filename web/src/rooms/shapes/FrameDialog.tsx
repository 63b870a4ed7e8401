import { useEffect, useRef, useState, useSyncExternalStore } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { frameRequest } from './frame-request';
import { usePictureKeeper } from './use-reference-file';
import './frame-dialog.scss';

type Opened = Awaited<ReturnType<typeof import('../../outputs')['openMovingPicture']>>;

/** Lets one picture of a video or GIF be chosen, to be traced. */
export function FrameDialog() {
  const file = useSyncExternalStore(frameRequest.subscribe, frameRequest.get);
  return file ? <FrameChoice key={`${file.name} ${file.size}`} file={file} /> : null;
}

function FrameChoice({ file }: { readonly file: File }) {
  const keep = usePictureKeeper();
  const canvas = useRef<HTMLCanvasElement>(null);
  const [pictures, setPictures] = useState<Opened | null>(null);
  const [index, setIndex] = useState(0);
  const [shown, setShown] = useState<ImageData | null>(null);
  const [refusal, setRefusal] = useState<string | null>(null);
  useEffect(() => {
    let opened: Opened | null = null;
    let left = false;
    void import('../../outputs')
      .then(({ openMovingPicture }) => openMovingPicture(file))
      .then((found) => {
        opened = found;
        if (left) found.close();
        else setPictures(found);
      })
      .catch((error: Error) => setRefusal(`Expected a video or GIF that this browser can read; ${error.message}`));
    return () => {
      left = true;
      opened?.close();
    };
  }, [file]);
  useEffect(() => {
    if (!pictures) return;
    let left = false;
    pictures
      .picture(index)
      .then((picture) => {
        if (left || !canvas.current) return;
        canvas.current.width = picture.width;
        canvas.current.height = picture.height;
        canvas.current.getContext('2d')?.putImageData(picture, 0, 0);
        setShown(picture);
      })
      .catch((error: Error) => !left && setRefusal(`This picture cannot be read: ${error.message}`));
    return () => {
      left = true;
    };
  }, [pictures, index]);
  const close = (): void => frameRequest.set(null);
  const seconds = pictures?.starts?.[index] ?? 0;
  const take = async (): Promise<void> => {
    if (!shown) return;
    const { pictureFile } = await import('../../outputs');
    const base = file.name.replace(/\.\w+$/, '');
    close();
    keep(await pictureFile(shown, `${base} at ${seconds.toFixed(2)} s.png`));
  };
  const last = (pictures?.count ?? 1) - 1;
  return (
    <Modal show onHide={close} centered aria-labelledby="frame-title">
      <Modal.Header closeButton>
        <Modal.Title id="frame-title">Choose the frame to trace</Modal.Title>
      </Modal.Header>
      <Modal.Body className="frame-choice">
        {refusal ? (
          <p className="details-remark" role="alert">
            {file.name}: {refusal}
          </p>
        ) : (
          <>
            <div className="frame-picture">
              <canvas ref={canvas} aria-label={`Picture ${index + 1} of ${file.name}`} role="img" />
              {!shown && <p className="soft">Opening {file.name} …</p>}
            </div>
            <label className="frame-slider">
              <input
                type="range"
                className="form-range"
                min={0}
                max={last}
                value={index}
                disabled={!pictures || last < 1}
                aria-label="Picture"
                onChange={(event) => setIndex(Number(event.target.value))}
              />
              <span className="number">
                {index + 1} of {last + 1} · {seconds.toFixed(2)} s
              </span>
            </label>
          </>
        )}
      </Modal.Body>
      <Modal.Footer>
        <Button variant="link" onClick={close}>
          Cancel
        </Button>
        <Button variant="primary" disabled={!shown || refusal !== null} onClick={() => void take()}>
          Trace this picture
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
