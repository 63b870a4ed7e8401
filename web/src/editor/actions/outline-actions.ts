import {
  applyPlacementRules,
  type CombineKind,
  type ContourRecord,
  fillHoles,
  type Id,
  mapPoint,
  type Outline,
  outlineOfPart,
  type Part,
  type Piece,
  type PieceDraft,
  placementScale,
  recordOfContour,
  recordsLike,
  removeFigure,
  removeSpecks,
  separateSolids,
  setOutline,
  transformOutline,
} from '@core';
import { type AppStore, changePiece, drawingActions, sessionActions } from '../../state';
import { EngineCancelled, type EngineClient, freshId } from '../../workers';
import { type EditTarget, editTargets } from '../scene/scene';

/** Does slow work with a word in the status line; what goes wrong is told and changes nothing. */
export async function whileBusy(store: AppStore, text: string, work: () => Promise<void>): Promise<void> {
  store.dispatch(sessionActions.busyChanged({ text, share: null, stoppable: false }));
  try {
    await work();
  } catch (error) {
    if (!(error instanceof EngineCancelled))
      store.dispatch(sessionActions.told({ tone: 'error', text: (error as Error).message }));
  } finally {
    store.dispatch(sessionActions.busyChanged(null));
  }
}

const notice = (store: AppStore, text: string): void =>
  void store.dispatch(sessionActions.told({ tone: 'notice', text }));

/** Was the piece changed while a worker was at it? Then its answer fits no more. */
function isOutdated(store: AppStore, piece: Piece): boolean {
  if (store.getState().document.piece === piece) return false;
  notice(store, 'The piece was changed meanwhile, so nothing was done. Try again.');
  return true;
}

const COMBINE_NAMES: Record<CombineKind, string> = {
  unite: 'Unite',
  subtract: 'Subtract',
  intersect: 'Intersect',
  exclude: 'Exclude',
};

/**
 * Combines the parts that are worked on, the lowest first. Parts of one pose become its lowest part; parts of several figures become the
 * lowest figure's, and the others go, which they can only when they have no other pose.
 */
export async function combineTargets(
  store: AppStore,
  engine: EngineClient,
  kind: CombineKind,
  seconds: number,
): Promise<void> {
  const { piece } = store.getState().document;
  if (!piece) return;
  const targets = [...editTargets(store.getState(), seconds)].sort(
    (p, q) => piece.figureOrder.indexOf(p.figure.id) - piece.figureOrder.indexOf(q.figure.id),
  );
  const all = targets.flatMap((target) => target.targets.map((part) => ({ target, part })));
  if (all.length < 2 && kind !== 'unite') {
    notice(store, `Choose two or more figures or parts to ${COMBINE_NAMES[kind].toLowerCase()}.`);
    return;
  }
  const busy = targets.slice(1).find(({ figure }) => figure.poses.length > 1);
  if (busy) {
    notice(
      store,
      `${busy.figure.name} has ${busy.figure.poses.length} poses and would lose them. Take this pose's parts into one figure first, or choose figures with a single pose.`,
    );
    return;
  }
  const [base] = targets;
  const outlines = all.map(({ target, part }) => transformOutline(outlineOfPart(part), target.matrix));
  await whileBusy(store, `${COMBINE_NAMES[kind]} …`, async () => {
    const { outline, notes } = await engine.combine(kind, outlines);
    if (isOutdated(store, piece)) return;
    if (outline.contours.length === 0) {
      notice(store, 'Nothing would be left: the outlines have no area in common.');
      return;
    }
    const own = transformOutline(outline, base.inverse);
    const into = all[0].part;
    store.dispatch(
      changePiece(COMBINE_NAMES[kind], (draft) => {
        setOutline(draft, into.id, own, freshId);
        if (!into.fill) {
          draft.parts[into.id].fill = (into.stroke?.paint ?? '#23201b') as PieceDraft['parts'][Id]['fill'];
          draft.parts[into.id].stroke = null;
        }
        const gone = new Set(base.targets.slice(1).map(({ id }) => id));
        draft.poses[base.pose.id].parts = draft.poses[base.pose.id].parts.filter((id) => !gone.has(id));
        for (const id of gone) delete draft.parts[id];
        for (const other of targets.slice(1)) {
          const rest = other.parts.filter((part) => !other.targets.includes(part));
          if (rest.length === 0) removeFigure(draft, other.figure.id);
          else {
            draft.poses[other.pose.id].parts = rest.map(({ id }) => id);
            for (const part of other.targets) delete draft.parts[part.id];
          }
        }
        if (targets.length > 1) keepInPlace(draft, base.pose.id);
        else placeMended(draft, targets);
      }),
    );
    store.dispatch(sessionActions.selected({ kind: 'stop', figureId: base.figure.id, stop: base.stop }));
    for (const note of new Set(notes)) notice(store, `${note}.`);
  });
}

