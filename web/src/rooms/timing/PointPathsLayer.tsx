import {
  type CompiledPiece,
  compilePiece,
  type Figure,
  type Id,
  mapPoint,
  outlineOfPart,
  type Piece,
  placementMatrix,
  pointPaths,
  railTimeline,
} from '@core';
import { useEffect, useLayoutEffect, useMemo, useRef, useState } from 'react';
import { useEditor } from '../../context';
import { chosenFigure, selectSelection, useAppSelector } from '../../state';

/** Followed at once of a shift, and shifts whose points are followed. */
const MOST_POINTS = 24;
const MOST_SHIFTS = 12;

/** Where points of the chosen figure go, a dot a frame: those that are chosen, else some of all its outlines; in the chosen shift, else in all. */
export function PointPathsLayer({ piece }: { readonly piece: Piece }) {
  const shown = useAppSelector((state) => state.drawing.pointPaths);
  const selection = useAppSelector(selectSelection);
  const figure = chosenFigure(piece, selection);
  if (!shown || !figure) return null;
  return (
    <PointPaths piece={piece} figure={figure} shiftId={selection?.kind === 'shift' ? selection.shiftId : undefined} />
  );
}

function PointPaths({
  piece,
  figure,
  shiftId,
}: {
  readonly piece: Piece;
  readonly figure: Figure;
  readonly shiftId: Id | undefined;
}) {
  const editor = useEditor();
  const anchors = useAppSelector((state) => state.drawing.anchors);
  const group = useRef<SVGGElement>(null);
  // Plans come later than the piece.
  const [plans, setPlans] = useState(0);
  useEffect(() => editor.plans.subscribe(() => setPlans((count) => count + 1)), [editor]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: other plans give other paths
  const { lines, dots } = useMemo(() => {
    const compiled = compilePiece(piece, editor.plans.planOf);
    return pathData(piece, figure, compiled, shiftId, new Set(anchors.map(({ anchor }) => anchor)));
  }, [piece, figure, shiftId, anchors, editor, plans]);
  useLayoutEffect(() => {
    const place = (): void => {
      const { x, y, zoom } = editor.viewport.view;
      group.current?.setAttribute('transform', `translate(${x} ${y}) scale(${zoom})`);
    };
    place();
    return editor.viewport.onChange(place);
  });
  return (
    <svg className="point-paths" role="img" aria-label="Paths of points" data-testid="point-paths">
      <g ref={group}>
        <path className="point-halo" d={lines} />
        <path className="point-line" d={lines} />
        <path className="point-dots" d={dots} />
      </g>
    </svg>
  );
}

/** Lines along the ways of points, and a dot for each frame. */
function pathData(
  piece: Piece,
  figure: Figure,
  compiled: CompiledPiece,
  shiftId: Id | undefined,
  chosen: ReadonlySet<Id>,
): { lines: string; dots: string } {
  let [lines, dots] = ['', ''];
  const n = (value: number): string => value.toFixed(2);
  for (const { shift, start, end } of railTimeline(piece, figure).spans.slice(0, MOST_SHIFTS)) {
    if (shiftId !== undefined && shift.id !== shiftId) continue;
    const [from, to] = [shift.from, shift.to].map((pose) => placesOf(piece, pose, chosen));
    const near = from.length > 0 ? { at: 'from' as const, places: from } : { at: 'until' as const, places: to };
    if (chosen.size > 0 && near.places.length === 0) continue;
    const followed = chosen.size > 0 ? { near, most: MOST_POINTS } : { most: MOST_POINTS };
    for (const p of pointPaths(compiled, figure.id, [start, end], followed).points) {
      for (let i = 0; i < p.length; i += 2) {
        lines += `${i === 0 ? 'M' : 'L'}${n(p[i])} ${n(p[i + 1])}`;
        dots += `M${n(p[i])} ${n(p[i + 1])}h0`;
      }
    }
  }
  return { lines, dots };
}

/** Where chosen points of a pose stand, px of the canvas, before the figure moves. */
function placesOf({ poses, parts }: Piece, poseId: Id, chosen: ReadonlySet<Id>): (readonly [number, number])[] {
  const { placement, parts: ids } = poses[poseId];
  const matrix = placementMatrix(placement);
  return ids.flatMap((id) =>
    outlineOfPart(parts[id]).contours.flatMap(({ points, anchorIds = [] }) =>
      anchorIds.flatMap((anchor, k) =>
        chosen.has(anchor) ? [mapPoint(matrix, points[6 * k], points[6 * k + 1])] : [],
      ),
    ),
  );
}
