import { ALIGN_EDGES, type AlignEdge, LIMITS, limitIn, SET_OFF_ORDERS, type SetOffOrder } from '@core';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignEndHorizontal,
  AlignEndVertical,
  AlignHorizontalSpaceBetween,
  AlignStartHorizontal,
  AlignStartVertical,
  AlignVerticalSpaceBetween,
  FlipHorizontal2,
  FlipVertical2,
  type LucideIcon,
} from 'lucide-react';
import { useState } from 'react';
import { useAppStore, useEditor, useTargets } from '../context';
import {
  alignTargets,
  distributeTargets,
  pivotOf,
  scaleTargets,
  setOffTargets,
  setPivot,
  setTargetsBox,
  targetsBox,
  turnTargets,
} from '../editor';
import { ActionButton, IconButton, NumberField, SelectField } from '../ui';

const EDGES: Record<AlignEdge, { icon: LucideIcon; label: string }> = {
  left: { icon: AlignStartVertical, label: 'Left edges' },
  centre: { icon: AlignCenterVertical, label: 'Middles across' },
  right: { icon: AlignEndVertical, label: 'Right edges' },
  top: { icon: AlignStartHorizontal, label: 'Top edges' },
  middle: { icon: AlignCenterHorizontal, label: 'Middles down' },
  bottom: { icon: AlignEndHorizontal, label: 'Bottom edges' },
};

const ORDERS: Readonly<Record<SetOffOrder, string>> = {
  painting: 'As they are painted',
  across: 'From left to right',
  down: 'From top to bottom',
  seeded: 'Shuffled',
};

/** Where what is chosen stands, how it lies to the rest, and what it turns about. */
export function ArrangeDetails() {
  const store = useAppStore();
  const editor = useEditor();
  const targets = useTargets();
  const [toCanvas, setToCanvas] = useState(false);
  const [turn, setTurn] = useState(45);
  const [scale, setScale] = useState(100);
  const [apart, setApart] = useState(6);
  const [order, setOrder] = useState<SetOffOrder>('painting');
  const box = targetsBox(targets);
  if (!box) return <p className="details-note">Choose figures to arrange them.</p>;
  const now = (): number => editor.clock.seconds;
  const [px, py] = pivotOf(targets, box);
  const single = targets.length === 1;
  const { figure } = targets[0];
  const pivotAt = (at: [number, number] | null): void => setPivot(store, targets[0], at);
  return (
    <>
      <h3>Box</h3>
      <NumberField
        label="Left"
        unit="px"
        digits={2}
        value={box.minX}
        onChange={(x) => setTargetsBox(store, now(), { x })}
      />
      <NumberField
        label="Top"
        unit="px"
        digits={2}
        value={box.minY}
        onChange={(y) => setTargetsBox(store, now(), { y })}
      />
      <NumberField
        label="Width"
        unit="px"
        digits={2}
        limit={LIMITS.boxSide}
        value={box.maxX - box.minX}
        onChange={(width) => setTargetsBox(store, now(), { width })}
      />
      <NumberField
        label="Height"
        unit="px"
        digits={2}
        limit={LIMITS.boxSide}
        value={box.maxY - box.minY}
        onChange={(height) => setTargetsBox(store, now(), { height })}
      />
      <h3>Rotate, scale, mirror</h3>
      <NumberField label="Rotate by" unit="°" value={turn} onChange={setTurn} />
      <NumberField label="Scale by" unit="%" value={scale} limit={limitIn(LIMITS.scaleBy, 100)} onChange={setScale} />
      <div className="details-actions">
        <ActionButton label="Rotate" onClick={() => turnTargets(store, now(), turn)} />
        <ActionButton label="Scale" onClick={() => scaleTargets(store, now(), scale / 100, scale / 100, 'Scale')} />
        <IconButton
          icon={FlipHorizontal2}
          label="Mirror left and right"
          onClick={() => scaleTargets(store, now(), -1, 1, 'Mirror left and right')}
        />
        <IconButton
          icon={FlipVertical2}
          label="Mirror top and bottom"
          onClick={() => scaleTargets(store, now(), 1, -1, 'Mirror top and bottom')}
        />
      </div>
      <h3>Align</h3>
      <div className="details-actions">
        {ALIGN_EDGES.map((edge) => (
          <IconButton
            key={edge}
            icon={EDGES[edge].icon}
            label={EDGES[edge].label}
            onClick={() => alignTargets(store, now(), edge, toCanvas)}
          />
        ))}
      </div>
      <label className="tool-check">
        <input
          type="checkbox"
          className="form-check-input"
          checked={toCanvas || single}
          disabled={single}
          onChange={(event) => setToCanvas(event.target.checked)}
        />
        with the canvas
      </label>
      <div className="details-actions">
        <IconButton
          icon={AlignHorizontalSpaceBetween}
          label="Equal gaps across"
          onClick={() => distributeTargets(store, now(), 'x', false)}
        />
        <IconButton
          icon={AlignVerticalSpaceBetween}
          label="Equal gaps down"
          onClick={() => distributeTargets(store, now(), 'y', false)}
        />
        <ActionButton
          label="Margins across"
          hint="Equal gaps and equal margins"
          onClick={() => distributeTargets(store, now(), 'x', true)}
        />
        <ActionButton
          label="Margins down"
          hint="Equal gaps and equal margins"
          onClick={() => distributeTargets(store, now(), 'y', true)}
        />
      </div>
      {!single && (
        <>
          <h3>One after another</h3>
          <NumberField label="Apart" unit="fr" value={apart} limit={LIMITS.setOff} onChange={setApart} />
          <SelectField
            label="Order"
            value={order}
            options={SET_OFF_ORDERS.map((value) => ({ value, label: ORDERS[value] }))}
            onChange={setOrder}
          />
          <div className="details-actions">
            <ActionButton
              label="Set off"
              hint="Each begins so many frames after the one before"
              onClick={() => setOffTargets(store, targets, order, apart)}
            />
          </div>
        </>
      )}
      {single && (
        <>
          <h3>Pivot</h3>
          <p className="details-note">
            {figure.pivot
              ? 'Set by hand: it goes where the figure goes.'
              : 'The middle of the box, until it is set here or dragged with Alt.'}
          </p>
          <NumberField label="Pivot X" unit="px" digits={2} value={px} onChange={(x) => pivotAt([x, py])} />
          <NumberField label="Pivot Y" unit="px" digits={2} value={py} onChange={(y) => pivotAt([px, y])} />
          {figure.pivot && (
            <div className="details-actions">
              <ActionButton label="Reset the pivot" onClick={() => pivotAt(null)} />
            </div>
          )}
        </>
      )}
    </>
  );
}
