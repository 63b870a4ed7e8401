import { ENGINE_VERSION, type PoseShiftPlan, type ShiftInput } from '@core';

const DATABASE = 'arcshift-plans';
const STORE = 'plans';
/** The oldest third goes when there are too many. */
const DROPPED_SHARE = 1 / 3;

interface KeptPlan {
  readonly key: string;
  readonly used: number;
  readonly plan: PoseShiftPlan;
}

export interface PlanShelfDeps {
  /** The browser's databases; undefined where there are none. */
  readonly factory: IDBFactory | undefined;
  readonly now: () => number;
  /** At most so many plans are kept. */
  readonly most: number;
}

/** Plans kept by content in the browser's database, so that a piece that is opened again has its plans at once. */
export class PlanShelf {
  private opening: Promise<IDBDatabase> | undefined;

  constructor(private readonly deps: PlanShelfDeps) {}

  /** The kept plan for an input, or the one that `make` makes, which is then kept. A database that cannot be used changes nothing. */
  async plan(input: ShiftInput, make: () => PoseShiftPlan): Promise<PoseShiftPlan> {
    const key = await planKey(input);
    const found = await this.find(key).catch(() => undefined);
    const plan = found?.plan ?? make();
    // Kept in the background: nobody waits for it, and nothing is lost when it fails.
    void this.keep({ key, used: this.deps.now(), plan }).catch(() => {});
    return plan;
  }

  private async find(key: string): Promise<KeptPlan | undefined> {
    const db = await this.database();
    return done(db.transaction(STORE).objectStore(STORE).get(key)) as Promise<KeptPlan | undefined>;
  }

  private async keep(entry: KeptPlan): Promise<void> {
    const db = await this.database();
    const store = db.transaction(STORE, 'readwrite').objectStore(STORE);
    await done(store.put(entry));
    if ((await done(store.count())) <= this.deps.most) return;
    let left = Math.ceil(this.deps.most * DROPPED_SHARE);
    const cursor = store.index('used').openCursor();
    cursor.onsuccess = () => {
      const at = cursor.result;
      if (!at || left-- <= 0) return;
      at.delete();
      at.continue();
    };
  }

  private database(): Promise<IDBDatabase> {
    this.opening ??= new Promise((resolve, reject) => {
      const { factory } = this.deps;
      if (!factory) {
        reject(new Error('This browser keeps no databases.'));
        return;
      }
      const request = factory.open(DATABASE, 1);
      request.onupgradeneeded = () => {
        request.result.createObjectStore(STORE, { keyPath: 'key' }).createIndex('used', 'used');
      };
      request.onsuccess = () => resolve(request.result);
      request.onerror = () => reject(request.error);
    });
    return this.opening;
  }
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
