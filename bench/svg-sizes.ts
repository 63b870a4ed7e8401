import {
  addFigure,
  type CompiledPiece,
  emptyPiece,
  inBetweenOutline,
  insertPoses,
  type NewPose,
  type Outline,
  type Piece,
  type PieceDraft,
  planAndCompile,
  poseFromSvg,
  prepareFrame,
  readPathData,
  readSvg,
  sampleFrame,
  setClosedRail,
  writeAnimatedSvg,
} from '../core/src/index';
import { realIcons } from '../core/src/testing/icons';
import { outlineDistance } from '../core/src/testing/outline-distance';
import { playSmil } from '../core/src/testing/play-smil';

/** Moments of a shift at which the file is held against the engine. */
const MOMENTS = [0.13, 0.31, 0.5, 0.67, 0.88] as const;

/** What the animated SVG of a piece costs and how true it is. */
interface Measured {
  /** Bytes of the whole file. */
  readonly bytes: number;
  /** Keys of the path of each shift. */
  readonly keys: readonly number[];
  /** Frames of each shift at the piece's rate. */
  readonly frames: readonly number[];
  /** Largest distance between the played file and the engine's outlines, px. */
  readonly deviation: number;
}

/** A chain of real icons on a canvas of 640 px, as they are placed when they arrive. */
export function iconChain(svgs: readonly string[], closed: boolean): Piece {
  let n = 0;
  const newId = (prefix: string): string => `${prefix}${++n}`;
  const draft = structuredClone(emptyPiece('chain', 'Chain')) as PieceDraft;
  addFigure(draft, 'f', 'Icon');
  const poses = svgs.map((svg, i): NewPose => poseFromSvg(readSvg(svg), `Icon ${i + 1}`, newId));
  insertPoses(draft, 'f', poses, newId);
  if (closed) setClosedRail(draft, 'f', true, newId);
  return draft as Piece;
}

/** Writes a piece as animated SVG and plays the file by the definition of SMIL. */
export function measureSvg(piece: Piece): Measured {
  const compiled = planAndCompile(piece);
  const text = writeAnimatedSvg(compiled, { title: piece.name });
  const tags = text.match(/<animate attributeName="d"[^>]*>/g) ?? [];
  const keys = tags.map((tag) => / keyTimes="([^"]*)"/.exec(tag)?.[1].split(';').length ?? 0);
  const { spans } = compiled.figures[0];
  const frames = spans.map(({ time }) => Math.ceil((time.end - time.start) * compiled.rate - 1e-6));
  return { bytes: Buffer.byteLength(text), keys, frames, deviation: deviationOf(compiled, tags) };
}

function deviationOf(compiled: CompiledPiece, tags: readonly string[]): number {
  const frame = prepareFrame(compiled);
  const { spans } = compiled.figures[0];
  let worst = 0;
  // One path for each shift: the tags are in the order of the spans.
  if (tags.length !== spans.length || spans.some(({ parts }) => parts.length !== 1)) return Number.NaN;
  spans.forEach(({ time, end }, i) => {
    for (const share of MOMENTS) {
      const seconds = time.start + (end - time.start) * share;
      const [part] = sampleFrame(compiled, seconds, frame).figures[0].parts;
      const wanted = inBetweenOutline(part.lanes.plan, part.points);
      const played = readPathData(playSmil(tags[i], seconds) ?? '');
      const one = (outline: Outline, c: number): Outline => ({ ...outline, contours: [outline.contours[c]] });
      for (let c = 0; c < wanted.contours.length; c++)
        worst = Math.max(worst, outlineDistance(one(played, c), one(wanted, c), 0.01));
    }
  });
  return worst;
}

const quantile = (values: readonly number[], q: number): number =>
  [...values].sort((a, b) => a - b)[Math.floor(q * (values.length - 1))];

/** Prints sizes, keys and deviations of the animated SVG for 50 real pairs and for a chain of eight. */
export function printSvgSizes(): void {
  const icons = realIcons(60, 37);
  const pairs = Array.from({ length: 50 }, (_, i) => measureSvg(iconChain([icons[i].svg, icons[i + 1].svg], false)));
  const bytes = pairs.map((pair) => pair.bytes);
  const keys = pairs.flatMap((pair) => pair.keys);
  const over = pairs.filter((pair) => pair.keys.some((count, i) => count > pair.frames[i] + 1)).length;
  const worst = Math.max(...pairs.map(({ deviation }) => deviation).filter((v) => !Number.isNaN(v)));
  const unmeasured = pairs.filter(({ deviation }) => Number.isNaN(deviation)).length;
  console.log('\nAnimated SVG of 50 real pairs, 640 px');
  console.log(`bytes a shift: median ${quantile(bytes, 0.5)}, 95th percentile ${quantile(bytes, 0.95)}`);
  console.log(
    `keys a shift: median ${quantile(keys, 0.5)} (wanted: at most 12), most ${Math.max(...keys)}; more keys than frames: ${over}`,
  );
  console.log(
    `largest deviation of the played file at 5 moments: ${worst.toFixed(3)} px (wanted: 0.1)${unmeasured > 0 ? `, ${unmeasured} not measured` : ''}`,
  );
  const chain = measureSvg(
    iconChain(
      icons.slice(0, 8).map(({ svg }) => svg),
      true,
    ),
  );
  console.log(
    `a closed chain of eight: ${(chain.bytes / 1024).toFixed(0)} KB (wanted: at most 150), keys ${chain.keys.join(' ')}, deviation ${chain.deviation.toFixed(3)} px`,
  );
}
