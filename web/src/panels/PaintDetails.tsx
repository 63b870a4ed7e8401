import {
  CAPS,
  canClip,
  type Gradient,
  isGradient,
  JOINS,
  LIMITS,
  limitIn,
  type Paint,
  type Part,
  type Stroke,
} from '@core';
import { Plus, Trash2 } from 'lucide-react';
import { useAppStore, useEditor, useTargets } from '../context';
import { changeFigure, changePaint, paintOf, paletteOf, rememberColour, setPaint } from '../editor';
import { drawingActions, remembered, selectPiece, useAppDispatch, useAppSelector } from '../state';
import { Choice, IconButton, NumberField, SelectField } from '../ui';
import { CheckedColour } from './CheckedColour';
import { firstColour, kindOfPaint, newGradient, type PaintKind } from './paint-kinds';

const KINDS: readonly { readonly value: PaintKind; readonly label: string }[] = [
  { value: 'none', label: 'None' },
  { value: 'solid', label: 'Colour' },
  { value: 'linear', label: 'Linear' },
  { value: 'radial', label: 'Radial' },
];

/** Fill, stroke and opacity of what is chosen. */
export function PaintDetails() {
  const store = useAppStore();
  const editor = useEditor();
  const dispatch = useAppDispatch();
  const targets = useTargets();
  const piece = useAppSelector(selectPiece);
  const which = useAppSelector((state) => state.drawing.paints);
  const parts = targets.flatMap((target) => target.targets);
  if (!piece || parts.length === 0) return <p className="details-note">Choose a figure to paint it.</p>;
  const now = (): number => editor.clock.seconds;
  const paint = paintOf(parts, which);
  const stroke = parts.find((part) => part.stroke)?.stroke ?? null;
  const set = (next: Paint | null): void => setPaint(store, now(), which, next);
  const setKind = (kind: PaintKind): void => {
    const colour = firstColour(paint);
    if (kind === 'none') set(null);
    else if (kind === 'solid') set(colour);
    else if (kind !== kindOfPaint(paint)) set(newGradient(kind, isGradient(paint) ? paint : colour, parts));
  };
  const swatches = [...new Set([...paletteOf(piece), ...remembered('recentColours')])].slice(0, 18);
  const { figure } = targets[0];
  return (
    <>
      {/* One part each: what was brought in can be told apart and repainted at once. */}
      {parts.length > 1 && (
        <section aria-label="Colours of the parts">
          <h3>Parts</h3>
          {parts.slice(0, 12).map((part) => (
            <PartColour key={part.id} part={part} />
          ))}
        </section>
      )}
      <Choice
        label="Paint"
        value={which}
        options={[
          { value: 'fill', label: 'Fill' },
          { value: 'stroke', label: 'Stroke' },
        ]}
        onChange={(paints) => dispatch(drawingActions.changed({ paints }))}
      />
      <Choice label="Kind of paint" value={kindOfPaint(paint)} options={KINDS} onChange={setKind} />
      {typeof paint === 'string' && <CheckedColour label="Colour" value={paint} onChange={set} />}
      {isGradient(paint) && <Stops gradient={paint} onChange={set} />}
      <div className="swatches" role="group" aria-label="Colours of the piece and recent ones">
        {swatches.map((colour) => (
          <button
            key={colour}
            type="button"
            title={colour}
            aria-label={`Use ${colour}`}
            style={{ backgroundColor: colour }}
            onClick={() => {
              rememberColour(colour);
              set(colour);
            }}
          />
        ))}
      </div>
      {which === 'stroke' && stroke && <StrokeSettings stroke={stroke} />}
      <h3>Figure</h3>
      <NumberField
        label="Opacity"
        unit="%"
        value={figure.opacity * 100}
        limit={limitIn(LIMITS.share, 100)}
        onChange={(percent) => changeFigure(store, figure.id, `Opacity of ${figure.name}`, { opacity: percent / 100 })}
      />
      <SelectField
        label="Seen inside"
        value={figure.clip ?? ''}
        options={[
          { value: '', label: 'Everywhere' },
          ...piece.figureOrder
            .filter((id) => canClip(piece.figures, figure.id, id))
            .map((id) => ({ value: id, label: piece.figures[id].name })),
        ]}
        onChange={(clip) => changeFigure(store, figure.id, `Clip ${figure.name}`, { clip: clip === '' ? null : clip })}
      />
    </>
  );
}

