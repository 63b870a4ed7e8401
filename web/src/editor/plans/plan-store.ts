import {
  type Id,
  type Piece,
  type PoseShiftPlan,
  type Shift,
  type ShiftInput,
  sameShiftInput,
  shiftInput,
} from '@core';

/** Makes a plan, off the main thread. */
export type Planner = (input: ShiftInput) => Promise<PoseShiftPlan>;

interface Entry {
  /** What the plan, or the request under way, was made from. */
  input: ShiftInput;
  plan?: PoseShiftPlan;
  planInput?: ShiftInput;
  failed?: string;
}

/** What views show of a shift's plan. */
export interface PlanStatus {
  readonly plan?: PoseShiftPlan;
  readonly pending: boolean;
  readonly failed?: string;
}

/**
 * Keeps a plan for every shift of the open piece. One request is under way at a time; requests that are outdated before their turn are
 * never sent, and results that are outdated when they come are dropped.
 */
export class PlanStore {
  private readonly entries = new Map<Id, Entry>();
  private queue: Id[] = [];
  private working = false;
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
      this.entries.set(shift.id, { ...entry, input, failed: undefined });
      this.queue = this.queue.filter((id) => id !== shift.id);
      if (shift.id === first) this.queue.unshift(shift.id);
      else this.queue.push(shift.id);
    }
    if (changed) this.tell();
    void this.work();
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
      try {
        plan = await this.planner(input);
      } catch (error) {
        failed = (error as Error).message;
      }
      const entry = this.entries.get(id);
      if (!entry || entry.input !== input || this.closed) continue;
      if (plan) Object.assign(entry, { plan, planInput: input, failed: undefined });
      else entry.failed = failed;
      this.tell();
    }
    this.working = false;
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
