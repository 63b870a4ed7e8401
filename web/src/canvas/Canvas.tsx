import { poseInput, railTimeline } from '@core';
import { type DragEvent, type PointerEvent, useEffect, useRef } from 'react';
import { useOpenPiece } from '../context';
import { selectedPose, selectPiece, useAppSelector } from '../state';
import { EmptyCanvas } from './EmptyCanvas';
import { movePose } from './move-pose';
import { placeOverlay } from './overlay';
import './canvas.scss';

/** The picture area: paints outside React, with the handles of the selected pose in a small SVG over it. */
export function Canvas() {
  const { editor, takeFiles } = useOpenPiece();
  const piece = useAppSelector(selectPiece);
  const paneRef = useRef<HTMLDivElement>(null);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const overlayRef = useRef<SVGSVGElement>(null);
  const selection = useAppSelector((state) => state.session.selection);

  useEffect(() => {
    const pane = paneRef.current;
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!pane || !canvas || !context) return;
    let handle = 0;
    const paint = (): void => {
      handle = 0;
      const density = window.devicePixelRatio;
      editor.stage.paint(context, editor.clock.seconds, editor.viewport.view, density);
      if (overlayRef.current) placeOverlay(overlayRef.current, editor);
    };
    // The clock already ticks once a frame; other changes are gathered until the next one.
    const repaint = (): void => {
      if (editor.clock.playing) paint();
      else handle ||= requestAnimationFrame(paint);
    };
    const observer = new ResizeObserver(() => {
      const density = window.devicePixelRatio;
      canvas.width = Math.max(1, Math.round(pane.clientWidth * density));
      canvas.height = Math.max(1, Math.round(pane.clientHeight * density));
      editor.viewport.setPane(pane.clientWidth, pane.clientHeight);
      paint();
    });
    observer.observe(pane);
    const stop = editor.onRepaint(repaint);
    const zoom = (event: WheelEvent): void => {
      event.preventDefault();
      const box = pane.getBoundingClientRect();
      if (event.ctrlKey || event.metaKey)
        editor.viewport.zoomBy(Math.exp(-event.deltaY * 0.004), event.clientX - box.left, event.clientY - box.top);
      else editor.viewport.moveBy(-event.deltaX, -event.deltaY);
    };
    pane.addEventListener('wheel', zoom, { passive: false });
    return () => {
      cancelAnimationFrame(handle);
      observer.disconnect();
      stop();
      pane.removeEventListener('wheel', zoom);
    };
  }, [editor]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the overlay shows what is selected
  useEffect(() => {
    if (overlayRef.current) placeOverlay(overlayRef.current, editor);
  }, [editor, selection, piece]);

  const drag = (event: PointerEvent): void => {
    const found = piece && selectedPose(piece, selection);
    if (event.button !== 0 || !piece || !found || !overlayRef.current) return;
    const stop = railTimeline(piece, found.figure).stops[found.stop];
    editor.clock.pause();
    editor.clock.seek(stop.start);
    movePose(editor, found.pose, poseInput(piece, found.pose), event.nativeEvent);
  };
  const dropped = (event: DragEvent): void => {
    event.preventDefault();
    takeFiles([...event.dataTransfer.files]);
  };
  const empty = piece?.figureOrder.length === 0;
  return (
    <div
      ref={paneRef}
      className="canvas-pane"
      role="region"
      aria-label="Canvas"
      onDragOver={(event) => event.preventDefault()}
      onDrop={dropped}
    >
      <canvas
        ref={canvasRef}
        className="canvas-picture"
        data-testid="canvas"
        aria-label="The piece at the play position"
        role="img"
      />
      <svg ref={overlayRef} className="canvas-overlay" aria-hidden="true">
        <rect data-key="frame" className="overlay-frame" visibility="hidden" onPointerDown={drag} />
      </svg>
      {empty && <EmptyCanvas />}
    </div>
  );
}
