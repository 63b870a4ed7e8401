import {
  CanvasTarget,
  compileShift,
  drawFrame,
  type Piece,
  type PoseShiftPlan,
  prepareFrame,
  type Shift,
  sampleFrame,
} from '@core';
import { Pause, Play, TriangleAlert } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { fitPicture, type MatchEditing } from '../../editor';
import { IconButton } from '../../ui';
import { makeCanvas } from '../../workers';
import { ProgressField } from './ProgressField';

const FRAMES = 9;
/** Round the pictures of the strip, px. */
const MARGIN_PX = 4;
/** How long one way takes when the room plays it, s; it comes back as fast. */
const LOOP_SECONDS = 1.4;

/** In-betweens at even progress, and the progress of the one in the middle. */
export function MatchStrip({
  editing,
  piece,
  shift,
  plan,
}: {
  readonly editing: MatchEditing;
  readonly piece: Piece;
  readonly shift: Shift;
  readonly plan: PoseShiftPlan | undefined;
}) {
  const range = useRef<HTMLInputElement>(null);
  const [running, setRunning] = useState(false);
  const strip = useRef<HTMLDivElement>(null);
  const frames = useMemo(() => (plan ? framesOf(plan) : []), [plan]);
  useEffect(() => {
    const box = strip.current;
    if (!box || !plan) return;
    // A plan that was tried last may be of outlines that have changed since: it is painted once it is of these.
    const known = plan.parts.every(
      ({ a, b }) => (a === undefined || piece.parts[a]) && (b === undefined || piece.parts[b]),
    );
    if (!known) return;
    const paint = (): void => paintStrip(box, piece, shift, plan);
    paint();
    const observer = new ResizeObserver(paint);
    observer.observe(box);
    return () => observer.disconnect();
  }, [piece, shift, plan]);
  useEffect(
    () =>
      editing.onPaint(() => {
        if (range.current && range.current !== document.activeElement) range.current.value = String(editing.progress);
      }),
    [editing],
  );
  useEffect(() => {
    if (!running) return;
    let request = 0;
    const begun = performance.now() - editing.progress * LOOP_SECONDS * 1000;
    const step = (now: number): void => {
      const t = ((now - begun) / 1000 / LOOP_SECONDS) % 2;
      editing.setProgress(t <= 1 ? t : 2 - t);
      request = requestAnimationFrame(step);
    };
    request = requestAnimationFrame(step);
    return () => cancelAnimationFrame(request);
  }, [running, editing]);
  const go = (progress: number): void => {
    setRunning(false);
    editing.setProgress(progress);
    if (range.current) range.current.value = String(editing.progress);
  };
  return (
    <section className="match-strip" aria-label="In-betweens">
      <div ref={strip} className="match-frames">
        {frames.map(({ progress, folds }) => (
          <button
            key={progress}
            type="button"
            title={`Show ${Math.round(100 * progress)} %`}
            aria-label={`In-between at ${Math.round(100 * progress)} %${folds ? ', folded' : ''}`}
            onClick={() => go(progress)}
          >
            <canvas />
            {folds && <TriangleAlert className="match-frame-mark" size={14} aria-hidden="true" />}
          </button>
        ))}
      </div>
      <div className="match-progress">
        <IconButton
          icon={running ? Pause : Play}
          label={running ? 'Stop going there and back' : 'Go there and back'}
          onClick={() => setRunning(!running)}
          disabled={!plan}
        />
        <input
          ref={range}
          type="range"
          className="form-range"
          aria-label="Progress of the in-between"
          min={0}
          max={1}
          step={0.005}
          defaultValue={editing.progress}
          onChange={(event) => {
            setRunning(false);
            editing.setProgress(Number(event.target.value));
          }}
        />
        <ProgressField editing={editing} onChange={go} />
      </div>
    </section>
  );
}

const framesOf = ({ health }: PoseShiftPlan): { progress: number; folds: boolean }[] =>
  Array.from({ length: FRAMES }, (_, k) => {
    const progress = k / (FRAMES - 1);
    const near = health.moments.filter((moment) => Math.abs(moment.progress - progress) <= 0.5 / (FRAMES - 1));
    return { progress, folds: near.some(({ folds }) => folds > 0) };
  });

/** Paints the in-betweens in their own paint, each onto its canvas, all at one scale. */
function paintStrip(strip: HTMLElement, piece: Piece, shift: Shift, plan: PoseShiftPlan): void {
  const compiled = compileShift(piece, shift, plan);
  const frame = prepareFrame(compiled);
  const density = Math.min(2, window.devicePixelRatio);
  for (const [k, canvas] of strip.querySelectorAll('canvas').entries()) {
    const { clientWidth: width, clientHeight: height } = canvas;
    const context = canvas.getContext('2d');
    if (!context || width === 0 || height === 0) continue;
    canvas.width = width * density;
    canvas.height = height * density;
    const { scale, dx, dy } = fitPicture(plan, width, height, MARGIN_PX);
    const target = new CanvasTarget(context, makeCanvas);
    target.setView(scale * density, dx * density, dy * density);
    drawFrame(sampleFrame(compiled, k / (FRAMES - 1), frame), target);
  }
}
