import { Check, TriangleAlert, X } from 'lucide-react';

/** How a shift's health is shown everywhere: a mark and a word, as a sentence of its own and within one. */
export const VERDICT = {
  good: { icon: Check, text: 'Healthy', word: 'healthy' },
  look: { icon: TriangleAlert, text: 'Needs a look', word: 'needs a look' },
  broken: { icon: X, text: 'Broken', word: 'broken' },
} as const;
