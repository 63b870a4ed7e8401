import {
  type Anchor,
  type AnchorKind,
  type AnchorRef,
  addAnchors,
  anchorCount,
  applyPlacementRules,
  type Contour,
  type ContourRecord,
  type CornerShape,
  changeContour,
  closeContour,
  contourOfRecord,
  cutAt,
  deleteAnchor,
  type Id,
  joinContours,
  mapPoint,
  movedAnchor,
  openAt,
  type PieceDraft,
  recordOfContour,
  reverseContour,
  segmentCount,
  shapeCorner,
  startAt,
  withKind,
  withoutHandles,
} from '@core';
import { type AppStore, changePiece, drawingActions, sessionActions } from '../../state';
import { freshId } from '../../workers';
import { type PlacedAnchor, placedAnchors } from '../hit/hit-anchors';
import { editTargets } from '../scene/scene';

const chosenOf = new WeakMap<AppStore, { key: readonly unknown[]; anchors: PlacedAnchor[] }>();

/** The chosen anchors with where they stand, in the order of their contours; worked out once until something changes. */
export function chosenAnchors(store: AppStore, seconds: number): PlacedAnchor[] {
  const { document, session, drawing } = store.getState();
  const key = [document.piece, session.selection, drawing.anchors, seconds];
  const known = chosenOf.get(store);
  if (known && key.every((value, i) => value === known.key[i])) return known.anchors;
  const anchors = findChosenAnchors(store, seconds);
  chosenOf.set(store, { key, anchors });
  return anchors;
}

function findChosenAnchors(store: AppStore, seconds: number): PlacedAnchor[] {
  const state = store.getState();
  const wanted = new Set(state.drawing.anchors.map(({ anchor }) => anchor));
  if (wanted.size === 0) return [];
  const { piece } = state.document;
  if (!piece) return [];
  // Anchors may belong to figures beside the chosen ones: points that lie on each other are picked together.
  const parts = new Set(state.drawing.anchors.map(({ part }) => part));
  const figures = piece.figureOrder.filter((id) =>
    piece.figures[id].poses.some((pose) => piece.poses[pose].parts.some((part) => parts.has(part))),
  );
  const all = { ...state, drawing: { ...state.drawing, also: figures, parts: [...parts] } };
  return placedAnchors(editTargets(all, seconds)).filter(({ ref }) => wanted.has(ref.anchor));
}

/** Groups anchors by contour. */
function byContour(anchors: readonly PlacedAnchor[]): Map<Id, PlacedAnchor[]> {
  const out = new Map<Id, PlacedAnchor[]>();
  for (const placed of anchors) {
    const list = out.get(placed.ref.contour);
    if (list) list.push(placed);
    else out.set(placed.ref.contour, [placed]);
  }
  return out;
}

const tell = (store: AppStore, text: string): void =>
  void store.dispatch(sessionActions.told({ tone: 'notice', text }));

/** Writes changed anchors into a draft. */
export function writeAnchors(
  draft: PieceDraft,
  contourOf: { part: Id; contour: Id },
  changes: readonly [number, Anchor][],
): void {
  const contour = draft.parts[contourOf.part]?.contours.find(({ id }) => id === contourOf.contour);
  if (!contour) return;
  for (const [i, anchor] of changes) contour.anchors[i] = anchor as (typeof contour.anchors)[number];
}

/** Poses whose points were put somewhere by hand stay where they are: a living rule would move what was just placed. */
export function standByHand(draft: PieceDraft, poseIds: Iterable<Id>): void {
  for (const id of poseIds) if (draft.poses[id]) draft.poses[id].placement.rule = null;
}

/** Poses whose outline was mended are placed anew by their rule, while it lives. */
function placeMended(draft: PieceDraft, anchors: readonly PlacedAnchor[]): void {
  for (const id of new Set(anchors.map(({ target }) => target?.figure.id)))
    if (id && draft.figures[id]) applyPlacementRules(draft, id);
}

