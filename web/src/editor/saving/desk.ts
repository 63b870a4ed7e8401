import type { Piece } from '@core';
import type { AppStore } from '../../state';
import { type Autosave, startAutosave } from './autosave';
import { BrowserDatabase } from './browser-database';
import { BrowserCopies, type PieceCopy } from './copies';
import { GIVEN_WAY_TABLE, GivenWayKeeper } from './given-way';
import { keepSteps } from './keep-steps';
import { STEPS_TABLE, StepsKeeper } from './kept-steps';
import { pieceText } from './piece-text';
import { SAVING_PACE, type SavingPace, type SavingPorts } from './ports';

/** A copy that no open tab works on, read if it can be. */
export interface LeftCopy {
  readonly copy: PieceCopy;
  /** Brought up to date; null when it cannot be read. */
  readonly piece: Piece | null;
}

export interface SavingDeskDeps {
  readonly factory: IDBFactory | undefined;
  /** The browser's locks tell which tabs are there; without them every copy counts as left. */
  readonly locks: LockManager | undefined;
  readonly storage: Storage | undefined;
  readonly tab: string;
  readonly now: () => number;
  readonly pace?: SavingPace;
  /** Joins the tabs of this browser; left out where it cannot. */
  readonly channel?: BroadcastChannel;
  /** Asks the browser not to clear its storage. */
  readonly persist?: () => Promise<unknown>;
}

const LOCK_PREFIX = 'arcshift-tab-';

/** What this tab has on its way to the server, and what tabs have left in the browser. */
export class SavingDesk implements SavingPorts {
  readonly copies: BrowserCopies;
  readonly steps: StepsKeeper;
  readonly givenWay: GivenWayKeeper;
  readonly tab: string;
  readonly now: () => number;
  readonly pace: SavingPace;
  /** By piece: texts that were sent and of which nobody knows whether they arrived. */
  private readonly sent = new Map<string, Set<string>>();
  private readonly leaving = new Map<string, Promise<void>>();
  private readonly ready: Promise<void>;
  private asked = false;

  constructor(private readonly deps: SavingDeskDeps) {
    this.copies = new BrowserCopies(deps.factory);
    const database = new BrowserDatabase(deps.factory, 'arcshift-steps', [STEPS_TABLE, GIVEN_WAY_TABLE]);
    this.steps = new StepsKeeper(database);
    this.givenWay = new GivenWayKeeper(database, deps.now);
    this.tab = deps.tab;
    this.now = deps.now;
    this.pace = deps.pace ?? SAVING_PACE;
    // Held until the tab is gone, however it goes.
    void deps.locks?.request(LOCK_PREFIX + deps.tab, () => new Promise(() => {})).catch(() => {});
    this.ready = this.copies.takeOver(deps.storage).catch(() => {});
  }

  sentOf(pieceId: string): Set<string> {
    let sent = this.sent.get(pieceId);
    if (!sent) {
      sent = new Set();
      this.sent.set(pieceId, sent);
    }
    return sent;
  }

  tellSaved(pieceId: string, revision: number): void {
    this.deps.channel?.postMessage({ pieceId, revision });
  }

  onSaved(told: (pieceId: string, revision: number) => void): () => void {
    const { channel } = this.deps;
    const hear = ({ data }: MessageEvent<{ pieceId: string; revision: number }>): void =>
      told(data.pieceId, data.revision);
    channel?.addEventListener('message', hear);
    return () => channel?.removeEventListener('message', hear);
  }

  askToStay(): void {
    if (this.asked) return;
    this.asked = true;
    void this.deps.persist?.().catch(() => {});
  }

  /** Saves the open piece of a store from now on, and keeps what can be undone. */
  open(store: AppStore, unsavedAtStart: boolean): Autosave {
    const id = store.getState().document.piece?.id ?? '';
    const autosave = startAutosave(store, this, unsavedAtStart);
    const stopKeeping = keepSteps(store, this.steps, this.pace);
    const stop = (): Promise<void> => {
      stopKeeping();
      const last = autosave.stop();
      this.leaving.set(id, last);
      return last;
    };
    return { ...autosave, stop };
  }

  /** When the last save of a piece that was left has its answer. */
  settled(pieceId: string): Promise<void> {
    return this.leaving.get(pieceId) ?? Promise.resolve();
  }

  /** Copies that no other open tab is at work on, the latest first. */
  async left(): Promise<readonly PieceCopy[]> {
    await this.ready;
    const [copies, live] = await Promise.all([this.copies.all().catch(() => []), this.liveTabs()]);
    return copies.filter(({ tab }) => tab === this.tab || !live.has(tab));
  }

  /** Those of a piece, read by `check`; one that holds just what the server has is taken away. */
  async leftOf(
    pieceId: string,
    onServer: Piece | undefined,
    check: (text: string) => Promise<Piece>,
  ): Promise<readonly LeftCopy[]> {
    const server = onServer && pieceText(onServer);
    const found: LeftCopy[] = [];
    for (const copy of await this.left()) {
      if (copy.pieceId !== pieceId) continue;
      const piece = await check(copy.text).catch(() => null);
      if (piece && pieceText(piece) === server) await this.copies.drop(copy.key).catch(() => {});
      else found.push({ copy, piece });
    }
    return found;
  }

  private async liveTabs(): Promise<ReadonlySet<string>> {
    const held = (await this.deps.locks?.query().catch(() => undefined))?.held ?? [];
    return new Set(held.flatMap(({ name }) => (name?.startsWith(LOCK_PREFIX) ? [name.slice(LOCK_PREFIX.length)] : [])));
  }
}
