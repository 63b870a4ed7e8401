import {
  type AlignEdge,
  alignBoxes,
  applyPlacementRules,
  type Box,
  distributeBoxes,
  duplicateFigures,
  emptyBox,
  IDENTITY,
  type Id,
  includeBox,
  invert,
  type Matrix,
  mapPoint,
  motionMatrix,
  multiply,
  type Part,
  type PieceDraft,
  removeFigure,
  rotation,
  type SetOffOrder,
  scaling,
  setOff,
  transformedPart,
  translation,
} from '@core';
import { type AppStore, changePiece, drawingActions, sessionActions } from '../../state';
import { freshId } from '../../workers';
import { chosenFigures, type EditTarget, editTargets, type ShownPose, shownBox } from '../scene/scene';
import { type ChoosingHow, chosenAfter } from './choosing';
import { freeName } from './draw-actions';
import { type MotionValues, motionAfter, motionValues, placementAfter, writeMotion } from './motion-actions';

/** Are whole figures being edited, or some of their parts? */
export const wholeFigures = (targets: readonly EditTarget[]): boolean =>
  targets.every(({ targets: parts, parts: all }) => parts.length === all.length);

/** The bounding box of what is edited, canvas px. */
export function targetsBox(targets: readonly EditTarget[]): Box | undefined {
  const box = targets.reduce<Box>((all, target) => includeBox(all, shownBox(target, target.targets)), emptyBox());
  return box.minX <= box.maxX ? box : undefined;
}

