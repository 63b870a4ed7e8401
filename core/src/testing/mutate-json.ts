import { seededRandom } from '../num';

/** What a spoiled file may hold instead of a number: values at and beyond the edges of what is allowed. */
const NUMBERS = [
  0, -0, 1, -1, 0.5, 5e-324, 1e-7, 1e-5, 1e7, -1e7, 1e8, 3600, 16384, 1e300, 99.999, 1e6, -1e6, 0.9999999,
];

type Json = null | boolean | number | string | Json[] | { [key: string]: Json };
interface Slot {
  readonly holder: Json[] | { [key: string]: Json };
  readonly key: string | number;
}

/** Every place of a value inside a JSON value. */
function slotsOf(value: Json, out: Slot[] = []): Slot[] {
  if (Array.isArray(value))
    value.forEach((item, key) => {
      out.push({ holder: value, key });
      slotsOf(item, out);
    });
  else if (typeof value === 'object' && value !== null)
    for (const key of Object.keys(value)) {
      out.push({ holder: value, key });
      slotsOf(value[key], out);
    }
  return out;
}

/**
 * A copy of a JSON value that is spoiled in one to four places, the same for the same seed: numbers moved to the edges of what is allowed or a
 * little, words exchanged for words of elsewhere in the file, items repeated, moved or taken out, fields taken out or replaced.
 */
export function mutateJson<T>(original: T, seed: number): T {
  const random = seededRandom(seed);
  const pick = <V>(all: readonly V[]): V => all[Math.floor(random() * all.length) % all.length];
  const copy = JSON.parse(JSON.stringify(original)) as Json;
  for (let left = 1 + Math.floor(random() * 4); left > 0; left--) {
    const slots = slotsOf(copy);
    const { holder, key } = pick(slots);
    const at = (holder as Record<string | number, Json>)[key];
    const put = (value: Json): void => {
      (holder as Record<string | number, Json>)[key] = value;
    };
    const kind = random();
    if (typeof at === 'number') put(kind < 0.6 ? pick(NUMBERS) : kind < 0.8 ? at * (1 + 1e-7) : -at);
    else if (typeof at === 'string') {
      const words = slots.flatMap((slot) => {
        const word = (slot.holder as Record<string | number, Json>)[slot.key];
        return typeof word === 'string' ? [word] : [];
      });
      put(kind < 0.9 ? pick(words) : pick(['', '__proto__', 'constructor', '\u0000', 'x'.repeat(300)]));
    } else if (typeof at === 'boolean') put(!at);
    else if (Array.isArray(holder) && kind < 0.4) holder.splice(Number(key), 1);
    else if (Array.isArray(holder) && kind < 0.8) holder.splice(Number(key), 0, JSON.parse(JSON.stringify(at)) as Json);
    else if (Array.isArray(holder)) holder.reverse();
    else if (kind < 0.2) delete holder[key];
    else if (kind < 0.4) put(null);
    else if (Array.isArray(at) && kind < 0.8) put(at.concat(JSON.parse(JSON.stringify(at)) as Json[]));
    else put(JSON.parse(JSON.stringify((pick(slots).holder as Json) ?? null)) as Json);
  }
  return copy as T;
}
