import { CoreError } from '../../errors';
import { checkPiece } from '../../piece';
import { type AnimatedDocument, readAnimatedDocument } from '../document/animated-document';
import { ReadingBudget } from '../document/budget';
import { FRAMES_BYTE_LIMIT } from '../document/frame-table';
import { readFrameCsv, readFrameJson } from '../document/frames-document';
import { readLottieDocument } from '../document/lottie-document';
import { readCssDrawing } from '../proof/read-css';
import { pieceOfDrawing, type ReadPiece, type ReadPieceOptions } from './piece-of-drawing';

export const MOVING_FILES = ['animated-svg', 'css-svg', 'lottie', 'frames', 'table'] as const;
/** Files that move: SVG animated by itself or by CSS, Lottie, path data by frame as JSON and as a table. */
export type MovingFile = (typeof MOVING_FILES)[number];

/** No reader takes a longer file: tables of frames are the longest. */
export const MOST_FILE_BYTES = FRAMES_BYTE_LIMIT;

/** So much of a text says what it is. */
const HEAD = 4_000;

/** Which file that moves a text is; null for still drawings, piece files and whatever else. Looks at words only: reading may still refuse it. */
export function movingFileOf(text: string): MovingFile | null {
  const head = text.slice(0, HEAD).trimStart();
  if (head.startsWith('{')) {
    if (/"format"\s*:\s*"arcshift-piece"/.test(head)) return null;
    if (/"layers"\s*:\s*\[/.test(text) && /"fr"\s*:/.test(text)) return 'lottie';
    return /"frames"\s*:\s*\[/.test(text) && /"canvas"\s*:\s*\{/.test(head) ? 'frames' : null;
  }
  if (/<svg[\s>]/.test(text)) {
    // What is animated by CSS may hold animations of SVG too.
    if (/@keyframes\s/.test(text)) return 'css-svg';
    return /<(?:\w+:)?(?:animate|animateTransform|animateMotion|set)[\s/>]/.test(text) ? 'animated-svg' : null;
  }
  return /^frame,time,/.test(head) ? 'table' : null;
}

/**
 * Reads a file that moves as a piece that could be stored.
 * @throws CoreError for whatever cannot be read: the codes of the readers, 'piece-invalid' for what no piece can hold, 'svg-no-outline' where nothing is drawn
 */
export function readMovingFile(text: string, options: ReadPieceOptions): ReadPiece {
  const budget = new ReadingBudget();
  const document = documentOf(text, budget);
  const read = refusedByName(document.notes, () => pieceOfDrawing(document, options, budget));
  if (read.piece.figureOrder.length === 0)
    throw new CoreError(
      'svg-no-outline',
      `Expected a file in which some shape is drawn; found none. ${read.notes.join(' ')}`.trim(),
    );
  return { ...read, piece: checkPiece(JSON.parse(JSON.stringify(read.piece))) };
}

/** Says of a file that is refused for its size what would have been missing besides, so that nobody makes it simpler in vain. */
function refusedByName<T>(notes: readonly string[], read: () => T): T {
  try {
    return read();
  } catch (error) {
    if (!(error instanceof CoreError) || error.code !== 'svg-too-complex' || notes.length === 0) throw error;
    throw new CoreError(error.code, `${error.message} Besides, not all of it could be taken: ${notes.join(' ')}`);
  }
}

function documentOf(text: string, budget: ReadingBudget): AnimatedDocument {
  const kind = movingFileOf(text);
  switch (kind) {
    case 'lottie':
      return readLottieDocument(text, budget);
    case 'frames':
      return readFrameJson(text);
    case 'table':
      return readFrameCsv(text);
    case 'css-svg':
      return { root: readCssDrawing(text), notes: [CSS_NOTE] };
    default:
      return readAnimatedDocument(text);
  }
}

const CSS_NOTE = 'Of what is animated by CSS, class rules with keyframes of one property each are taken.';
