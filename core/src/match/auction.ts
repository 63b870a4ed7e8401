/** A pair that would be better together than both alone, and by how much. */
export interface GainfulPair {
  readonly i: number;
  readonly j: number;
  readonly gain: number;
}

/** The sum of gains falls short of the best by at most this for each item of the first set. */
const BID_STEP = 1e-3;

/**
 * Takes pairs, each item at most once, so that the sum of their gains (all above 0) is as large as can be, within a thousandth for each item.
 * The items of the first set bid for those of the second until none is outbid (Bertsekas: The auction algorithm: a distributed relaxation method for the
 * assignment problem, 1988). Near linear in the number of pairs.
 *
 * @param countA items of the first set; `i` below that
 * @param countB items of the second set; `j` below that
 */
export function takeByAuction<P extends GainfulPair>(pairs: readonly P[], countA: number, countB: number): P[] {
  const offers: P[][] = Array.from({ length: countA }, () => []);
  for (const pair of pairs) offers[pair.i].push(pair);
  const price = new Float64Array(countB);
  const held: (P | undefined)[] = new Array(countB);
  const bidders: number[] = [];
  for (let i = countA - 1; i >= 0; i--) if (offers[i].length > 0) bidders.push(i);
  for (let i = bidders.pop(); i !== undefined; i = bidders.pop()) {
    let best: P | undefined;
    let most = 0;
    // Staying alone gains nothing, and is what the second best is at least.
    let second = 0;
    for (const offer of offers[i]) {
      const profit = offer.gain - price[offer.j];
      if (profit > most) {
        second = most;
        most = profit;
        best = offer;
      } else if (profit > second) second = profit;
    }
    // Prices only rise: what is too dear stays so.
    if (!best) continue;
    const outbid = held[best.j];
    if (outbid) bidders.push(outbid.i);
    held[best.j] = best;
    price[best.j] += most - second + BID_STEP;
  }
  return held.filter((pair) => pair !== undefined);
}