function PartColour({ part }: { readonly part: Part }) {
  const store = useAppStore();
  const editor = useEditor();
  const paint = part.fill ?? part.stroke?.paint ?? null;
  if (isGradient(paint)) return <p className="details-note">{part.name}: a gradient</p>;
  return (
    <CheckedColour
      label={part.name}
      value={paint ?? '#23201b'}
      onChange={(colour) =>
        changePaint(store, editor.clock.seconds, `Paint ${part.name}`, (draft) => {
          if (draft.id !== part.id) return;
          if (part.fill === null && draft.stroke) draft.stroke.paint = colour;
          else draft.fill = colour;
        })
      }
    />
  );
}

function Stops({ gradient, onChange }: { readonly gradient: Gradient; readonly onChange: (paint: Paint) => void }) {
  const { stops } = gradient;
  const set = (next: Gradient['stops']): void =>
    onChange({ ...gradient, stops: [...next].sort((p, q) => p.at - q.at) } as Gradient);
  const add = (): void => {
    const last = stops[stops.length - 1];
    const before = stops[stops.length - 2] ?? last;
    set([...stops, { at: (last.at + before.at) / 2, colour: last.colour }]);
  };
  return (
    <section aria-label="Gradient">
      <p className="details-note">Drag its ends on the canvas with the Select tool.</p>
      {stops.map((stop, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: stops have no identity beyond their order
        <div key={i} className="gradient-stop">
          <CheckedColour
            label={`Stop ${i + 1}`}
            value={stop.colour}
            onChange={(colour) => set(stops.map((other, k) => (k === i ? { ...other, colour } : other)))}
          />
          <div className="details-pair">
            <NumberField
              label={`Stop ${i + 1} at`}
              unit="%"
              value={stop.at * 100}
              limit={limitIn(LIMITS.share, 100)}
              onChange={(percent) => set(stops.map((other, k) => (k === i ? { ...other, at: percent / 100 } : other)))}
            />
            <IconButton
              icon={Trash2}
              label={`Remove stop ${i + 1}`}
              disabled={stops.length <= 2}
              onClick={() => set(stops.filter((_, k) => k !== i))}
            />
          </div>
        </div>
      ))}
      <div className="details-actions">
        <button type="button" className="btn outlined btn-sm action" onClick={add}>
          <Plus size={14} aria-hidden="true" /> Add a stop
        </button>
      </div>
    </section>
  );
}

function StrokeSettings({ stroke }: { readonly stroke: Stroke }) {
  const store = useAppStore();
  const editor = useEditor();
  const change = (name: string, next: Partial<Stroke>): void =>
    changePaint(store, editor.clock.seconds, name, (part) => {
      if (part.stroke) Object.assign(part.stroke, next);
    });
  const dashes = stroke.dash.map((v) => +v.toFixed(3)).join(' ');
  return (
    <section aria-label="Stroke">
      <NumberField
        label="Width"
        unit="px"
        value={stroke.width}
        limit={LIMITS.strokeWidth}
        step={0.5}
        onChange={(width) => change('Stroke width', { width })}
      />
      <Choice
        label="Ends"
        value={stroke.cap}
        options={CAPS.map((value) => ({ value, label: value }))}
        onChange={(cap) => change('Stroke ends', { cap })}
      />
      <Choice
        label="Joins"
        value={stroke.join}
        options={JOINS.map((value) => ({ value, label: value }))}
        onChange={(join) => change('Stroke joins', { join })}
      />
      <div className="field">
        <label htmlFor="dashes">Dashes</label>
        <input
          id="dashes"
          key={dashes}
          className="form-control"
          defaultValue={dashes}
          placeholder="none, or lengths such as 8 4"
          onKeyDown={(event) => {
            if (event.key === 'Enter') event.currentTarget.blur();
            event.stopPropagation();
          }}
          onBlur={(event) => {
            const lengths = event.target.value
              .split(/[\s,]+/)
              .filter(Boolean)
              .map(Number);
            const sound =
              lengths.length <= 16 &&
              lengths.every((v) => v >= 0 && v <= 1e5) &&
              (lengths.length === 0 || lengths.some((v) => v > 0));
            if (!sound) event.target.value = dashes;
            else if (lengths.join(' ') !== dashes)
              change('Dashes', { dash: lengths.length % 2 === 1 ? [...lengths, ...lengths] : lengths });
          }}
        />
      </div>
    </section>
  );
}
