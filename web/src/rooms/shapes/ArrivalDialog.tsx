import {
  type ArrivalForm,
  type ArrivingFile,
  type Piece,
  type PlacementRule,
  type SvgShape,
  writePathData,
} from '@core';
import { useState } from 'react';
import { Button, Modal } from 'react-bootstrap';
import { PoseImage } from '../../canvas/PoseImage';
import { squareBox } from '../../canvas/pose-picture';
import type { Arrangement, CanvasFit } from '../../editor';
import { RuleFields } from '../../panels';
import type { Arrival } from '../../state';
import { Choice } from '../../ui';

const FORMS: readonly { value: ArrivalForm; label: string; hint: string }[] = [
  { value: 'poses', label: 'Poses', hint: 'Poses of this figure, one after another' },
  { value: 'figures', label: 'Figures', hint: 'One figure per drawing' },
  { value: 'parts', label: 'Parts', hint: 'Parts of one pose' },
  { value: 'united', label: 'One outline', hint: 'One united outline' },
];

const FITS: readonly { value: CanvasFit; label: string }[] = [
  { value: 'keep', label: 'Place by rule' },
  { value: 'scale', label: 'Scale drawing' },
  { value: 'set', label: 'Set canvas' },
];

/** The sizes of the drawings, each with the files that have it. */
function sizesOf(files: readonly ArrivingFile[]): { width: number; height: number; members: number[] }[] {
  const sizes: { width: number; height: number; members: number[] }[] = [];
  files.forEach(({ reading: { width, height } }, i) => {
    const known = sizes.find((size) => size.width === width && size.height === height);
    if (known) known.members.push(i);
    else sizes.push({ width, height, members: [i] });
  });
  return sizes;
}

/** What arrived, as a tree with pictures: what it becomes, how it is placed, and which shapes are wanted. */
export function ArrivalDialog({
  piece,
  arrival,
  last,
  canRearrange,
  onRule,
  onRearrange,
  onClose,
}: {
  readonly piece: Piece;
  readonly arrival: Arrival;
  readonly last: { readonly files: readonly ArrivingFile[]; readonly arrangement: Arrangement } | null;
  readonly canRearrange: boolean;
  readonly onRule: (rule: PlacementRule) => void;
  readonly onRearrange: (arrangement: Arrangement) => void;
  readonly onClose: () => void;
}) {
  const [form, setForm] = useState(arrival.form);
  const [rule, setRule] = useState(arrival.rule);
  const [fits, setFits] = useState<readonly CanvasFit[]>(last?.arrangement.fits ?? []);
  const [left, setLeft] = useState<readonly (readonly number[])[]>(last?.arrangement.left ?? []);
  const sizes = sizesOf(last?.files ?? []).filter(
    ({ width, height }) => width !== piece.canvas.width || height !== piece.canvas.height,
  );
  /** One size sets the canvas at most. */
  const setFit = (members: readonly number[], fit: CanvasFit): void =>
    setFits(
      (last?.files ?? []).map((_, i) => {
        const now = fits[i] ?? 'keep';
        return members.includes(i) ? fit : fit === 'set' && now === 'set' ? 'keep' : now;
      }),
    );
  const byRule = !last || last.files.some((_, i) => (fits[i] ?? 'keep') === 'keep');
  const confirm = (): void => {
    if (canRearrange) onRearrange({ form, rule, fits, left });
    else onRule(rule);
    onClose();
  };
  return (
    <Modal show onHide={onClose} centered size="lg" aria-labelledby="arrival-title">
      <Modal.Header closeButton>
        <Modal.Title id="arrival-title">What arrived</Modal.Title>
      </Modal.Header>
      <Modal.Body className="arrival-dialog">
        <div className="arrival-tree" role="group" aria-label="Shapes of the files">
          {canRearrange && last ? (
            last.files.map((file, i) => (
              <FileTree
                // biome-ignore lint/suspicious/noArrayIndexKey: files of one arrival keep their order
                key={i}
                file={file}
                left={left[i] ?? []}
                onChange={(next) => setLeft(last.files.map((_, k) => (k === i ? next : (left[k] ?? []))))}
              />
            ))
          ) : (
            <p className="details-note">
              The piece was changed since these shapes arrived, so they stay what they became. Undo back to their
              arrival to arrange them anew; how they are placed can be changed any time.
            </p>
          )}
        </div>
        <div className="arrival-choices">
          {canRearrange && <Choice label="Import as" value={form} options={FORMS} onChange={setForm} />}
          {canRearrange &&
            sizes.map(({ width, height, members }) => (
              <Choice
                key={`${width} ${height}`}
                label={`${members.length === 1 ? 'Drawing' : `${members.length} drawings`} ${+width.toFixed(2)} × ${+height.toFixed(2)} px, canvas ${piece.canvas.width} × ${piece.canvas.height}`}
                value={fits[members[0]] ?? 'keep'}
                options={FITS}
                onChange={(fit) => setFit(members, fit)}
              />
            ))}
          {byRule && <RuleFields piece={piece} figureId={arrival.figureId} rule={rule} onChange={setRule} />}
          <p className="details-note">
            The rule goes on when a shape is mended. What you move, rotate or scale lies on top of it.
          </p>
        </div>
      </Modal.Body>
      <Modal.Footer>
        <Button variant="link" className="outlined" onClick={onClose}>
          Leave it as it is
        </Button>
        <Button variant="primary" onClick={confirm}>
          Arrange
        </Button>
      </Modal.Footer>
    </Modal>
  );
}

