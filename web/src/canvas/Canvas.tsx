import { hexText } from '@core';
import { type DragEvent, type KeyboardEvent, type PointerEvent, type ReactNode, useEffect, useRef } from 'react';
import { useOpenPiece } from '../context';
import { droppedFiles, paintOverlay } from '../editor';
import { selectPiece, useAppSelector } from '../state';
import { SHAPE_DRAG_TYPE } from './drag-type';
import { penColours } from './pen-colours';
import { ReferencePictures } from './ReferencePictures';
import './canvas.scss';

const DOUBLE_PRESS_MS = 350;
const DOUBLE_PRESS_PX = 5;

/** The picture area: picture and overlay are painted outside React, at the display's rate; pointers go to the drawing. */
export function Canvas({
  drawing = false,
  onion = false,
  over,
  whenEmpty,
}: {
  readonly drawing?: boolean;
  /** Are moments before and after shown, as many as were chosen? */
  readonly onion?: boolean;
  /** What lies over the picture; it is placed by its own hands. */
  readonly over?: ReactNode;
  /** What is shown over an empty piece. */
  readonly whenEmpty?: ReactNode;
}) {
  const { editor, takeFiles, takeSvg } = useOpenPiece();
  const piece = useAppSelector(selectPiece);
  const theme = useAppSelector((state) => state.session.theme);
  const tool = useAppSelector((state) => state.drawing.tool);
  const paneRef = useRef<HTMLDivElement>(null);
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const overlayRef = useRef<HTMLCanvasElement>(null);
  const lastPress = useRef({ time: 0, x: 0, y: 0, count: 0 });

  // biome-ignore lint/correctness/useExhaustiveDependencies: another theme paints in other colours
  useEffect(() => {
    const pane = paneRef.current;
    const canvas = canvasRef.current;
    const overlay = overlayRef.current;
    const context = canvas?.getContext('2d');
    const over = overlay?.getContext('2d');
    if (!pane || !canvas || !context || !overlay || !over) return;
    const colours = penColours(pane);
    let handle = 0;
    const paint = (): void => {
      handle = 0;
      const density = window.devicePixelRatio;
      const ghosts = onion && !editor.clock.playing ? editor.onionSkins() : undefined;
      editor.stage.paint(context, editor.clock.seconds, editor.viewport.view, density, ghosts);
      if (drawing) paintOverlay(over, editor, colours, density);
      pane.dispatchEvent(new CustomEvent('arcshift-view', { detail: editor.viewport.view }));
    };
    // The clock already ticks once a frame; other changes are gathered until the next one.
    const repaint = (): void => {
      if (editor.clock.playing) paint();
      else handle ||= requestAnimationFrame(paint);
    };
    const observer = new ResizeObserver(() => {
      const density = window.devicePixelRatio;
      for (const each of [canvas, overlay]) {
        each.width = Math.max(1, Math.round(pane.clientWidth * density));
        each.height = Math.max(1, Math.round(pane.clientHeight * density));
      }
      editor.viewport.setPane(pane.clientWidth, pane.clientHeight);
      paint();
    });
    observer.observe(pane);
    const stop = editor.onRepaint(repaint);
    const stopClock = editor.clock.onState(repaint);
    editor.pickColourWith((x, y) => {
      const { view } = editor.viewport;
      const density = window.devicePixelRatio;
      const [r, g, b, alpha] = context.getImageData(
        Math.round((view.x + x * view.zoom) * density),
        Math.round((view.y + y * view.zoom) * density),
        1,
        1,
      ).data;
      return alpha > 0 ? hexText({ r: r / 255, g: g / 255, b: b / 255 }) : undefined;
    });
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
      stopClock();
      pane.removeEventListener('wheel', zoom);
    };
  }, [editor, drawing, onion, theme]);

  const place = (event: { clientX: number; clientY: number }): [number, number] => {
    const box = paneRef.current?.getBoundingClientRect();
    return [event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0)];
  };
  const keys = (event: { shiftKey: boolean; altKey: boolean }, clicks = 1) => ({
    shift: event.shiftKey,
    alt: event.altKey,
    clicks,
  });
  const pan = (event: PointerEvent): void => {
    let [x, y] = [event.clientX, event.clientY];
    const controller = new AbortController();
    const { signal } = controller;
    window.addEventListener(
      'pointermove',
      (move) => {
        editor.viewport.moveBy(move.clientX - x, move.clientY - y);
        [x, y] = [move.clientX, move.clientY];
      },
      { signal },
    );
    window.addEventListener('pointerup', () => controller.abort(), { signal });
  };
  const press = (event: PointerEvent): void => {
    if (event.button === 1) {
      event.preventDefault();
      pan(event);
      return;
    }
    if (event.button !== 0 || !piece || !drawing) return;
    const letsGo = isLettingGo();
    // A press on the canvas takes the focus out of fields, so that keys mean the canvas.
    if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
    const [x, y] = place(event);
    const last = lastPress.current;
    const again = event.timeStamp - last.time < DOUBLE_PRESS_MS && Math.hypot(x - last.x, y - last.y) < DOUBLE_PRESS_PX;
    lastPress.current = { time: event.timeStamp, x, y, count: again ? last.count + 1 : 1 };
    editor.drawing.down(x, y, { ...keys(event, lastPress.current.count), letsGo });
    const controller = new AbortController();
    const { signal } = controller;
    // What was dragged or left was no click: the next press does not make it a double one.
    const forget = (): void => void (lastPress.current = { time: 0, x: 0, y: 0, count: 0 });
    window.addEventListener(
      'pointermove',
      (move) => {
        const [mx, my] = place(move);
        if (Math.hypot(mx - x, my - y) >= DOUBLE_PRESS_PX) forget();
        editor.drawing.move(mx, my, keys(move));
      },
      { signal },
    );
    window.addEventListener(
      'pointerup',
      (up) => {
        controller.abort();
        editor.drawing.up(...place(up), keys(up));
      },
      { signal },
    );
    window.addEventListener(
      'pointercancel',
      () => {
        controller.abort();
        editor.drawing.cancel();
      },
      { signal },
    );
    window.addEventListener(
      'keydown',
      (key) => {
        if (key.key !== 'Escape') return;
        key.stopPropagation();
        controller.abort();
        forget();
        editor.drawing.cancel();
      },
      { signal, capture: true },
    );
  };
  const keyed = (event: KeyboardEvent): void => {
    if (event.target !== paneRef.current || !drawing || !editor.drawing.keyPointer.press(event)) return;
    event.preventDefault();
    event.stopPropagation();
  };
  const hover = (event: PointerEvent): void => {
    // Who takes the mouse again does not need the marker of the keys.
    if (event.movementX !== 0 || event.movementY !== 0) editor.drawing.keyPointer.hide();
    if (!drawing || event.buttons !== 0 || !paneRef.current) return;
    paneRef.current.style.cursor = editor.drawing.hover(...place(event), keys(event));
  };
  const dropped = (event: DragEvent): void => {
    event.preventDefault();
    const svg = event.dataTransfer.getData(SHAPE_DRAG_TYPE);
    if (svg) takeSvg(event.dataTransfer.getData('text/x-arcshift-name') || 'Shape', svg);
    else void droppedFiles(event.dataTransfer).then((files) => takeFiles(files));
  };
  const empty = piece?.figureOrder.length === 0;
  return (
    <div
      ref={paneRef}
      className={`canvas-pane ${drawing ? 'drawing' : ''}`}
      role="region"
      aria-label="Canvas"
      aria-describedby={drawing ? 'canvas-keys' : undefined}
      tabIndex={drawing ? 0 : undefined}
      onFocus={({ currentTarget, target }) => {
        if (drawing && target === currentTarget && currentTarget.matches(':focus-visible'))
          editor.drawing.keyPointer.show();
      }}
      onBlur={() => editor.drawing.keyPointer.hide()}
      onKeyDown={keyed}
      onPointerDown={press}
      onPointerMove={hover}
      onDragOver={(event) => event.preventDefault()}
      onDrop={dropped}
    >
      <ReferencePictures paneRef={paneRef} />
      <canvas
        ref={canvasRef}
        className="canvas-picture"
        data-testid="canvas"
        aria-label="The piece at the play position"
        role="img"
      />
      <canvas ref={overlayRef} className="canvas-overlay" data-testid="overlay" />
      {drawing && <Spoken />}
      {over}
      {empty && tool === 'select' && piece.references.length === 0 && whenEmpty}
    </div>
  );
}

/** Does a press leave a field in which something is typed, or close what is open over the room? */
const isLettingGo = (): boolean =>
  document.querySelector('.dropdown-menu.show, .popover.show') !== null ||
  document.activeElement?.matches('textarea, input:not([type="radio"]):not([type="checkbox"]):not([type="range"])') ===
    true;

/** What those hear who do not see the canvas: how the keys work, where their marker is, and what came of a key. */
function Spoken() {
  const said = useAppSelector((state) => state.session.said);
  return (
    <>
      <p id="canvas-keys" className="visually-hidden">
        The arrow keys move the marker by 10 px, with ⇧ by 50, with Ctrl by 1. Enter presses there, ⇧ Enter takes hold
        until Enter lets go. Page Down and Page Up walk what can be taken hold of, Home goes to the middle.
      </p>
      <p role="status" className="visually-hidden" data-testid="said">
        {said}
      </p>
    </>
  );
}
