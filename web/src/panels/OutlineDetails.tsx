import {
  COMBINE_KINDS,
  contourArea,
  contourOfRecord,
  LIMITS,
  limitIn,
  type Part,
  type ShapeSource,
  shapeParameter,
  shapeParameters,
  withShapeParameter,
} from '@core';
import { Archive, CircleDashed, Combine, Eraser, FileSymlink, Minus, Spline, Split, Waypoints } from 'lucide-react';
import { useState } from 'react';
import { useAppStore, useEditor, useTargets } from '../context';
import {
  changeShape,
  combineTargets,
  copiedSvg,
  type EditTarget,
  fillTargetHoles,
  outlineRemarks,
  outlineTargetStrokes,
  removeTargetSpecks,
  separateTargets,
  simplifyTargets,
  turnTargetsIntoPoints,
  withShape,
} from '../editor';
import {
  changePiece,
  drawingActions,
  problemText,
  sessionActions,
  useAppDispatch,
  useAppSelector,
  useKeepInDrawerMutation,
} from '../state';
import { ActionButton, NumberField, SelectField } from '../ui';
import { ExchangeDialog } from './ExchangeDialog';
import { PointDetails } from './PointDetails';
import { TextDetails } from './TextDetails';

const COMBINE_LABELS = {
  unite: { label: 'Unite', hint: 'One outline round all of them' },
  subtract: { label: 'Subtract', hint: 'The lowest figure minus those above it' },
  intersect: { label: 'Intersect', hint: 'What they have in common' },
  exclude: { label: 'Exclude', hint: 'Everything but the overlap' },
} as const;

/** What can be done with outlines: parameters while adjustable, text while text, points, and what changes whole outlines. */
export function OutlineDetails() {
  const store = useAppStore();
  const targets = useTargets();
  const tool = useAppSelector((state) => state.drawing.tool);
  const anchors = useAppSelector((state) => state.drawing.anchors.length);
  const parts = targets.flatMap((target) => target.targets);
  const adjustable = parts.length === 1 && parts[0].source && parts[0].source.kind !== 'glyph' ? parts[0] : undefined;
  const holder = targets.find((target) => adjustable && target.targets.includes(adjustable));
  const glyph = parts.find(({ source }) => source?.kind === 'glyph')?.source;
  const textId = glyph?.kind === 'glyph' ? glyph.text : undefined;
  if (parts.length === 0) return <p className="details-note">Choose a figure to work on its outline.</p>;
  return (
    <>
      {adjustable && holder && (
        <ShapeParameters target={holder} part={adjustable} source={adjustable.source as ShapeSource} />
      )}
      {textId && <TextDetails textId={textId} target={targets[0]} />}
      {(tool === 'points' || anchors > 0) && !adjustable && !textId && <PointDetails />}
      <OutlineFacts parts={parts} />
      {parts.some(({ source }) => source) ? (
        <div className="details-actions">
          <ActionButton
            icon={Waypoints}
            label="Make points of it"
            hint="From then on its points are edited, not its parameters or letters"
            onClick={() => void turnTargetsIntoPoints(store, 0)}
          />
        </div>
      ) : (
        tool !== 'points' && <GoToPoints />
      )}
      <WholeOutlines targets={targets} />
    </>
  );
}

function GoToPoints() {
  const dispatch = useAppDispatch();
  return (
    <div className="details-actions">
      <ActionButton
        icon={Spline}
        label="Edit points"
        onClick={() => dispatch(drawingActions.changed({ tool: 'points' }))}
      />
    </div>
  );
}

function ShapeParameters({
  target,
  part,
  source,
}: {
  readonly target: EditTarget;
  readonly part: Part;
  readonly source: ShapeSource;
}) {
  const store = useAppStore();
  const at = { figure: target.figure.id, stop: target.stop, part: part.id };
  return (
    <section aria-label="Shape">
      <h3>{part.name}, adjustable</h3>
      {shapeParameters(source.kind).map(({ key, label, unit, step = 1, whole, ...limit }) => {
        const value = shapeParameter(source, key);
        const percent = unit === '%';
        return (
          <NumberField
            key={key}
            label={label}
            unit={unit}
            value={percent ? value * 100 : value}
            limit={percent ? limitIn(limit, 100) : limit}
            step={percent ? step * 100 : step}
            digits={whole ? 0 : 2}
            onChange={(next) =>
              changeShape(store, at, source, withShapeParameter(source, key, percent ? next / 100 : next))
            }
          />
        );
      })}
    </section>
  );
}

