import type { Easing } from '../easing';
import type { Piece } from '../piece';

/** What a list of pieces shows. */
export interface PieceSummary {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  /** ISO 8601; null where the server knows none. */
  readonly createdAt: string | null;
  readonly updatedAt: string | null;
}

/** What a save tells. */
export interface SavedPiece {
  readonly id: string;
  readonly name: string;
  readonly revision: number;
  readonly updatedAt: string;
}

/** A piece as it is opened. */
export interface LoadedPiece extends PieceSummary {
  readonly piece: Piece;
  /** What looks different since an older version stored it; left out where nothing does. */
  readonly notes?: readonly string[];
}

/** An easing kept for reuse. */
export interface KeptEasing {
  readonly id: string;
  readonly name: string;
  readonly easing: Easing;
}

/** An outline kept for reuse, as the text of an SVG. */
export interface DrawerShape {
  readonly id: string;
  readonly name: string;
  readonly svg: string;
  readonly createdAt: string;
}

/** A file beside pieces: a picture to trace, a font. Its bytes have an address of their own. */
export interface KeptAsset {
  readonly id: string;
  readonly name: string;
  readonly mediaType: string;
}

/** The body of a refusal (RFC 9457). */
export interface Problem {
  readonly code: string;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly where?: string;
  /** Of a save that came too late: what is stored by now. */
  readonly newer?: LoadedPiece;
}
