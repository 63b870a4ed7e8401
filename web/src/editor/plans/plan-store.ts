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
  /** Share of the plan under way that is done, 0 to 1. */
  readonly progress?: number;
  readonly failed?: string;
}

/**
 * Keeps a plan for every shift of the open piece. One request is under way at a time; requests that are outdated before their turn are
 * never sent, and one that is outdated while it is under way is ended unless it is about to come.
 */
export class PlanStore {
  private readonly entries = new Map<Id, Entry>();
  private queue: Id[] = [];
  private working = false;
  private underWay: { readonly id: Id; readonly input: ShiftInput } | undefined;
  private closed = false;
  private readonly listeners = new Set<() => void>();
  private snapshot: ReadonlyMap<Id, PlanStatus> = new Map();

  constructor(private readonly planner: Planner) {}

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
    this.endOutdated();
    void this.work();
  }

  /** Ends the plan under way if nobody waits for it any more. */
  private endOutdated(): void {
    const { underWay } = this;
    const outdated = (): boolean => underWay !== undefined && this.entries.get(underWay.id)?.input !== underWay.input;
    if (!outdated()) return;
    setTimeout(() => {
      if (this.underWay === underWay && outdated()) this.planner.cancel();
    }, GRACE_MS);
  }

  /** The plan of a shift if it fits the shift as it is now. */
  planOf = (shift: Shift): PoseShiftPlan | undefined => {
    const entry = this.entries.get(shift.id);
    return entry?.plan && entry.planInput === entry.input ? entry.plan : undefined;
  };

  /** All statuses; the same object until something changes. */
  statuses = (): ReadonlyMap<Id, PlanStatus> => this.snapshot;

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => void this.listeners.delete(listener);
  };

  destroy(): void {
    this.closed = true;
    this.listeners.clear();
  }

  private async work(): Promise<void> {
    if (this.working) return;
    this.working = true;
    for (let id = this.queue.shift(); id !== undefined && !this.closed; id = this.queue.shift()) {
      const input = this.entries.get(id)?.input;
      if (!input) continue;
      let plan: PoseShiftPlan | undefined;
      let failed: string | undefined;
      this.underWay = { id, input };
      try {
        plan = await this.planner.plan(input, (share) => this.advance(id, input, share));
      } catch (error) {
        failed = (error as Error).message;
      }
      this.underWay = undefined;
      const entry = this.entries.get(id);
      if (!entry || entry.input !== input || this.closed) continue;
      if (plan) Object.assign(entry, { plan, planInput: input, failed: undefined, progress: undefined });
      else entry.failed = failed;
      this.tell();
    }
    this.working = false;
  }

  private advance(id: Id, input: ShiftInput, share: number): void {
    const entry = this.entries.get(id);
    if (entry?.input !== input || this.closed) return;
    entry.progress = share;
    this.tell();
  }

  private tell(): void {
    this.snapshot = new Map(
      [...this.entries].map(([id, entry]) => {
        const current = entry.plan && entry.planInput === entry.input ? entry.plan : undefined;
        const pending = !current && !entry.failed;
        return [id, { plan: current, pending, progress: pending ? entry.progress : undefined, failed: entry.failed }];
      }),
    );
    for (const listener of this.listeners) listener();
  }
}