/** The centre of rotation and scaling: the pivot of a single figure, otherwise the middle of the box. */
export function pivotOf(targets: readonly EditTarget[], box: Box): readonly [number, number] {
  const [{ figure, motion }] = targets;
  const own = targets.length === 1 && wholeFigures(targets) ? figure.pivot : null;
  if (own) return motion ? mapPoint(motionMatrix(motion), own[0], own[1]) : own;
  return [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
}

/** The parts of a target after a transform of the canvas. */
export const partsAfter = (target: EditTarget, matrix: Matrix): Part[] => {
  const own = multiply(target.inverse, multiply(matrix, target.matrix));
  return target.targets.map((part) => transformedPart(part, own));
};

/** Exact numbers of a transform that its matrix cannot tell. */
interface MapOptions {
  /** The rotation in degrees, which may be more than a full turn. */
  readonly turn?: number;
  /** Mirrors the drawing: that is no motion, so it goes into the base placement. */
  readonly mirrors?: boolean;
}

/**
 * Maps all that is worked on, as one step. Whole figures get it as motion at their stop, on top of where their rules put them; parts of a figure are redrawn,
 * which ends the rule.
 */
export function transformTargets(
  store: AppStore,
  targets: readonly EditTarget[],
  name: string,
  matrixOf: (target: EditTarget, index: number) => Matrix,
  { turn, mirrors = false }: MapOptions = {},
): void {
  const whole = wholeFigures(targets);
  store.dispatch(
    changePiece(name, (draft) => {
      targets.forEach((target, i) => {
        const matrix = matrixOf(target, i);
        if (!whole) {
          for (const part of partsAfter(target, matrix)) draft.parts[part.id] = part as PieceDraft['parts'][Id];
          draft.poses[target.pose.id].placement.rule = null;
        } else if (mirrors) mirrorPose(draft, target, matrix);
        else {
          const before = motionValues(target);
          const after = motionAfter(before, matrix);
          writeMotion(draft, target, turn === undefined ? after : { ...after, turn: before.turn + turn });
        }
      });
    }),
  );
}

/** Mirrors the drawing of a pose where it is shown. Its rule goes on, unless it would put what is mirrored about a pivot into its middle again. */
function mirrorPose(draft: PieceDraft, { figure, pose, motion }: EditTarget, matrix: Matrix): void {
  const moved = motion ? motionMatrix(motion) : IDENTITY;
  const back = invert(moved);
  if (!back) return;
  const { rule } = pose.placement;
  draft.poses[pose.id].placement = {
    ...placementAfter(pose.placement, multiply(back, multiply(matrix, moved))),
    rule: figure.pivot ? null : rule,
  } as PieceDraft['poses'][Id]['placement'];
  applyPlacementRules(draft, figure.id);
}

/** Moves everything that is edited by canvas px. */
export function nudgeTargets(store: AppStore, seconds: number, dx: number, dy: number): void {
  const targets = editTargets(store.getState(), seconds);
  if (targets.length > 0) transformTargets(store, targets, 'Nudge', () => translation(dx, dy));
}

/** Rotates everything that is edited about its pivot, degrees clockwise. */
export function turnTargets(store: AppStore, seconds: number, degrees: number): void {
  const targets = editTargets(store.getState(), seconds);
  const box = targetsBox(targets);
  if (!box || degrees === 0) return;
  const [x, y] = pivotOf(targets, box);
  const matrix = multiply(translation(x, y), multiply(rotation((degrees * Math.PI) / 180), translation(-x, -y)));
  transformTargets(store, targets, `Rotate by ${+degrees.toFixed(2)}°`, () => matrix, { turn: degrees });
}

/** Scales everything that is edited about its pivot; negative factors mirror. */
export function scaleTargets(store: AppStore, seconds: number, sx: number, sy: number, name: string): void {
  const targets = editTargets(store.getState(), seconds);
  const box = targetsBox(targets);
  if (!box) return;
  const [x, y] = pivotOf(targets, box);
  const matrix = multiply(translation(x, y), multiply(scaling(sx, sy), translation(-x, -y)));
  transformTargets(store, targets, name, () => matrix, { mirrors: sx * sy < 0 });
}

/** Gives the box of what is edited a new left, top, width or height. */
export function setTargetsBox(
  store: AppStore,
  seconds: number,
  change: { x?: number; y?: number; width?: number; height?: number },
): void {
  const targets = editTargets(store.getState(), seconds);
  const box = targetsBox(targets);
  if (!box) return;
  const [w, h] = [box.maxX - box.minX, box.maxY - box.minY];
  const sx = change.width !== undefined && w > 0 ? change.width / w : 1;
  const sy = change.height !== undefined && h > 0 ? change.height / h : 1;
  const [x, y] = [change.x ?? box.minX, change.y ?? box.minY];
  const matrix = multiply(translation(x, y), multiply(scaling(sx, sy), translation(-box.minX, -box.minY)));
  transformTargets(store, targets, 'Place', () => matrix);
}

const boxesOf = (targets: readonly EditTarget[]): Box[] => targets.flatMap((target) => targetsBox([target]) ?? []);

/** Aligns figures with each other, or a single one (and all with `toCanvas`) with the canvas. */
export function alignTargets(store: AppStore, seconds: number, edge: AlignEdge, toCanvas: boolean): void {
  const { piece } = store.getState().document;
  const units = unitsOf(store, seconds);
  const boxes = boxesOf(units);
  if (!piece || boxes.length === 0 || boxes.length !== units.length) return;
  const canvas = { minX: 0, minY: 0, maxX: piece.canvas.width, maxY: piece.canvas.height };
  const frame =
    toCanvas || boxes.length === 1 ? canvas : boxes.reduce((all, box) => includeBox(all, box), { ...boxes[0] });
  const moves = alignBoxes(boxes, edge, frame);
  transformTargets(store, units, `Align ${edge}`, (_target, i) => translation(...moves[i]));
}

/** Gives figures equal gaps, or with `margins` equal gaps and equal margins to the canvas. */
export function distributeTargets(store: AppStore, seconds: number, axis: 'x' | 'y', margins: boolean): void {
  const { piece } = store.getState().document;
  const units = unitsOf(store, seconds);
  const boxes = boxesOf(units);
  if (!piece || boxes.length !== units.length) return;
  const canvas = { minX: 0, minY: 0, maxX: piece.canvas.width, maxY: piece.canvas.height };
  const moves = distributeBoxes(boxes, axis, margins ? canvas : undefined);
  transformTargets(store, units, margins ? 'Equal margins' : 'Equal gaps', (_target, i) => translation(...moves[i]));
}

/** What gets arranged: figures, or each selected part of one figure by itself. */
function unitsOf(store: AppStore, seconds: number): EditTarget[] {
  const targets = editTargets(store.getState(), seconds);
  if (targets.length !== 1 || wholeFigures(targets)) return targets;
  return targets[0].targets.map((part) => ({ ...targets[0], targets: [part] }));
}

/** Moves figures in the stacking order, by one step or to an end. */
export function restack(store: AppStore, to: 'up' | 'down' | 'top' | 'bottom'): void {
  const chosen = new Set(chosenFigures(store.getState()));
  store.dispatch(
    changePiece('Stacking order', (draft) => {
      const order = draft.figureOrder;
      const moving = order.filter((id) => chosen.has(id));
      const rest = order.filter((id) => !chosen.has(id));
      if (to === 'top') draft.figureOrder = [...rest, ...moving];
      else if (to === 'bottom') draft.figureOrder = [...moving, ...rest];
      else {
        const list = to === 'up' ? [...order].reverse() : [...order];
        for (let i = 1; i < list.length; i++)
          if (chosen.has(list[i]) && !chosen.has(list[i - 1])) [list[i - 1], list[i]] = [list[i], list[i - 1]];
        draft.figureOrder = to === 'up' ? list.reverse() : list;
      }
    }),
  );
}

/** Starts the edited figures one after another, a number of frames apart. */
export function setOffTargets(
  store: AppStore,
  targets: readonly EditTarget[],
  order: SetOffOrder,
  frames: number,
): void {
  const { piece } = store.getState().document;
  if (!piece || targets.length < 2) return;
  const { num, den } = piece.canvas.rate;
  const standing = targets
    .map((target) => {
      const box = shownBox(target);
      return { id: target.figure.id, x: (box.minX + box.maxX) / 2 || 0, y: (box.minY + box.maxY) / 2 || 0 };
    })
    .sort((p, q) => piece.figureOrder.indexOf(p.id) - piece.figureOrder.indexOf(q.id));
  store.dispatch(
    changePiece(`Set off ${targets.length} figures`, (draft) =>
      setOff(draft, standing, order, (frames * den) / num, SEED),
    ),
  );
}
/** The shuffle is seeded, so that it is the same each time. */
const SEED = 7;

/** Changes the flags of a figure, such as hidden or locked. */
export function changeFigure(store: AppStore, id: Id, name: string, change: Partial<PieceDraft['figures'][Id]>): void {
  store.dispatch(changePiece(name, (draft) => void Object.assign(draft.figures[id], change)));
}

/** Removes the selected figures with all their poses. */
export function removeChosenFigures(store: AppStore): void {
  const ids = chosenFigures(store.getState());
  if (ids.length === 0) return;
  const { piece } = store.getState().document;
  const name = ids.length === 1 ? `Remove ${piece?.figures[ids[0]].name}` : `Remove ${ids.length} figures`;
  store.dispatch(sessionActions.selected(null));
  store.dispatch(
    changePiece(name, (draft) => {
      for (const id of ids) removeFigure(draft, id);
    }),
  );
}

/** Copies the chosen figures with all their poses and shifts, and chooses the copies. */
export function duplicateChosenFigures(store: AppStore): void {
  const ids = chosenFigures(store.getState());
  const { piece } = store.getState().document;
  if (!piece || ids.length === 0) return;
  let copies: Id[] = [];
  store.dispatch(
    changePiece(
      ids.length === 1 ? `Duplicate ${piece.figures[ids[0]].name}` : `Duplicate ${ids.length} figures`,
      (draft) => {
        copies = duplicateFigures(draft, ids, freshId);
        const names = Object.values(piece.figures).map(({ name }) => name);
        for (const id of copies) {
          draft.figures[id].name = freeName(names, `${draft.figures[id].name} copy`.slice(0, 190));
          names.push(draft.figures[id].name);
        }
      },
    ),
  );
  if (copies.length === 0 || !store.getState().document.piece?.figures[copies[0]]) return;
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId: copies[0], stop: 0 }));
  store.dispatch(drawingActions.alsoChosen(copies.slice(1)));
}

