import {
  type Id,
  type Piece,
  type PoseShiftPlan,
  type Shift,
  type ShiftInput,
  sameShiftInput,
  shiftInput,
} from '@core';

/** Makes plans, off the main thread. */
export interface Planner {
  plan(input: ShiftInput, onProgress: (share: number) => void): Promise<PoseShiftPlan>;
  /** Ends the plan under way; its promise fails. */
  cancel(): void;
}

/** A plan that is outdated may still come within this time, ms; after it, it is ended. */
const GRACE_MS = 120;

interface Entry {
  /** What the plan, or the request under way, was made from. */
  input: ShiftInput;
  plan?: PoseShiftPlan;
  planInput?: ShiftInput;
  failed?: string;
  progress?: number;
}

/** What views show of a shift's plan. */
export interface PlanStatus {
  readonly plan?: PoseShiftPlan;
  readonly pending: boolean;
  readonly failed?: string;
}

/** One planner and what it is at. */
interface Worker {
  readonly planner: Planner;
  underWay?: { readonly id: Id; readonly input: ShiftInput };
}

/**
 * Keeps a plan for every shift of the open piece, made by as many planners as there are. Requests that are outdated before their turn are never
 * sent, and one that is outdated while it is under way is ended unless it is about to come.
 */
export class PlanStore {
  private readonly entries = new Map<Id, Entry>();
  private queue: Id[] = [];
  private readonly workers: readonly Worker[];
  private closed = false;
  private readonly listeners = new Set<() => void>();
  private readonly progressListeners = new Set<() => void>();
  private snapshot: ReadonlyMap<Id, PlanStatus> = new Map();

  constructor(planners: readonly Planner[]) {
    this.workers = planners.map((planner) => ({ planner }));
  }

  /** Brings the plans in line with a piece; `first` names a shift to plan before the others. */
  update(piece: Piece, first?: Id): void {
    let changed = false;
    for (const id of this.entries.keys()) {
      if (!piece.shifts[id]) {
        this.entries.delete(id);
        changed = true;
      }
    }
    for (const shift of Object.values(piece.shifts)) {
      const input = shiftInput(piece, shift);
      const entry = this.entries.get(shift.id);
      if (entry && sameShiftInput(entry.input, input)) continue;
      changed = true;
      if (entry?.planInput && sameShiftInput(entry.planInput, input)) {
        // Undone before the new plan came: the old one fits again.
        entry.input = input;
        entry.planInput = input;
        continue;
      }
      this.entries.set(shift.id, { ...entry, input, failed: undefined, progress: undefined });
      this.queue = this.queue.filter((id) => id !== shift.id);
      if (shift.id === first) this.queue.unshift(shift.id);
      else this.queue.push(shift.id);
    }
    if (changed) this.tell();
    for (const worker of this.workers) this.endOutdated(worker);
    for (const worker of this.workers) void this.work(worker);
  }

  /** Ends the plan under way if nobody waits for it any more. */
  private endOutdated(worker: Worker): void {
    const { underWay } = worker;
    const outdated = (): boolean => underWay !== undefined && this.entries.get(underWay.id)?.input !== underWay.input;
    if (!outdated()) return;
    setTimeout(() => {
      if (worker.underWay === underWay && outdated()) worker.planner.cancel();
    }, GRACE_MS);
  }

  /** The plan of a shift if it fits the shift as it is now. */
  planOf = (shift: Shift): PoseShiftPlan | undefined => {
    const entry = this.entries.get(shift.id);
    return entry?.plan && entry.planInput === entry.input ? entry.plan : undefined;
  };

  /** All statuses; the same object until something changes. Progress is told elsewhere: it changes no picture. */
  statuses = (): ReadonlyMap<Id, PlanStatus> => this.snapshot;

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  /** Share of a shift's plan that is done, 0 to 1, while it is under way. */
  progressOf = (id: Id): number | undefined => this.entries.get(id)?.progress;

  onProgress = (listener: () => void): (() => void) => {
    this.progressListeners.add(listener);
    return () => void this.progressListeners.delete(listener);
  };

  destroy(): void {
    this.closed = true;
    this.listeners.clear();
    this.progressListeners.clear();
  }

  private async work(worker: Worker): Promise<void> {
    if (worker.underWay) return;
    for (let id = this.queue.shift(); id !== undefined && !this.closed; id = this.queue.shift()) {
      const input = this.entries.get(id)?.input;
      if (input) await this.plan(worker, id, input);
    }
  }

  private async plan(worker: Worker, id: Id, input: ShiftInput): Promise<void> {
    let plan: PoseShiftPlan | undefined;
    let failed: string | undefined;
    worker.underWay = { id, input };
    try {
      plan = await worker.planner.plan(input, (share) => this.advance(id, input, share));
    } catch (error) {
      failed = (error as Error).message;
    }
    worker.underWay = undefined;
    const entry = this.entries.get(id);
    if (!entry || entry.input !== input || this.closed) return;
    entry.progress = undefined;
    if (plan) Object.assign(entry, { plan, planInput: input, failed: undefined });
    else entry.failed = failed;
    this.tell();
  }

  private advance(id: Id, input: ShiftInput, share: number): void {
    const entry = this.entries.get(id);
    if (entry?.input !== input || this.closed) return;
    entry.progress = share;
    for (const listener of this.progressListeners) listener();
  }

  private tell(): void {
    this.snapshot = new Map(
      [...this.entries].map(([id, entry]) => {
        const current = entry.plan && entry.planInput === entry.input ? entry.plan : undefined;
        return [id, { plan: current, pending: !current && !entry.failed, failed: entry.failed }];
      }),
    );
    for (const listener of this.listeners) listener();
  }
}