/** Moves the chosen anchors by canvas px. */
export function moveChosenAnchors(
  store: AppStore,
  seconds: number,
  dx: number,
  dy: number,
  name = 'Move points',
): void {
  const anchors = chosenAnchors(store, seconds);
  if (anchors.length === 0 || (dx === 0 && dy === 0)) return;
  store.dispatch(
    changePiece(name, (draft) => {
      for (const placed of anchors) {
        const { inverse } = placed.target;
        const [ox, oy] = mapPoint(inverse, placed.x, placed.y);
        const [nx, ny] = mapPoint(inverse, placed.x + dx, placed.y + dy);
        writeAnchors(draft, placed.ref, [[placed.index, movedAnchor(placed.anchor, nx - ox, ny - oy)]]);
      }
      standByHand(
        draft,
        anchors.map(({ target }) => target.pose.id),
      );
    }),
  );
}

/** Puts the chosen anchors onto one line, or evenly spaced along an axis. */
export function alignAnchors(store: AppStore, seconds: number, how: 'x' | 'y' | 'spread-x' | 'spread-y'): void {
  const anchors = chosenAnchors(store, seconds);
  if (anchors.length < 2) return;
  const axis = how.endsWith('x') ? 'x' : 'y';
  const sorted = [...anchors].sort((p, q) => p[axis] - q[axis]);
  const [low, high] = [sorted[0][axis], sorted[sorted.length - 1][axis]];
  const mean = anchors.reduce((sum, placed) => sum + placed[axis], 0) / anchors.length;
  store.dispatch(
    changePiece('Align points', (draft) => {
      sorted.forEach((placed, i) => {
        const to = how.startsWith('spread') ? low + ((high - low) * i) / (sorted.length - 1) : mean;
        const { inverse } = placed.target;
        const [ox, oy] = mapPoint(inverse, placed.x, placed.y);
        const [nx, ny] = mapPoint(inverse, axis === 'x' ? to : placed.x, axis === 'y' ? to : placed.y);
        writeAnchors(draft, placed.ref, [[placed.index, movedAnchor(placed.anchor, nx - ox, ny - oy)]]);
      });
      standByHand(
        draft,
        anchors.map(({ target }) => target.pose.id),
      );
    }),
  );
}

/** Adds a point on an outline, which does not change by it, and chooses it. */
export function addPoint(store: AppStore, ref: { part: Id; contour: Id }, piece: number, t: number): void {
  const id = freshId('a');
  store.dispatch(
    changePiece('Add a point', (draft) =>
      changeContour(
        draft,
        ref.part,
        ref.contour,
        (contour) => addAnchors(contour, [{ segment: piece, t }], () => id),
        freshId,
      ),
    ),
  );
  store.dispatch(drawingActions.anchorsChosen([{ ...ref, anchor: id }]));
}

/** Takes the chosen points away; what is left is fitted to the outline as it was. Contours that would be too short go. */
export function deleteChosenAnchors(store: AppStore, seconds: number): void {
  const anchors = chosenAnchors(store, seconds);
  if (anchors.length === 0) return;
  let deviation = 0;
  let scale = 1;
  const gone = new Set<Id>();
  store.dispatch(
    changePiece(anchors.length === 1 ? 'Delete a point' : `Delete ${anchors.length} points`, (draft) => {
      for (const [contourId, list] of byContour(anchors)) {
        scale = Math.hypot(list[0].target.matrix[0], list[0].target.matrix[1]);
        changeContour(
          draft,
          list[0].ref.part,
          contourId,
          (contour) => {
            let now: Contour | undefined = contour;
            for (const { ref } of list) {
              const i = now?.anchorIds?.indexOf(ref.anchor) ?? -1;
              if (!now || i < 0) continue;
              const next = deleteAnchor(now, i);
              deviation = Math.max(deviation, next?.deviation ?? 0);
              now = next?.contour;
            }
            return now;
          },
          freshId,
        );
      }
      // A part without contours goes, but a pose keeps its last part.
      for (const { ref, target } of anchors) {
        const pose = draft.poses[target.pose.id];
        if (draft.parts[ref.part]?.contours.length === 0 && pose.parts.length > 1) {
          pose.parts = pose.parts.filter((id) => id !== ref.part);
          delete draft.parts[ref.part];
          gone.add(ref.part);
        }
      }
      placeMended(draft, anchors);
    }),
  );
  store.dispatch(drawingActions.anchorsChosen([]));
  if (deviation * scale > 0.01)
    tell(store, `The outline now strays by up to ${(deviation * scale).toFixed(2)} px from where it was.`);
}