/** Puts the chosen figures into one group, or takes them out of theirs. */
export function groupChosen(store: AppStore, together: boolean): void {
  const state = store.getState();
  const ids = chosenFigures(state);
  const { piece } = state.document;
  if (!piece || ids.length === 0) return;
  const groupId = freshId('g');
  const name = freeName(
    Object.values(piece.groups).map((group) => group.name),
    'Group',
  );
  store.dispatch(
    changePiece(together ? 'Group' : 'Ungroup', (draft) => {
      if (together) draft.groups[groupId] = { id: groupId, name };
      for (const id of ids) draft.figures[id].group = together ? groupId : null;
      const used = new Set(Object.values(draft.figures).map(({ group }) => group));
      for (const id of Object.keys(draft.groups)) if (!used.has(id)) delete draft.groups[id];
    }),
  );
}

/** Chooses a figure: alone, besides those that are chosen (or takes it off them), or with all that lie between. Members of a group come along. */
export function chooseFigure(store: AppStore, id: Id, stop: number, how: ChoosingHow): void {
  const state = store.getState();
  const { piece } = state.document;
  if (!piece) return;
  const chosen = chosenFigures(state);
  const next = chosenAfter(piece.figureOrder, chosen, id, how);
  // Members of a group come and go together.
  const groupOf = (figure: Id): string | null => piece.figures[figure].group;
  const goes = !next.includes(id);
  const isMeant = (figure: Id): boolean =>
    goes
      ? next.includes(figure) && (groupOf(id) === null || groupOf(figure) !== groupOf(id))
      : next.some((other) => other === figure || (groupOf(other) !== null && groupOf(other) === groupOf(figure)));
  const all = [...new Set([...next, ...piece.figureOrder])].filter(isMeant);
  const [first, ...others] = all;
  if (!first) store.dispatch(sessionActions.selected(null));
  else if (first === chosen[0] && how !== 'alone') store.dispatch(drawingActions.alsoChosen(others));
  else {
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId: first, stop: first === id ? stop : 0 }));
    if (others.length > 0) store.dispatch(drawingActions.alsoChosen(others));
  }
}