/** What was combined of several figures stands where they stood, whatever rule the lowest had. */
function keepInPlace(draft: PieceDraft, poseId: Id): void {
  draft.poses[poseId].placement.rule = null;
}

/** A mended outline is placed anew by its rule, while that lives. */
function placeMended(draft: PieceDraft, targets: readonly EditTarget[]): void {
  for (const { figure } of targets) if (draft.figures[figure.id]) applyPlacementRules(draft, figure.id);
}

/** Changes the outline of every part that is worked on, at once. */
function changeOutlines(store: AppStore, seconds: number, name: string, change: (outline: Outline) => Outline): number {
  const targets = editTargets(store.getState(), seconds);
  let changed = 0;
  store.dispatch(
    changePiece(name, (draft) => {
      for (const target of targets)
        for (const part of target.targets) {
          const before = outlineOfPart(part);
          const after = change(before);
          if (after.contours.length === before.contours.length && after.fillRule === before.fillRule) continue;
          changed++;
          setOutline(draft, part.id, after, freshId);
        }
      placeMended(draft, targets);
    }),
  );
  return changed;
}

export function fillTargetHoles(store: AppStore, seconds: number): void {
  if (changeOutlines(store, seconds, 'Fill holes', fillHoles) === 0) notice(store, 'There are no holes to fill.');
}

export function removeTargetSpecks(store: AppStore, seconds: number): void {
  if (changeOutlines(store, seconds, 'Remove specks', removeSpecks) === 0)
    notice(store, 'There are no specks: every contour covers more than a ten-thousandth of the box.');
}

/** Makes every solid of the parts that are worked on a part of its own. */
export function separateTargets(store: AppStore, seconds: number): void {
  const targets = editTargets(store.getState(), seconds);
  let count = 0;
  store.dispatch(
    changePiece('Separate', (draft) => {
      for (const target of targets)
        for (const part of target.targets) {
          const solids = separateSolids(outlineOfPart(part));
          if (solids.length < 2) continue;
          const ids = solids.map((outline, i): Id => {
            const id = i === 0 ? part.id : freshId('p');
            const contours = outline.contours.map((contour) => {
              const like = part.contours.find(({ anchors }) => anchors[0].id === contour.anchorIds?.[0]);
              return recordOfContour(contour, freshId, like);
            });
            const { source: _source, ...rest } = part;
            draft.parts[id] = {
              ...rest,
              id,
              name: `${part.name} ${i + 1}`.slice(0, 200),
              contours,
            } as PieceDraft['parts'][Id];
            count++;
            return id;
          });
          const list = draft.poses[target.pose.id].parts;
          list.splice(list.indexOf(part.id), 1, ...ids);
        }
    }),
  );
  if (count === 0) notice(store, 'There is one solid only: nothing to separate.');
}

/** Turns the strokes of the parts that are worked on into outlines, over their fills. */
export async function outlineTargetStrokes(store: AppStore, engine: EngineClient, seconds: number): Promise<void> {
  const { piece } = store.getState().document;
  const work = editTargets(store.getState(), seconds).flatMap((target) =>
    target.targets.flatMap((part) =>
      part.stroke && part.stroke.width > 0 ? [{ target, part, stroke: part.stroke }] : [],
    ),
  );
  if (!piece) return;
  if (work.length === 0) {
    notice(store, 'Nothing that is chosen has a stroke.');
    return;
  }
  await whileBusy(store, 'Outlining strokes …', async () => {
    const drawn: ((typeof work)[number] & { readonly area: Outline })[] = [];
    for (const item of work) {
      const area = await engine.strokeOutline(outlineOfPart(item.part), item.stroke);
      if (area.contours.length > 0) drawn.push({ ...item, area });
    }
    if (isOutdated(store, piece)) return;
    if (drawn.length < work.length) notice(store, 'A stroke whose dashes draw nothing was left as it is.');
    if (drawn.length === 0) return;
    store.dispatch(
      changePiece('Outline strokes', (draft) => {
        for (const { target, part, stroke, area } of drawn) {
          const contours = recordsLike([], area.contours, freshId);
          if (!part.fill) {
            const own = draft.parts[part.id];
            own.contours = contours as typeof own.contours;
            own.fillRule = 'nonzero';
            own.fill = stroke.paint as typeof own.fill;
            own.stroke = null;
            delete own.source;
            continue;
          }
          const id = freshId('p');
          draft.parts[id] = {
            id,
            name: `${part.name} stroke`.slice(0, 200),
            contours,
            fillRule: 'nonzero',
            fill: stroke.paint,
            stroke: null,
          } as PieceDraft['parts'][Id];
          draft.parts[part.id].stroke = null;
          const list = draft.poses[target.pose.id].parts;
          list.splice(list.indexOf(part.id) + 1, 0, id);
        }
        placeMended(
          draft,
          drawn.map(({ target }) => target),
        );
      }),
    );
  });
}