/** Points, contours and direction, always in sight; and what looks unmeant. */
function OutlineFacts({ parts }: { readonly parts: readonly Part[] }) {
  const store = useAppStore();
  const contours = parts.flatMap((part) => part.contours);
  const points = contours.reduce((sum, { anchors }) => sum + anchors.length, 0);
  const remarks = outlineRemarks(parts);
  const rule = parts[0].fillRule;
  return (
    <section aria-label="Facts">
      <p className="details-facts" data-testid="outline-facts">
        {contours.length > 1 && `${points} points in ${contours.length} contours`}
        {contours.length <= 6 &&
          contours.map((contour, i) => (
            <span key={contour.id}>
              {contours.length > 1 && `${i + 1}: `}
              {contour.anchors.length} points, {contour.closed ? 'closed' : 'open'}
              {contour.closed && (contourArea(contourOfRecord(contour)) >= 0 ? ', clockwise' : ', anticlockwise')}
            </span>
          ))}
      </p>
      {remarks.map((remark) => (
        <p key={remark} className="details-remark">
          {remark}
        </p>
      ))}
      {contours.length > 1 && (
        <SelectField
          label="Fill rule"
          value={rule}
          options={[
            { value: 'nonzero', label: 'Nonzero: direction' },
            { value: 'evenodd', label: 'Even-odd: crossing' },
          ]}
          onChange={(fillRule) =>
            store.dispatch(
              changePiece('Fill rule', (draft) => {
                for (const { id } of parts) draft.parts[id].fillRule = fillRule;
              }),
            )
          }
        />
      )}
    </section>
  );
}

function WholeOutlines({ targets }: { readonly targets: readonly EditTarget[] }) {
  const store = useAppStore();
  const editor = useEditor();
  const [tolerance, setTolerance] = useState(0.5);
  const [exchanging, setExchanging] = useState(false);
  const [keep] = useKeepInDrawerMutation();
  const now = (): number => editor.clock.seconds;
  const count = targets.reduce((sum, { targets: parts }) => sum + parts.length, 0);
  const stroked = targets.some(({ targets: parts }) => parts.some(({ stroke }) => stroke));
  const keepShape = (): void => {
    const copied = copiedSvg(store, now());
    if (!copied) return;
    const [part, ...others] = targets[0].targets;
    const { source } = part;
    const svg = others.length === 0 && source && source.kind !== 'glyph' ? withShape(copied.svg, source) : copied.svg;
    keep({ name: others.length === 0 ? part.name : targets[0].pose.name, svg })
      .unwrap()
      .then(
        ({ name }) => store.dispatch(sessionActions.told({ tone: 'notice', text: `${name} is in the drawer.` })),
        (error) => store.dispatch(sessionActions.told({ tone: 'error', text: problemText(error) })),
      );
  };
  return (
    <section aria-label="Whole outlines">
      <h3>Combine</h3>
      <div className="details-actions">
        {COMBINE_KINDS.map((kind) => (
          <ActionButton
            key={kind}
            label={COMBINE_LABELS[kind].label}
            hint={COMBINE_LABELS[kind].hint}
            icon={kind === 'unite' ? Combine : undefined}
            disabled={count < 2 && kind !== 'unite'}
            onClick={() => void combineTargets(store, editor.shapes, kind, now())}
          />
        ))}
      </div>
      <h3>Clean up</h3>
      <div className="details-actions">
        <ActionButton icon={CircleDashed} label="Fill holes" onClick={() => fillTargetHoles(store, now())} />
        <ActionButton
          icon={Eraser}
          label="Remove specks"
          hint="Contours of less than a ten-thousandth of the box"
          onClick={() => removeTargetSpecks(store, now())}
        />
        <ActionButton
          icon={Split}
          label="Separate"
          hint="Every solid a part of its own"
          onClick={() => separateTargets(store, now())}
        />
        <ActionButton
          icon={Minus}
          label="Outline the stroke"
          disabled={!stroked}
          onClick={() => void outlineTargetStrokes(store, editor.shapes, now())}
        />
      </div>
      <NumberField
        label="Simplify within"
        unit="px"
        value={tolerance}
        limit={LIMITS.simplify}
        step={0.1}
        onChange={setTolerance}
      />
      <div className="details-actions">
        <ActionButton
          label="Simplify"
          hint="As few points as possible within that distance"
          onClick={() => void simplifyTargets(store, editor.shapes, now(), tolerance)}
        />
      </div>
      <h3>Versions and reuse</h3>
      <div className="details-actions">
        <ActionButton
          icon={FileSymlink}
          label="Exchange …"
          hint="Put a new version of the file in this pose's place; what was set is carried over"
          disabled={targets.length !== 1}
          onClick={() => setExchanging(true)}
        />
        <ActionButton icon={Archive} label="Keep in the drawer" onClick={keepShape} />
      </div>
      {exchanging && <ExchangeDialog poseId={targets[0].pose.id} onClose={() => setExchanging(false)} />}
    </section>
  );
}