/** Turns a pose to an angle in degrees in all, about its pivot. */
export function turnPoseTo(store: AppStore, shown: ShownPose, degrees: number): void {
  const by = degrees - shown.pose.placement.rotation - motionValues(shown).turn;
  mapAboutPivot(store, shown, `Rotate ${shown.pose.name}`, rotation((by * Math.PI) / 180), { turn: by });
}

/** Scales a pose evenly to a factor of its drawing's own size, about its pivot; what is stretched keeps its proportions. */
export function scalePoseTo(store: AppStore, shown: ShownPose, factor: number): void {
  const base = Math.abs(shown.pose.placement.scaleX) || 1;
  const before = motionValues(shown);
  const name = `Scale ${shown.pose.name}`;
  const now = base * Math.abs(before.scale[0]);
  // From nothing, or to it, it comes and goes with equal sides, where its pivot is.
  if (now > 0 && factor > 0) mapAboutPivot(store, shown, name, scaling(factor / now, factor / now));
  else {
    const k = factor / base;
    const after: MotionValues = { ...before, scale: [k, k] };
    store.dispatch(changePiece(name, (draft) => writeMotion(draft, shown, after)));
  }
}

/** Maps a pose about its pivot: the chosen one, or else the middle of its box. */
function mapAboutPivot(store: AppStore, shown: ShownPose, name: string, linear: Matrix, options?: MapOptions): void {
  const target: EditTarget = { ...shown, targets: shown.parts };
  const box = targetsBox([target]);
  if (!box) return;
  const [x, y] = pivotOf([target], box);
  const matrix = multiply(translation(x, y), multiply(linear, translation(-x, -y)));
  transformTargets(store, [target], name, () => matrix, options);
}

/** Chooses all visible, unlocked figures. */
export function chooseAllFigures(store: AppStore): void {
  const { piece } = store.getState().document;
  const ids = piece?.figureOrder.filter((id) => !piece.figures[id].locked && !piece.figures[id].hidden) ?? [];
  if (ids.length === 0) return;
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId: ids[0], stop: 0 }));
  store.dispatch(drawingActions.alsoChosen(ids.slice(1)));
}
