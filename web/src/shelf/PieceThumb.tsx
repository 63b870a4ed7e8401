import { compilePiece, type Piece, type planPoseShift, posterSeconds, Stage, shiftInput } from '@core';
import { useEffect, useRef } from 'react';
import { useEngines } from '../context';
import { makeCanvas, planInPortions } from '../workers';

type ShiftPlan = ReturnType<typeof planPoseShift>;

/** Size that the picture is painted for, CSS px; the card scales it. */
const WIDTH = 306;
const HEIGHT = 198;
/** Ways between poses are found when somebody stays on the shelf: who opens a piece at once is not held up by the others. */
const SETTLED_MS = 500;

/** A piece playing in small; it stands still where the user wants less motion, and while it is out of sight. */
export function PieceThumb({ piece }: { readonly piece: Piece }) {
  const canvasRef = useRef<HTMLCanvasElement>(null);
  const engines = useEngines();
  useEffect(() => {
    const canvas = canvasRef.current;
    const context = canvas?.getContext('2d');
    if (!canvas || !context) return;
    const density = Math.min(2, window.devicePixelRatio);
    canvas.width = WIDTH * density;
    canvas.height = HEIGHT * density;
    const stage = new Stage(makeCanvas);
    const zoom = Math.min(WIDTH / piece.canvas.width, HEIGHT / piece.canvas.height);
    const view = { zoom, x: (WIDTH - piece.canvas.width * zoom) / 2, y: (HEIGHT - piece.canvas.height * zoom) / 2 };
    const still = window.matchMedia('(prefers-reduced-motion: reduce)').matches;
    let handle = 0;
    let visible = false;
    let left = false;
    const draw = (): void =>
      stage.paint(context, still ? posterSeconds(piece) : performance.now() / 1000, view, density);
    const tick = (): void => {
      draw();
      handle = visible && !still ? requestAnimationFrame(tick) : 0;
    };
    const observer = new IntersectionObserver(([entry]) => {
      visible = entry.isIntersecting;
      if (visible && !handle) tick();
    });
    const plans = new Map<string, ShiftPlan>();
    stage.show(compilePiece(piece, (shift) => plans.get(shift.id)));
    observer.observe(canvas);
    const planAll = async (): Promise<void> => {
      for (const shift of Object.values(piece.shifts)) {
        // Whoever has gone on to a piece does not wait for pictures of others.
        if (left) return;
        const planner = engines.planners[plans.size % engines.planners.length];
        plans.set(shift.id, await planInPortions(planner, shiftInput(piece, shift)));
      }
      if (left) return;
      stage.show(compilePiece(piece, (shift) => plans.get(shift.id)));
      if (still) draw();
    };
    // Cancelled, or refused: the poses are shown in place of what lies between them.
    const settled = setTimeout(() => void planAll().catch(() => {}), SETTLED_MS);
    return () => {
      left = true;
      clearTimeout(settled);
      observer.disconnect();
      cancelAnimationFrame(handle);
    };
  }, [piece, engines]);
  // The band beside the canvas takes the piece's own background, so that it does not look boxed in.
  const bandRef = (element: HTMLDivElement | null): void => {
    if (element) element.style.background = piece.canvas.background ?? '';
  };
  return (
    <div className="thumb" ref={bandRef} aria-hidden="true">
      <canvas ref={canvasRef} className="thumb-picture" />
    </div>
  );
}
