import { DEFAULT_RULE, insertPoses, type NewPose, type Piece, type Pose, removeStop } from '@core';
import { type AppStore, changePiece, chosenFigure, selectedPose, sessionActions } from '../../state';
import { freshId } from '../../workers/fresh-id';

/** A copy of a pose whose anchors remember the ones that they were copied from. */
function copyOfPose(piece: Piece, pose: Pose): NewPose {
  const parts = pose.parts.map((id) => {
    const part = piece.parts[id];
    return {
      ...part,
      id: freshId('p'),
      contours: part.contours.map((contour) => ({
        ...contour,
        id: freshId('c'),
        anchors: contour.anchors.map((anchor) => ({ ...anchor, id: freshId('a'), origin: anchor.origin ?? anchor.id })),
      })),
    };
  });
  return {
    pose: {
      ...pose,
      id: freshId('q'),
      name: `${pose.name} copy`.slice(0, 200),
      placement: { ...pose.placement },
      parts: parts.map(({ id }) => id),
    },
    parts,
  };
}

/** Puts a copy of the selected pose after it. */
export function duplicateSelectedPose(store: AppStore): void {
  const { document, session } = store.getState();
  const found = document.piece && selectedPose(document.piece, session.selection);
  if (!document.piece || !found) return;
  const copy = copyOfPose(document.piece, found.pose);
  store.dispatch(
    changePiece('Duplicate pose', (draft) => insertPoses(draft, found.figure.id, [copy], freshId, found.stop + 1)),
  );
  store.dispatch(sessionActions.selected({ kind: 'stop', figureId: found.figure.id, stop: found.stop + 1 }));
}

/** Takes the selected pose off the rail. */
export function removeSelectedPose(store: AppStore): void {
  const { document, session } = store.getState();
  const found = document.piece && selectedPose(document.piece, session.selection);
  if (!found) return;
  store.dispatch(sessionActions.selected(null));
  store.dispatch(
    changePiece(`Remove ${found.pose.name}`, (draft) => removeStop(draft, found.figure.id, found.stop, freshId)),
  );
}

/** The figure that arriving poses go to, if there is one yet. */
export const targetFigure = (store: AppStore) => {
  const { document, session } = store.getState();
  return document.piece ? chosenFigure(document.piece, session.selection) : undefined;
};

const RULE_KEY = 'arcshift.placement-rule';

/** The placement rule that was chosen last in this browser. */
export function rememberedRule(): typeof DEFAULT_RULE {
  try {
    const stored = JSON.parse(localStorage.getItem(RULE_KEY) ?? 'null') as Partial<typeof DEFAULT_RULE> | null;
    return { ...DEFAULT_RULE, ...stored };
  } catch {
    return DEFAULT_RULE;
  }
}

export function rememberRule(rule: typeof DEFAULT_RULE): void {
  try {
    localStorage.setItem(RULE_KEY, JSON.stringify(rule));
  } catch {
    // Private windows may refuse storage; the rule then lasts until the page is closed.
  }
}
