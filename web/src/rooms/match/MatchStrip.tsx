import { evaluate, inBetweenPathData, type PoseShiftPlan } from '@core';
import { Pause, Play, TriangleAlert } from 'lucide-react';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type MatchEditing, squareViewBox } from '../../editor';
import { IconButton } from '../../ui';
import { ProgressField } from './ProgressField';

const FRAMES = 9;
/** How long one way takes when the room plays it, s; it comes back as fast. */
const LOOP_SECONDS = 1.4;

/** In-betweens at even progress, and the progress of the one in the middle. */
export function MatchStrip({
  editing,
  plan,
}: {
  readonly editing: MatchEditing;
  readonly plan: PoseShiftPlan | undefined;
}) {
  const range = useRef<HTMLInputElement>(null);
  const [running, setRunning] = useState(false);
  const pictures = useMemo(() => (plan ? stripPictures(plan, editing.isFilled) : undefined), [plan, editing]);
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
      <div className="match-frames">
        {pictures?.frames.map(({ progress, folds, paths }) => (
          <button
            key={progress}
            type="button"
            title={`Show ${Math.round(100 * progress)} %`}
            aria-label={`In-between at ${Math.round(100 * progress)} %${folds ? ', folded' : ''}`}
            onClick={() => go(progress)}
          >
            <svg viewBox={pictures.viewBox} aria-hidden="true">
              {paths.map(({ d, filled, rule }, i) => (
                <path
                  // biome-ignore lint/suspicious/noArrayIndexKey: parts of a plan keep their order
                  key={i}
                  d={d}
                  className={filled ? 'filled' : 'drawn'}
                  fillRule={rule}
                  vectorEffect="non-scaling-stroke"
                />
              ))}
            </svg>
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

function stripPictures(plan: PoseShiftPlan, isFilled: MatchEditing['isFilled']) {
  const viewBox = squareViewBox(plan, 0.08);
  const frames = Array.from({ length: FRAMES }, (_, k) => {
    const progress = k / (FRAMES - 1);
    const near = plan.health.moments.filter((moment) => Math.abs(moment.progress - progress) <= 0.5 / (FRAMES - 1));
    return {
      progress,
      folds: near.some(({ folds }) => folds > 0),
      paths: plan.parts.map((part) => ({
        d: inBetweenPathData(part.plan, evaluate(part.plan, progress), 2),
        filled: isFilled(part),
        rule: part.plan.fillRule,
      })),
    };
  });
  return { viewBox, frames };
}