/** Makes the chosen anchors corners, smooth or symmetric, or takes their handles away. */
export function setAnchorKind(store: AppStore, seconds: number, kind: AnchorKind | 'bare'): void {
  const anchors = chosenAnchors(store, seconds);
  store.dispatch(
    changePiece(kind === 'bare' ? 'Take handles away' : `Make ${kind}`, (draft) => {
      for (const { ref, anchor, index, contour } of anchors) {
        const n = contour.anchors.length;
        const before = contour.closed || index > 0 ? contour.anchors[(index + n - 1) % n].at : undefined;
        const after = contour.closed || index < n - 1 ? contour.anchors[(index + 1) % n].at : undefined;
        const next = kind === 'bare' ? withoutHandles(anchor) : withKind(anchor, kind, before, after);
        writeAnchors(draft, ref, [[index, next]]);
      }
      placeMended(draft, anchors);
    }),
  );
}

/** Rounds or chamfers the chosen corners by canvas px. Tells when none of them is a corner. */
export function shapeChosenCorners(store: AppStore, seconds: number, radius: number, shape: CornerShape): void {
  const anchors = chosenAnchors(store, seconds);
  let done = 0;
  const kept: AnchorRef[] = [];
  store.dispatch(
    changePiece(shape === 'round' ? 'Round corners' : 'Chamfer corners', (draft) => {
      for (const [contourId, list] of byContour(anchors)) {
        const scale = Math.hypot(list[0].target.matrix[0], list[0].target.matrix[1]) || 1;
        const neighbours = list.length > 1 ? 0.5 : 1;
        changeContour(
          draft,
          list[0].ref.part,
          contourId,
          (contour) => {
            let now = contour;
            for (const { ref } of list) {
              const i = now.anchorIds?.indexOf(ref.anchor) ?? -1;
              const next =
                i < 0 ? undefined : shapeCorner(now, i, radius / scale, shape, () => freshId('a'), neighbours);
              if (!next) continue;
              done++;
              kept.push(ref);
              now = next;
            }
            return now;
          },
          freshId,
        );
      }
      placeMended(draft, anchors);
    }),
  );
  if (done === 0) tell(store, 'None of the chosen points is a corner: there is nothing to round.');
  store.dispatch(drawingActions.anchorsChosen(kept));
}

/** Changes every contour that holds a chosen anchor, or all contours worked on when none is chosen. */
export function changeContours(
  store: AppStore,
  seconds: number,
  name: string,
  change: (contour: Contour, chosen: readonly number[]) => Contour | readonly Contour[] | undefined,
): void {
  const anchors = chosenAnchors(store, seconds);
  const groups = byContour(anchors);
  if (groups.size === 0) {
    for (const target of editTargets(store.getState(), seconds))
      for (const part of target.targets) {
        if (part.source) continue;
        for (const contour of part.contours)
          groups.set(contour.id, [{ ref: { part: part.id, contour: contour.id, anchor: '' } } as PlacedAnchor]);
      }
  }
  store.dispatch(
    changePiece(name, (draft) => {
      for (const [contourId, list] of groups) {
        const chosen = list.flatMap(({ ref, index }) => (ref.anchor ? [index] : []));
        changeContour(draft, list[0].ref.part, contourId, (contour) => change(contour, chosen), freshId);
      }
    }),
  );
}

export const reverseContours = (store: AppStore, seconds: number): void =>
  changeContours(store, seconds, 'Reverse direction', reverseContour);
export const setStart = (store: AppStore, seconds: number): void =>
  changeContours(store, seconds, 'Set the start point', (contour, [first]) =>
    first === undefined ? contour : startAt(contour, first),
  );
