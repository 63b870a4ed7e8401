import { EASING_PRESETS, type Easing, ease, easeSlope, easingSegments, LIMITS, within } from '@core';
import { type KeyboardEvent, type PointerEvent, useId, useRef } from 'react';
import { NumberField } from '../../ui';
import { EasingFields } from './EasingFields';
import { EasingRun } from './EasingRun';
import { EasingAside, EasingShelf } from './EasingShelf';
import './easing-editor.scss';

const SIZE = 92;
const ROOM = 28;
const FULL_WIDTH = 248;
const HEIGHT = SIZE + 2 * ROOM;
const PLOT = FULL_WIDTH - 24;

type Curve = Extract<Easing, { kind: 'cubic-bezier' }>;
const asCurve = (easing: Easing): Curve =>
  easing.kind === 'cubic-bezier' ? easing : { kind: 'cubic-bezier', x1: 1 / 3, y1: 1 / 3, x2: 2 / 3, y2: 2 / 3 };
const round = (v: number): number => Math.round(v * 1000) / 1000;
const same = (p: Easing, q: Easing): boolean => p === q || JSON.stringify(p) === JSON.stringify(q);
const toX = (x: number): number => 12 + x * PLOT;
const toY = (y: number): number => ROOM + (1 - y) * SIZE;

function curvePath(easing: Easing): string {
  const p = easingSegments(easing);
  let d = `M${toX(p[0])} ${toY(p[1])}`;
  for (let i = 2; i + 5 < p.length; i += 6)
    d += `C${[0, 2, 4].map((k) => `${toX(p[i + k]).toFixed(2)} ${toY(p[i + k + 1]).toFixed(2)}`).join(' ')}`;
  return d;
}

const SPEED_STEPS = 80;
/** Twice the even speed is half of the plot high. */
const SPEED_SHARE = 0.25;

/** How fast it goes, as a line over time: the even speed lies at a quarter of the plot. */
function speedPath(easing: Easing): string {
  let d = '';
  for (let i = 0; i <= SPEED_STEPS; i++) {
    const speed = Math.max(-4, Math.min(8, easeSlope(easing, i / SPEED_STEPS)));
    d += `${i === 0 ? 'M' : 'L'}${toX(i / SPEED_STEPS).toFixed(1)} ${toY(SPEED_SHARE * speed).toFixed(1)}`;
  }
  return d;
}

/**
 * The easing of a shift as a curve with two handles, presets and numbers. A drag shows itself in the picture and is handed over once, when
 * it ends; Escape puts it back.
 */
