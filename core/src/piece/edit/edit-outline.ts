import type { Draft } from 'immer';
import type { Contour, Outline } from '../../outline';
import { transformPaint } from '../../paint';
import { adjustableContours, type ShapeSource, transformShape } from '../../shapes';
import type { SetGlyph } from '../../text';
import type { Matrix } from '../../vec';
import type { ContourRecord, Id, Part, TextRecord } from '../records';
import { contourOfRecord, type IdSource, recordOfContour } from '../records';
import { dropUnusedTexts, type PieceDraft } from './edit';

/** Changes to the outlines of a piece, as recipes that write into a draft. */

/**
 * Replaces a contour by what `change` makes of it: one, several, or none (undefined or an empty list). Anchors that stay keep ids and kinds.
 * A part that was adjustable consists of points afterwards.
 */
export function changeContour(
  draft: PieceDraft,
  partId: Id,
  contourId: Id,
  change: (contour: Contour) => Contour | readonly Contour[] | undefined,
  newId: IdSource,
): void {
  const part = draft.parts[partId];
  const k = part?.contours.findIndex(({ id }) => id === contourId) ?? -1;
  if (k < 0) return;
  const record = part.contours[k] as ContourRecord;
  const made = change(contourOfRecord(record));
  const list = made === undefined ? [] : Array.isArray(made) ? made : [made as Contour];
  const records = list.map((contour, i) => {
    const next = recordOfContour(contour, newId, record);
    return i === 0 ? next : { ...next, id: newId('c') };
  });
  part.contours.splice(k, 1, ...(records as Draft<ContourRecord>[]));
  delete part.source;
}

/** Gives a part another outline; ids are kept where contours and anchors are as many as before, or carried by the outline itself. */
export function setOutline(draft: PieceDraft, partId: Id, outline: Outline, newId: IdSource): void {
  const part = draft.parts[partId];
  part.contours = recordsLike(
    part.contours as readonly ContourRecord[],
    outline.contours,
    newId,
  ) as Draft<ContourRecord>[];
  part.fillRule = outline.fillRule;
  delete part.source;
}

/** Contours as records; without ids of their own they take those of `old` in their order, so that what refers to them keeps its hold. */
export function recordsLike(
  old: readonly ContourRecord[],
  contours: readonly Contour[],
  newId: IdSource,
): ContourRecord[] {
  return contours.map((contour, i) => {
    const like = old[i];
    if (contour.anchorIds || !like) return recordOfContour(contour, newId, like);
    const count = contour.closed ? (contour.points.length / 2 - 1) / 3 : (contour.points.length / 2 - 1) / 3 + 1;
    const anchorIds = Array.from({ length: count }, (_, k) => like.anchors[k]?.id ?? '');
    const originIds = like.anchors.some(({ origin }) => origin)
      ? Array.from({ length: count }, (_, k) => like.anchors[k]?.origin)
      : undefined;
    return recordOfContour({ ...contour, anchorIds, originIds }, newId, like);
  });
}

/** Changes the parameters of an adjustable part; a shape without extent has no contours. */
export function setShape(draft: PieceDraft, partId: Id, source: ShapeSource, newId: IdSource): void {
  const part = draft.parts[partId];
  part.contours = recordsLike(
    part.contours as readonly ContourRecord[],
    adjustableContours(source),
    newId,
  ) as Draft<ContourRecord>[];
  part.source = source as Draft<ShapeSource>;
}

/** A part made from an adjustable shape. */
export function shapePart(
  source: ShapeSource,
  name: string,
  paint: Pick<Part, 'fill' | 'stroke'>,
  newId: IdSource,
): Part {
  return {
    id: newId('p'),
    name,
    contours: recordsLike([], adjustableContours(source), newId),
    fillRule: 'nonzero',
    ...paint,
    source,
  };
}

/** Adjustable parts consist of points from now on. */
export function turnIntoPoints(draft: PieceDraft, partIds: readonly Id[]): void {
  for (const id of partIds) delete draft.parts[id]?.source;
  dropUnusedTexts(draft);
}

/**
 * Sets a text of a pose: its glyphs are the pose's parts, one each, named after their letters. Parts of letters that stay keep ids and
 * paint; new ones take the paint of the first, or `paint`.
 */
export function setText(
  draft: PieceDraft,
  poseId: Id,
  text: TextRecord,
  glyphs: readonly SetGlyph[],
  paint: Pick<Part, 'fill' | 'stroke'>,
  newId: IdSource,
): void {
  const pose = draft.poses[poseId];
  const isGlyph = (id: Id): boolean => {
    const { source } = draft.parts[id];
    return source?.kind === 'glyph' && source.text === text.id;
  };
  const old = pose.parts.filter(isGlyph);
  const place = pose.parts.findIndex(isGlyph);
  const others = pose.parts.filter((id) => !isGlyph(id));
  const like = old[0] ? draft.parts[old[0]] : undefined;
  const ids = glyphs.map((glyph, i) => {
    const before = old[i] ? (draft.parts[old[i]] as Part) : undefined;
    const part: Part = {
      fill: (like?.fill as Part['fill']) ?? (like ? null : paint.fill),
      stroke: (like?.stroke as Part['stroke']) ?? (like ? null : paint.stroke),
      ...before,
      id: before?.id ?? newId('p'),
      name: glyph.character,
      contours: recordsLike(before?.contours ?? [], glyph.outline.contours, newId),
      fillRule: glyph.outline.fillRule,
      source: { kind: 'glyph', text: text.id, index: glyph.index },
    };
    draft.parts[part.id] = part as Draft<Part>;
    return part.id;
  });
  for (const id of old.slice(glyphs.length)) delete draft.parts[id];
  others.splice(place < 0 ? others.length : place, 0, ...ids);
  pose.parts = others;
  draft.texts[text.id] = { ...text };
}

/**
 * A part mapped by `matrix` in its pose's own coordinates: outline, paint and, by the mean scale, its stroke. It stays adjustable where its
 * shape can follow; a glyph becomes points.
 */
export function transformedPart(part: Part, matrix: Matrix): Part {
  const [a, b, c, d, e, f] = matrix;
  const map = (p: readonly [number, number]): readonly [number, number] => [
    a * p[0] + c * p[1] + e,
    b * p[0] + d * p[1] + f,
  ];
  const scale = Math.sqrt(Math.abs(a * d - b * c));
  const { source, ...rest } = part;
  const shape = source && source.kind !== 'glyph' ? transformShape(source, matrix) : undefined;
  const contours = shape
    ? recordsLike(part.contours, adjustableContours(shape), () => '')
    : part.contours.map((contour) => ({
        ...contour,
        anchors: contour.anchors.map((anchor) => ({
          ...anchor,
          at: map(anchor.at),
          ...(anchor.in && { in: map(anchor.in) }),
          ...(anchor.out && { out: map(anchor.out) }),
        })),
      }));
  const stroke = part.stroke && {
    ...part.stroke,
    paint: transformPaint(part.stroke.paint, matrix),
    width: part.stroke.width * scale,
    dash: part.stroke.dash.map((v) => v * scale),
    dashOffset: part.stroke.dashOffset * scale,
  };
  return { ...rest, contours, fill: transformPaint(part.fill, matrix), stroke, ...(shape && { source: shape }) };
}
