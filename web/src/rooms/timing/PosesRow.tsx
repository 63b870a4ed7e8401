import { type Figure, type Piece, railTimeline } from '@core';
import { useRef } from 'react';
import { useEditor } from '../../context';
import { easingCurve } from '../../rail';
import { dragStart } from './lane-gestures';

/** Height of the row of a figure's poses, CSS px. */
const POSES_HEIGHT = 28;
const [HIGH, LOW] = [7, 20];

/** A figure's poses in time: a level block for each hold, an edge for each shift that is its easing. Dragging a block starts the figure earlier or later. */
export function PosesRow({
  piece,
  figure,
  width,
  x,
}: {
  readonly piece: Piece;
  readonly figure: Figure;
  readonly width: number;
  readonly x: (seconds: number) => number;
}) {
  const editor = useEditor();
  const svgRef = useRef<SVGSVGElement>(null);
  const { stops, spans } = railTimeline(piece, figure);
  const level = (i: number): number => (i % 2 === 0 ? LOW : HIGH);
  return (
    <svg ref={svgRef} className="lane-poses" width={width} height={POSES_HEIGHT} aria-hidden="true">
      <g>
        {spans.map(({ shift, start, end }, i) => (
          <path key={shift.id} d={easingCurve(shift.easing, x(start), x(end), level(i), level(i + 1))} />
        ))}
        {stops.map(({ poseId, start, hold }, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: a pose may stand at several stops
          <g key={i}>
            <rect
              onPointerDown={(event) => {
                if (event.button !== 0 || !svgRef.current) return;
                event.stopPropagation();
                dragStart(editor, svgRef.current, event, figure.id);
              }}
              x={x(start)}
              y={level(i) - 4}
              width={Math.max(2, x(start + hold) - x(start))}
              height="8"
              rx="3"
            />
            {x(start + hold) - x(start) > 34 && (
              <text x={x(start) + 5} y={level(i) + (level(i) === LOW ? -6 : 13)}>
                {piece.poses[poseId].name.slice(0, 24)}
              </text>
            )}
          </g>
        ))}
      </g>
    </svg>
  );
}
