import type { Piece } from '@core';
import { boardingButton } from './boarding-button';
import { deckCrew } from './deck-crew';
import { deckhand } from './deckhand';
import { fogLoader } from './fog-loader';
import { gate } from './gate';
import { pierLetters } from './pier-letters';
import { quayMark } from './quay-mark';
import { tideGauge } from './tide-gauge';

/** What makes each demo piece, in the order in which they are added: the last is the newest. */
export const DEMO_PIECES: readonly (() => Piece)[] = [
  deckhand,
  fogLoader,
  deckCrew,
  gate,
  tideGauge,
  pierLetters,
  boardingButton,
  quayMark,
];
