import {
  CanvasTarget,
  type Context2D,
  drawPart,
  type MakeCanvas,
  type Outline,
  type Part,
  type Placement,
  placedParts,
  stillParts,
} from '@core';
import { squareOf } from './pose-picture';

/** Contours from which on a picture is painted: elements of a page take some 0.1 ms each to lay out and to paint, again with each change. */
const MANY_CONTOURS = 300;
/** Width and height of a painted picture, px; where it is shown the browser makes it smaller. */
const SIZE = 256;
/** What a painting may take of each step of the page, ms. */
const STEP_MS = 8;
/** Parts put on the picture between two looks at the clock. */
const PARTS_AT_ONCE = 20;

/** What the page lends: pictures off the page, a step later on, a clock (ms), and the picture as an address that `<image>` takes. */
export interface PaintingDeps {
  readonly makeCanvas: MakeCanvas;
  readonly later: () => Promise<void>;
  readonly now: () => number;
  readonly address: (context: Context2D) => Promise<string>;
}

/** Have the parts of a pose so many contours that its picture is better painted than put together of elements? */
export function isLarge(parts: readonly Part[]): boolean {
  let count = 0;
  for (let i = 0; i < parts.length && count <= MANY_CONTOURS; i++) count += parts[i].contours.length;
  return count > MANY_CONTOURS;
}

interface Painting {
  readonly parts: readonly Part[];
  readonly placement: Placement;
  /** How many places wait for it; nobody left: it is given up. */
  wanted: number;
  done: Promise<string | undefined>;
}

/**
 * Pictures of poses of thousands of contours, painted one after another in short steps and kept as long as their parts are. What nobody waits for any more is
 * not painted to its end.
 */
export class PaintedPoses {
  private readonly kept = new WeakMap<Part, Painting>();
  private queue: Promise<unknown> = Promise.resolve();

  constructor(private readonly deps: PaintingDeps) {}

  /** The address of a pose's picture once it is painted, undefined if it was given up; and how to stop waiting. */
  of(
    parts: readonly Part[],
    placement: Placement,
  ): { readonly done: Promise<string | undefined>; readonly leave: () => void } {
    let painting = this.kept.get(parts[0]);
    if (!painting || !isOf(painting, parts, placement)) {
      painting = this.begin(parts, placement);
      this.kept.set(parts[0], painting);
    }
    painting.wanted++;
    const wanted = painting;
    return { done: painting.done, leave: () => void wanted.wanted-- };
  }

  private begin(parts: readonly Part[], placement: Placement): Painting {
    const painting: Painting = { parts, placement, wanted: 0, done: Promise.resolve(undefined) };
    painting.done = this.queue.then(async () => {
      await this.deps.later();
      const address = await this.paint(painting);
      // Given up: who asks again gets a new one.
      if (address === undefined && this.kept.get(parts[0]) === painting) this.kept.delete(parts[0]);
      return address;
    });
    this.queue = painting.done.catch(() => undefined);
    return painting;
  }

  private async paint(painting: Painting): Promise<string | undefined> {
    const { parts, placement } = painting;
    const context = this.deps.makeCanvas(SIZE, SIZE);
    if (!context) return undefined;
    const outlines: Outline[] = [];
    await this.inSteps(painting, (part) => {
      outlines.push(placedParts({ placement, parts: [part] })[0].outline);
    });
    if (painting.wanted <= 0) return undefined;
    const scale = Math.max(Math.abs(placement.scaleX), Math.abs(placement.scaleY));
    const { x, y, size } = squareOf(outlines, scale * Math.max(0, ...parts.map(({ stroke }) => stroke?.width ?? 0)));
    const target = new CanvasTarget(context, this.deps.makeCanvas);
    target.setView(SIZE / size, (-x * SIZE) / size, (-y * SIZE) / size);
    await this.inSteps(painting, (part) => {
      drawPart(stillParts(placement, [part])[0], target);
    });
    return painting.wanted > 0 ? this.deps.address(context) : undefined;
  }

  /** Does something for each part, in steps, until nobody wants it any more. */
  private async inSteps(painting: Painting, work: (part: Part) => void): Promise<void> {
    const { now, later } = this.deps;
    let started = now();
    for (let i = 0; i < painting.parts.length && painting.wanted > 0; i++) {
      work(painting.parts[i]);
      if (i % PARTS_AT_ONCE > 0 || now() - started < STEP_MS) continue;
      await later();
      started = now();
    }
  }
}

const isOf = (painting: Painting, parts: readonly Part[], placement: Placement): boolean =>
  painting.placement === placement &&
  painting.parts.length === parts.length &&
  painting.parts.every((part, i) => part === parts[i]);
