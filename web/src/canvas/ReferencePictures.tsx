import type { ReferencePicture } from '@core';
import { type RefObject, useEffect, useRef } from 'react';
import { useEditor } from '../context';
import { changePiece, selectPiece, useAppDispatch, useAppSelector } from '../state';

/** Dimmed pictures to trace, over the picture but under the tools; they move with the canvas outside React. */
export function ReferencePictures({ paneRef }: { readonly paneRef: RefObject<HTMLDivElement | null> }) {
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const references = useAppSelector(selectPiece)?.references ?? [];
  const layerRef = useRef<HTMLDivElement>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other pictures are laid out anew
  useEffect(() => {
    const pane = paneRef.current;
    const place = (): void => {
      const { x, y, zoom } = editor.viewport.view;
      if (layerRef.current) layerRef.current.style.transform = `translate(${x}px, ${y}px) scale(${zoom})`;
    };
    place();
    pane?.addEventListener('arcshift-view', place);
    return () => pane?.removeEventListener('arcshift-view', place);
  }, [editor, paneRef, references]);

  const drag = (event: React.PointerEvent, picture: ReferencePicture): void => {
    if (event.button !== 0 || picture.locked) return;
    event.stopPropagation();
    const { zoom } = editor.viewport.view;
    const element = event.currentTarget as HTMLElement;
    let at = { x: picture.x, y: picture.y };
    const controller = new AbortController();
    const { signal } = controller;
    window.addEventListener(
      'pointermove',
      (move) => {
        at = {
          x: picture.x + (move.clientX - event.clientX) / zoom,
          y: picture.y + (move.clientY - event.clientY) / zoom,
        };
        element.style.left = `${at.x}px`;
        element.style.top = `${at.y}px`;
      },
      { signal },
    );
    window.addEventListener(
      'pointerup',
      () => {
        controller.abort();
        dispatch(
          changePiece('Move the reference picture', (draft) => {
            const found = draft.references.find(({ id }) => id === picture.id);
            if (found) Object.assign(found, at);
          }),
        );
      },
      { signal },
    );
  };
  return (
    <div ref={layerRef} className="canvas-references">
      {references
        .filter(({ shown }) => shown)
        .map((picture) => (
          <img
            key={picture.id}
            src={`/api/assets/${picture.asset}`}
            alt={`Reference: ${picture.name}`}
            draggable={false}
            className={picture.locked ? 'locked' : ''}
            style={{
              left: picture.x,
              top: picture.y,
              width: picture.width,
              height: picture.height,
              opacity: picture.opacity,
            }}
            onPointerDown={(event) => drag(event, picture)}
          />
        ))}
    </div>
  );
}