export function EasingEditor({
  easing,
  seconds,
  onChange,
}: {
  readonly easing: Easing;
  /** How long the preview runs. */
  readonly seconds: number;
  /** `seconds`: the duration that follows from the easing's own numbers. */
  readonly onChange: (easing: Easing, name: string, seconds?: number) => void;
}) {
  const svgRef = useRef<SVGSVGElement>(null);
  const clip = useId();
  const curve = asCurve(easing);
  const hasHandles = easing.kind === 'cubic-bezier' || easing.kind === 'linear';
  const preset = EASING_PRESETS.find((candidate) => same(candidate.easing, easing));

  const show = (c: Curve): void => {
    const svg = svgRef.current;
    const set = (key: string, attributes: Record<string, number | string>): void => {
      const element = svg?.querySelector(`[data-key="${key}"]`);
      for (const [name, value] of Object.entries(attributes)) element?.setAttribute(name, String(value));
    };
    set('curve', { d: curvePath(c) });
    set('speed', { d: speedPath(c) });
    set('arm-1', { x2: toX(c.x1), y2: toY(c.y1) });
    set('arm-2', { x2: toX(c.x2), y2: toY(c.y2) });
    set('handle-1', { cx: toX(c.x1), cy: toY(c.y1) });
    set('handle-2', { cx: toX(c.x2), cy: toY(c.y2) });
  };

  const drag = (which: 1 | 2) => (event: PointerEvent<SVGCircleElement>) => {
    const svg = svgRef.current;
    if (!svg) return;
    event.preventDefault();
    const handle = event.currentTarget;
    handle.setPointerCapture(event.pointerId);
    handle.focus();
    const box = svg.getBoundingClientRect();
    const k = FULL_WIDTH / box.width;
    let next = curve;
    const controller = new AbortController();
    const end = (kept: boolean): void => {
      controller.abort();
      if (kept && !same(next, curve)) onChange(next, 'Ease');
      else show(curve);
    };
    const options = { signal: controller.signal };
    window.addEventListener(
      'pointermove',
      (move) => {
        const x = Math.min(1, Math.max(0, ((move.clientX - box.left) * k - 12) / PLOT));
        const y = within(LIMITS.handleProgress, 1 - ((move.clientY - box.top) * k - ROOM) / SIZE);
        next = which === 1 ? { ...curve, x1: round(x), y1: round(y) } : { ...curve, x2: round(x), y2: round(y) };
        show(next);
      },
      options,
    );
    window.addEventListener('pointerup', () => end(true), options);
    window.addEventListener('pointercancel', () => end(false), options);
    window.addEventListener('keydown', (key) => key.key === 'Escape' && end(false), options);
  };

  const nudge = (which: 1 | 2) => (event: KeyboardEvent) => {
    const step = event.shiftKey ? 0.1 : 0.01;
    const dx = event.key === 'ArrowRight' ? step : event.key === 'ArrowLeft' ? -step : 0;
    const dy = event.key === 'ArrowUp' ? step : event.key === 'ArrowDown' ? -step : 0;
    if (dx === 0 && dy === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const x = Math.min(1, Math.max(0, (which === 1 ? curve.x1 : curve.x2) + dx));
    const y = (which === 1 ? curve.y1 : curve.y2) + dy;
    onChange(which === 1 ? { ...curve, x1: round(x), y1: round(y) } : { ...curve, x2: round(x), y2: round(y) }, 'Ease');
  };

  const number = (key: 'x1' | 'y1' | 'x2' | 'y2', label: string) => (
    <NumberField
      label={label}
      value={curve[key]}
      step={0.01}
      digits={3}
      limit={key[0] === 'x' ? LIMITS.handleTime : LIMITS.handleProgress}
      onChange={(value) => onChange({ ...curve, [key]: value }, 'Ease')}
    />
  );

  return (
    <div className="easing">
      <svg
        ref={svgRef}
        className="easing-plot"
        viewBox={`0 0 ${FULL_WIDTH} ${HEIGHT}`}
        role="group"
        aria-label={`Easing curve${preset ? `: ${preset.label}` : ''}`}
      >
        <clipPath id={clip}>
          <rect width={FULL_WIDTH} height={HEIGHT} />
        </clipPath>
        <rect className="easing-field" x={toX(0)} y={toY(1)} width={PLOT} height={SIZE} />
        <path
          className="easing-grid"
          d={`M${toX(0.25)} ${toY(0)}v${-SIZE}M${toX(0.5)} ${toY(0)}v${-SIZE}M${toX(0.75)} ${toY(0)}v${-SIZE}`}
        />
        <g clipPath={`url(#${clip})`}>
          <path data-key="speed" className="easing-speed" d={speedPath(easing)} />
          {hasHandles && (
            <>
              <line
                data-key="arm-1"
                className="easing-arm"
                x1={toX(0)}
                y1={toY(0)}
                x2={toX(curve.x1)}
                y2={toY(curve.y1)}
              />
              <line
                data-key="arm-2"
                className="easing-arm"
                x1={toX(1)}
                y1={toY(1)}
                x2={toX(curve.x2)}
                y2={toY(curve.y2)}
              />
            </>
          )}
          <path data-key="curve" className="easing-curve" d={curvePath(easing)} />
        </g>
        <text x={toX(0)} y={HEIGHT - 8} textAnchor="start">
          leaves
        </text>
        <text x={toX(1)} y={HEIGHT - 8} textAnchor="end">
          arrives
        </text>
        <text className="easing-speed-name" x={toX(1)} y={14} textAnchor="end">
          - - speed
        </text>
        {(hasHandles ? ([1, 2] as const) : []).map((which) => (
          <circle
            key={which}
            data-key={`handle-${which}`}
            className="easing-handle"
            r="7"
            cx={toX(which === 1 ? curve.x1 : curve.x2)}
            cy={Math.min(HEIGHT - 7, Math.max(7, toY(which === 1 ? curve.y1 : curve.y2)))}
            tabIndex={0}
            role="slider"
            aria-label={which === 1 ? 'Handle of leaving' : 'Handle of arriving'}
            aria-valuenow={which === 1 ? curve.y1 : curve.y2}
            aria-valuetext={which === 1 ? `${curve.x1}, ${curve.y1}` : `${curve.x2}, ${curve.y2}`}
            onPointerDown={drag(which)}
            onKeyDown={nudge(which)}
          />
        ))}
      </svg>
      <EasingRun easing={easing} seconds={seconds} />
      <EasingAside easing={easing} seconds={seconds} onChange={onChange} />
      <div className="easing-presets" role="group" aria-label="Easing presets">
        {EASING_PRESETS.map((candidate) => (
          <button
            key={candidate.id}
            type="button"
            className={candidate === preset ? 'chosen' : ''}
            aria-pressed={candidate === preset}
            title={candidate.hint}
            onClick={() => onChange(candidate.easing, `Ease: ${candidate.label}`)}
          >
            <svg viewBox="-2 -9 32 40" width="30" height="30" aria-hidden="true">
              <polyline
                points={Array.from(
                  { length: 21 },
                  (_, i) => `${(i / 20) * 28},${24 - 24 * ease(candidate.easing, i / 20)}`,
                ).join(' ')}
              />
            </svg>
            {candidate.label}
          </button>
        ))}
      </div>
      <EasingShelf easing={easing} onChange={onChange} />
      <EasingFields easing={easing} onChange={onChange} />
      {hasHandles && (
        <details className="easing-numbers">
          <summary>Numbers</summary>
          <div className="easing-number-grid">
            {number('x1', 'Leave x')}
            {number('y1', 'Leave y')}
            {number('x2', 'Arrive x')}
            {number('y2', 'Arrive y')}
          </div>
        </details>
      )}
    </div>
  );
}
