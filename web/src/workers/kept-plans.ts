import { ENGINE_VERSION, type PoseShiftPlan, type ShiftInput } from '@core';

/** Plans kept by content in the browser's database, so that a piece that is opened again has its plans at once. */
const DATABASE = 'arcshift-plans';
const STORE = 'plans';
/** When there are more than this many, the oldest third goes. */
const MOST_PLANS = 600;

interface KeptPlan {
  readonly key: string;
  readonly used: number;
  readonly plan: PoseShiftPlan;
}

let opening: Promise<IDBDatabase> | undefined;

function database(): Promise<IDBDatabase> {
  opening ??= new Promise((resolve, reject) => {
    const request = indexedDB.open(DATABASE, 1);
    request.onupgradeneeded = () => {
      request.result.createObjectStore(STORE, { keyPath: 'key' }).createIndex('used', 'used');
    };
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });
  return opening;
}

const done = <T>(request: IDBRequest<T>): Promise<T> =>
  new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });

/** A key that is the same for the same input and engine. */
export async function planKey(input: ShiftInput): Promise<string> {
  const bytes = new TextEncoder().encode(`${ENGINE_VERSION}${JSON.stringify(input)}`);
  const hash = await crypto.subtle.digest('SHA-256', bytes);
  return [...new Uint8Array(hash)].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** The kept plan for an input, or the one that `make` makes, which is then kept. A store that cannot be used changes nothing. */
export async function keptPlan(input: ShiftInput, make: () => PoseShiftPlan): Promise<PoseShiftPlan> {
  try {
    const key = await planKey(input);
    const db = await database();
    const found = (await done(db.transaction(STORE).objectStore(STORE).get(key))) as KeptPlan | undefined;
    if (found) return found.plan;
    const plan = make();
    void keep(db, { key, used: Date.now(), plan }).catch(() => {});
    return plan;
  } catch (error) {
    // A refusal of the engine is told; a database that is shut is none.
    if (error instanceof DOMException || !('indexedDB' in globalThis)) return make();
    throw error;
  }
}

async function keep(db: IDBDatabase, entry: KeptPlan): Promise<void> {
  const store = db.transaction(STORE, 'readwrite').objectStore(STORE);
  await done(store.put(entry));
  if ((await done(store.count())) <= MOST_PLANS) return;
  let left = Math.floor(MOST_PLANS / 3);
  const cursor = store.index('used').openCursor();
  cursor.onsuccess = () => {
    const at = cursor.result;
    if (!at || left-- <= 0) return;
    at.delete();
    at.continue();
  };
}
