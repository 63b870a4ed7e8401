import type { Box } from '../../vec';

export const ALIGN_EDGES = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type AlignEdge = (typeof ALIGN_EDGES)[number];
export type Move = readonly [dx: number, dy: number];

/** How far each box must move so that one of its edges or middles lies on that of `frame`, px. */
export function alignBoxes(boxes: readonly Box[], edge: AlignEdge, frame: Box): Move[] {
  return boxes.map((box): Move => {
    switch (edge) {
      case 'left':
        return [frame.minX - box.minX, 0];
      case 'right':
        return [frame.maxX - box.maxX, 0];
      case 'centre':
        return [(frame.minX + frame.maxX - box.minX - box.maxX) / 2, 0];
      case 'top':
        return [0, frame.minY - box.minY];
      case 'bottom':
        return [0, frame.maxY - box.maxY];
      case 'middle':
        return [0, (frame.minY + frame.maxY - box.minY - box.maxY) / 2];
    }
  });
}

/**
 * How far each box must move along an axis so that all gaps are equal. Without a frame the first and the last stay where they are; with one
 * the margins to its edges equal the gaps too. Fewer than three boxes (with a frame: one) stay.
 */
export function distributeBoxes(boxes: readonly Box[], axis: 'x' | 'y', frame?: Box): Move[] {
  const low = (box: Box): number => (axis === 'x' ? box.minX : box.minY);
  const high = (box: Box): number => (axis === 'x' ? box.maxX : box.maxY);
  const order = boxes.map((_, i) => i).sort((i, j) => low(boxes[i]) + high(boxes[i]) - low(boxes[j]) - high(boxes[j]));
  const moves: Move[] = boxes.map(() => [0, 0]);
  if (order.length < (frame ? 1 : 3)) return moves;
  const from = frame ? low(frame) : low(boxes[order[0]]);
  const to = frame ? high(frame) : high(boxes[order[order.length - 1]]);
  const filled = order.reduce((sum, i) => sum + high(boxes[i]) - low(boxes[i]), 0);
  const gap = (to - from - filled) / (frame ? order.length + 1 : order.length - 1);
  let at = frame ? from + gap : from;
  for (const i of order) {
    const d = at - low(boxes[i]);
    moves[i] = axis === 'x' ? [d, 0] : [0, d];
    at += high(boxes[i]) - low(boxes[i]) + gap;
  }
  return moves;
}