/** Takes away as many points as the outlines allow within `tolerance` canvas px; tells what was gained. */
export async function simplifyTargets(
  store: AppStore,
  engine: EngineClient,
  seconds: number,
  tolerance: number,
): Promise<void> {
  const { piece } = store.getState().document;
  if (!piece) return;
  const work = editTargets(store.getState(), seconds).flatMap((target) =>
    target.targets.filter(({ source }) => !source).map((part) => ({ target, part })),
  );
  await whileBusy(store, 'Simplifying …', async () => {
    const results: { outline: Outline; deviation: number }[] = [];
    for (const { target, part } of work) {
      const scale = placementScale(target.pose.placement) || 1;
      results.push(await engine.simplify(outlineOfPart(part), tolerance / scale));
    }
    if (isOutdated(store, piece)) return;
    const count = (contours: readonly { anchors: readonly unknown[] }[]): number =>
      contours.reduce((sum, { anchors }) => sum + anchors.length, 0);
    let before = 0;
    let after = 0;
    let strays = 0;
    store.dispatch(
      changePiece('Simplify', (draft) => {
        work.forEach(({ target, part }, i) => {
          const records = results[i].outline.contours.map((contour, k) =>
            recordOfContour(contour, freshId, part.contours[k]),
          );
          before += count(part.contours);
          after += count(records);
          strays = Math.max(strays, results[i].deviation * (placementScale(target.pose.placement) || 1));
          if (count(records) === count(part.contours)) return;
          draft.parts[part.id].contours = records as PieceDraft['parts'][Id]['contours'];
        });
        placeMended(
          draft,
          work.map(({ target }) => target),
        );
      }),
    );
    notice(
      store,
      after === before
        ? `No point can go: without any of them the outline would stray by more than ${tolerance} px.`
        : `${before} points became ${after}; the outline strays by at most ${strays.toFixed(3)} px.`,
    );
  });
}

/** Cuts all that is worked on along a line of the canvas: each part becomes two where the line crosses it. */
export async function cutTargets(
  store: AppStore,
  engine: EngineClient,
  seconds: number,
  line: readonly [x0: number, y0: number, x1: number, y1: number],
): Promise<void> {
  const { piece } = store.getState().document;
  const targets = editTargets(store.getState(), seconds);
  if (!piece || targets.length === 0) {
    notice(store, 'Choose what to cut first, then drag the line across it.');
    return;
  }
  await whileBusy(store, 'Splitting …', async () => {
    const cuts: { target: EditTarget; part: Part; left: Outline; right: Outline }[] = [];
    for (const target of targets) {
      const [x0, y0] = mapPoint(target.inverse, line[0], line[1]);
      const [x1, y1] = mapPoint(target.inverse, line[2], line[3]);
      for (const part of target.targets)
        cuts.push({ target, part, ...(await engine.cut(outlineOfPart(part), [x0, y0, x1, y1])) });
    }
    if (isOutdated(store, piece)) return;
    const crossed = cuts.filter(({ left, right }) => left.contours.length > 0 && right.contours.length > 0);
    if (crossed.length === 0) {
      notice(store, 'The line crosses nothing that is chosen.');
      return;
    }
    const made: Id[] = [];
    store.dispatch(
      changePiece('Split', (draft) => {
        for (const { target, part, left, right } of crossed) {
          setOutline(draft, part.id, left, freshId);
          const id = freshId('p');
          const { source: _source, ...rest } = part;
          draft.parts[id] = {
            ...rest,
            id,
            name: `${part.name} 2`.slice(0, 200),
            contours: recordsLike([], right.contours, freshId),
            fillRule: right.fillRule,
          } as PieceDraft['parts'][Id];
          const list = draft.poses[target.pose.id].parts;
          list.splice(list.indexOf(part.id) + 1, 0, id);
          made.push(id);
        }
      }),
    );
    store.dispatch(drawingActions.partsChosen(made));
  });
}

/** What is worth telling about outlines: open by a little, without area. One sentence each. */
export function outlineRemarks(parts: readonly { contours: readonly ContourRecord[]; fill: unknown }[]): string[] {
  const out: string[] = [];
  for (const { contours, fill } of parts) {
    for (const { closed, anchors } of contours) {
      if (closed || anchors.length < 3) continue;
      const [a, b] = [anchors[0].at, anchors[anchors.length - 1].at];
      const gap = Math.hypot(a[0] - b[0], a[1] - b[1]);
      const size = extent(anchors.map(({ at }) => at));
      if (gap < 0.03 * size) out.push(`A contour looks closed but is open by ${+gap.toFixed(3)} px.`);
      else if (fill) out.push('A filled contour is open: its fill is closed by a straight line.');
    }
  }
  return [...new Set(out)];
}

function extent(points: readonly (readonly [number, number])[]): number {
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  return Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys));
}
