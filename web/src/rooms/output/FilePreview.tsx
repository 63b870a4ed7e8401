import { type FormId, isCalmPicture, type Piece } from '@core';
import { useEffect, useRef } from 'react';
import { useEditor } from '../../context';

/** The piece itself as the bead has it, painted by the program's own stage. */
export function PiecePicture({ piece }: { readonly piece: Piece }) {
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const editor = useEditor();
  useEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    const density = Math.min(2, window.devicePixelRatio);
    let view: { readonly zoom: number; readonly x: number; readonly y: number } | null = null;
    const paint = (): void => {
      if (view) editor.stage.paint(context, editor.clock.seconds, view, density);
    };
    // Measured when its size changes, not for each picture.
    const fit = ([{ contentRect }]: readonly ResizeObserverEntry[]): void => {
      const { width, height } = contentRect;
      Object.assign(canvas, { width: Math.round(width * density), height: Math.round(height * density) });
      const zoom = Math.min(width / piece.canvas.width, height / piece.canvas.height);
      const x = (width - piece.canvas.width * zoom) / 2;
      const y = (height - piece.canvas.height * zoom) / 2;
      view = zoom > 0 ? { zoom, x, y } : null;
      paint();
    };
    const stops = [editor.clock.onMove(paint), editor.plans.subscribe(() => requestAnimationFrame(paint))];
    const observer = new ResizeObserver(fit);
    observer.observe(canvas);
    return () => {
      for (const stop of stops) stop();
      observer.disconnect();
    };
  }, [piece, editor]);
  return <canvas ref={canvasRef} className="output-canvas" aria-label={`${piece.name}, as the bead has it`} />;
}

/** A file as a browser shows it: what can be sought is in step with the bead, what cannot plays by itself. */
export function FilePicture({
  form,
  url,
  blob,
  name,
}: {
  readonly form: FormId;
  readonly url: string;
  readonly blob: Blob;
  readonly name: string;
}) {
  if (form === 'animated-svg' && blob.type === 'image/svg+xml') return <SteppedSvg blob={blob} name={name} />;
  if (blob.type.startsWith('image/')) return <img src={url} alt={`${name}, playing`} />;
  if (blob.type.startsWith('video/')) return <SteppedVideo url={url} name={name} />;
  if (blob.type === 'application/zip')
    return <p className="soft">A ZIP of several files. Download it to look into it.</p>;
  return <TextStart blob={blob} />;
}

function SteppedSvg({ blob, name }: { readonly blob: Blob; readonly name: string }) {
  const place = useRef<HTMLDivElement>(null);
  const { clock } = useEditor();
  useEffect(() => {
    let left = false;
    let svg: SVGSVGElement | null = null;
    const seek = (seconds: number): void => svg?.setCurrentTime(seconds);
    void blob.text().then((text) => {
      if (left || !place.current) return;
      // Its style sheet is for where it stands alone: here it is to move.
      const moving = text.replace(/<style>[^<]*<\/style>/g, '');
      const parsed = new DOMParser().parseFromString(moving, 'image/svg+xml').documentElement;
      for (const group of parsed.querySelectorAll('g[class]'))
        if (isCalmPicture({ attributes: { class: group.getAttribute('class') ?? '' } })) group.remove();
      svg = document.importNode(parsed, true) as unknown as SVGSVGElement;
      place.current.replaceChildren(svg);
      svg.pauseAnimations();
      // Its own clock begins with the next picture of the display, and would begin at 0.
      requestAnimationFrame(() => requestAnimationFrame(() => seek(clock.seconds)));
    });
    const stop = clock.onMove(seek);
    return () => {
      left = true;
      stop();
    };
  }, [blob, clock]);
  return (
    <div
      ref={place}
      className="output-svg"
      role="img"
      aria-label={`${name}, in step with the bead`}
      data-testid="file-svg"
    />
  );
}

function SteppedVideo({ url, name }: { readonly url: string; readonly name: string }) {
  const video = useRef<HTMLVideoElement>(null);
  const { clock } = useEditor();
  useEffect(() => {
    const seek = (seconds: number): void => {
      // While one place is being looked for, another would only delay it.
      if (video.current && !video.current.seeking) video.current.currentTime = seconds;
    };
    seek(clock.seconds);
    return clock.onMove(seek);
  }, [clock]);
  return <video ref={video} src={url} muted playsInline aria-label={`${name}, in step with the bead`} />;
}

/** How much of a text is shown, characters. */
const SHOWN = 4000;

function TextStart({ blob }: { readonly blob: Blob }) {
  const place = useRef<HTMLPreElement>(null);
  useEffect(() => {
    let left = false;
    void blob
      .slice(0, SHOWN)
      .text()
      .then((text) => {
        if (!left && place.current) place.current.textContent = text + (blob.size > SHOWN ? '\n…' : '');
      });
    return () => {
      left = true;
    };
  }, [blob]);
  return (
    <section className="output-text" aria-label="The beginning of the file">
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls must take the keyboard */}
      <pre ref={place} className="numbers" tabIndex={0} />
    </section>
  );
}
