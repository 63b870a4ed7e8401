import { kindOf, LIMITS } from '@core';
import {
  AlignCenterHorizontal,
  AlignCenterVertical,
  AlignHorizontalSpaceAround,
  AlignVerticalSpaceAround,
  ArrowLeft,
  ArrowRight,
} from 'lucide-react';
import { useState } from 'react';
import { useAppStore, useEditor, useTargets } from '../context';
import {
  addPoint,
  alignAnchors,
  chooseWholeContours,
  chosenAnchors,
  closeContours,
  cutContours,
  deleteChosenAnchors,
  joinEnds,
  moveChosenAnchors,
  reverseContours,
  setAnchorKind,
  setStart,
  shapeChosenCorners,
  walkAnchors,
} from '../editor';
import { useAppSelector } from '../state';
import { ActionButton, Choice, IconButton, NumberField } from '../ui';

const KINDS = [
  { value: 'corner', label: 'Corner', hint: 'Handles are free of each other' },
  { value: 'smooth', label: 'Smooth', hint: 'Handles stay on one line' },
  { value: 'symmetric', label: 'Symmetric', hint: 'Handles on one line and equally long' },
] as const;

/** The chosen points: where they are, what they are, and what can be done with them and their contours. */
export function PointDetails() {
  const store = useAppStore();
  const editor = useEditor();
  useTargets();
  useAppSelector((state) => state.drawing.anchors);
  const [radius, setRadius] = useState(12);
  const now = (): number => editor.clock.seconds;
  const chosen = chosenAnchors(store, now());
  const [first] = chosen;
  const kinds = new Set(chosen.map(({ anchor }) => kindOf(anchor)));
  const figures = new Set(chosen.map(({ target }) => target.figure.id)).size;
  const addAfter = (): void => first && addPoint(store, first.ref, first.index % first.contour.anchors.length, 0.5);
  return (
    <section aria-label="Points">
      <div className="details-pair">
        <h3 className="details-grow">
          {chosen.length === 0
            ? 'No point chosen'
            : chosen.length === 1
              ? `Point ${first.index + 1} of ${first.contour.anchors.length}`
              : `${chosen.length} points${figures > 1 ? ` of ${figures} figures` : ''}`}
        </h3>
        <IconButton icon={ArrowLeft} label="Point before" onClick={() => walkAnchors(store, now(), -1)} />
        <IconButton icon={ArrowRight} label="Next point" onClick={() => walkAnchors(store, now(), 1)} />
      </div>
      {chosen.length === 0 ? (
        <p className="details-note">
          Click a point, drag a box round several, or walk along with the arrows above. Alt and a click chooses all
          points up to there.
        </p>
      ) : (
        <>
          <NumberField
            label="Point X"
            unit="px"
            digits={3}
            value={first.x}
            onChange={(x) => moveChosenAnchors(store, now(), x - first.x, 0)}
          />
          <NumberField
            label="Point Y"
            unit="px"
            digits={3}
            value={first.y}
            onChange={(y) => moveChosenAnchors(store, now(), 0, y - first.y)}
          />
          <Choice
            label="Kind"
            value={kinds.size === 1 ? [...kinds][0] : ('' as 'corner')}
            options={KINDS}
            onChange={(kind) => setAnchorKind(store, now(), kind)}
          />
          <NumberField label="Corner size" unit="px" value={radius} limit={LIMITS.corner} onChange={setRadius} />
          <div className="details-actions">
            <ActionButton
              label="Round"
              hint="An arc of this radius"
              onClick={() => shapeChosenCorners(store, now(), radius, 'round')}
            />
            <ActionButton
              label="Chamfer"
              hint="A straight cut, this far along both sides"
              onClick={() => shapeChosenCorners(store, now(), radius, 'chamfer')}
            />
            <ActionButton
              label="No handles"
              hint="Straight on both sides"
              onClick={() => setAnchorKind(store, now(), 'bare')}
            />
            <ActionButton
              label="Add after"
              hint="Another point half-way to the next; the outline does not change"
              onClick={addAfter}
            />
            <ActionButton
              label="Delete"
              hint="What is left is fitted to the outline"
              onClick={() => deleteChosenAnchors(store, now())}
            />
          </div>
          {chosen.length > 1 && (
            <div className="details-actions">
              <IconButton
                icon={AlignCenterVertical}
                label="Align in a column"
                onClick={() => alignAnchors(store, now(), 'x')}
              />
              <IconButton
                icon={AlignCenterHorizontal}
                label="Align in a row"
                onClick={() => alignAnchors(store, now(), 'y')}
              />
              <IconButton
                icon={AlignHorizontalSpaceAround}
                label="Space out across"
                onClick={() => alignAnchors(store, now(), 'spread-x')}
              />
              <IconButton
                icon={AlignVerticalSpaceAround}
                label="Space out down"
                onClick={() => alignAnchors(store, now(), 'spread-y')}
              />
            </div>
          )}
        </>
      )}
      <h3>Contour</h3>
      <div className="details-actions">
        <ActionButton label="Choose all its points" onClick={() => chooseWholeContours(store, now())} />
        <ActionButton label="Start here" disabled={chosen.length === 0} onClick={() => setStart(store, now())} />
        <ActionButton label="Reverse" hint="Run it the other way round" onClick={() => reverseContours(store, now())} />
        <ActionButton
          label="Split here"
          disabled={chosen.length === 0}
          hint="Open it, or divide it"
          onClick={() => cutContours(store, now())}
        />
        <ActionButton label="Close" onClick={() => closeContours(store, now())} />
        <ActionButton label="Join ends" disabled={chosen.length !== 2} onClick={() => joinEnds(store, now())} />
      </div>
    </section>
  );
}