export const closeContours = (store: AppStore, seconds: number): void =>
  changeContours(store, seconds, 'Close', (contour) => closeContour(contour, mergeReach(contour)));
export const cutContours = (store: AppStore, seconds: number): void =>
  changeContours(store, seconds, 'Split at points', (contour, chosen) => {
    if (chosen.length === 0) return contour;
    const id = (): Id => freshId('a');
    const opened = contour.closed ? openAt(contour, chosen[0], id) : contour;
    const at = contour.closed
      ? chosen.slice(1).map((i) => (i - chosen[0] + anchorCount(contour)) % anchorCount(contour))
      : [...chosen];
    const runs: Contour[] = [];
    let rest = opened;
    let done = 0;
    for (const i of at.sort((p, q) => p - q)) {
      const cut = cutAt(rest, i - done, id);
      if (!cut) continue;
      done += segmentCount(cut[0]);
      runs.push(cut[0]);
      rest = cut[1];
    }
    return [...runs, rest];
  });

/** Ends nearer than this share of the contour's length are one point when they meet. */
const MERGE_SHARE = 0.01;
function mergeReach({ points }: Contour): number {
  let length = 0;
  for (let i = 6; i < points.length; i += 6)
    length += Math.hypot(points[i] - points[i - 6], points[i + 1] - points[i - 5]);
  return MERGE_SHARE * length;
}

/** Joins two open contours of one part at the two chosen ends, or closes one contour at both of its ends. */
export function joinEnds(store: AppStore, seconds: number): void {
  const ends = chosenAnchors(store, seconds).filter(
    ({ contour, index }) => !contour.closed && (index === 0 || index === contour.anchors.length - 1),
  );
  const [p, q] = ends;
  if (ends.length !== 2 || p.ref.part !== q.ref.part) {
    tell(store, 'Choose two ends of open contours in the same part; they are then joined.');
    return;
  }
  if (p.ref.contour === q.ref.contour) {
    closeContours(store, seconds);
    return;
  }
  const side = (placed: PlacedAnchor): 'start' | 'end' => (placed.index === 0 ? 'start' : 'end');
  store.dispatch(
    changePiece('Join ends', (draft) => {
      const part = draft.parts[p.ref.part];
      const records = part.contours as ContourRecord[];
      const a = records.find(({ id }) => id === p.ref.contour) as ContourRecord;
      const b = records.find(({ id }) => id === q.ref.contour) as ContourRecord;
      const joined = joinContours(
        contourOfRecord(a),
        side(p),
        contourOfRecord(b),
        side(q),
        mergeReach(contourOfRecord(a)),
      );
      part.contours = records
        .filter(({ id }) => id !== b.id)
        .map((record) => (record.id === a.id ? recordOfContour(joined, freshId, a) : record)) as typeof part.contours;
      delete part.source;
    }),
  );
  store.dispatch(drawingActions.anchorsChosen([]));
}

/** Chooses the anchor after or before the chosen one along its contour, or the first of all. */
export function walkAnchors(store: AppStore, seconds: number, step: 1 | -1): void {
  const [first] = chosenAnchors(store, seconds);
  if (first) {
    const { anchors } = first.contour;
    const next = anchors[(first.index + step + anchors.length) % anchors.length];
    store.dispatch(drawingActions.anchorsChosen([{ ...first.ref, anchor: next.id }]));
    return;
  }
  const [start] = placedAnchors(editTargets(store.getState(), seconds));
  if (start) store.dispatch(drawingActions.anchorsChosen([start.ref]));
}

/** Chooses all anchors of the contours of which one is chosen, or of all that is worked on. */
export function chooseWholeContours(store: AppStore, seconds: number): void {
  const state = store.getState();
  const wanted = new Set(state.drawing.anchors.map(({ contour }) => contour));
  const all = placedAnchors(editTargets(state, seconds));
  const refs = all.filter(({ ref }) => wanted.size === 0 || wanted.has(ref.contour)).map(({ ref }) => ref);
  store.dispatch(drawingActions.anchorsChosen(refs));
}