const SHOWN = 200;

/** A file's shapes under their groups, each with its picture and whether it is wanted. */
function FileTree({
  file,
  left,
  onChange,
}: {
  readonly file: ArrivingFile;
  readonly left: readonly number[];
  readonly onChange: (left: readonly number[]) => void;
}) {
  const { shapes } = file.reading;
  const toggle = (indices: readonly number[], wanted: boolean): void =>
    onChange(wanted ? left.filter((i) => !indices.includes(i)) : [...new Set([...left, ...indices])]);
  return (
    <ul>
      <li>
        <Row
          name={file.name}
          shapes={shapes}
          depth={0}
          wanted={left.length < shapes.length}
          onChange={(on) =>
            toggle(
              shapes.map((_, i) => i),
              on,
            )
          }
        />
      </li>
      {shapes.slice(0, SHOWN).map((shape, i) => {
        const before = shapes[i - 1]?.groups ?? [];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: shapes of a file keep their order
          <li key={i}>
            {shape.groups.map((group, depth) => {
              if (before[depth] === group && before.slice(0, depth).every((g, k) => g === shape.groups[k])) return null;
              const members = shapes.flatMap((other, k) => (other.groups[depth] === group ? [k] : []));
              return (
                <Row
                  key={group}
                  name={group}
                  shapes={members.map((k) => shapes[k])}
                  depth={depth + 1}
                  wanted={members.some((k) => !left.includes(k))}
                  onChange={(on) => toggle(members, on)}
                />
              );
            })}
            <Row
              name={shape.name}
              shapes={[shape]}
              depth={shape.groups.length + 1}
              wanted={!left.includes(i)}
              onChange={(on) => toggle([i], on)}
            />
          </li>
        );
      })}
      {shapes.length > SHOWN && <li className="details-note">and {shapes.length - SHOWN} more shapes</li>}
    </ul>
  );
}

function Row({
  name,
  shapes,
  depth,
  wanted,
  onChange,
}: {
  readonly name: string;
  readonly shapes: readonly SvgShape[];
  readonly depth: number;
  readonly wanted: boolean;
  readonly onChange: (wanted: boolean) => void;
}) {
  const drawn = shapes.slice(0, 60);
  const stroke = Math.max(0, ...drawn.map((shape) => shape.stroke?.width ?? 0));
  const picture = {
    viewBox: squareBox(
      drawn.map(({ outline }) => outline),
      stroke,
    ),
    parts: drawn.map(({ outline, fill, stroke: line }) => ({
      d: writePathData(outline),
      fillRule: outline.fillRule,
      fill,
      stroke: line,
    })),
  };
  return (
    <label className="arrival-row" style={{ paddingLeft: 4 + 16 * depth }}>
      <input
        type="checkbox"
        className="form-check-input"
        checked={wanted}
        onChange={(event) => onChange(event.target.checked)}
      />
      <span className="figure-thumb">
        <PoseImage picture={picture} size={20} />
      </span>
      {name}
    </label>
  );
}
