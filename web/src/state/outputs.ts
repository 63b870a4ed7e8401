import type { FormId, Id, OutputOptions, ProofLine } from '@core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** `elsewhere`: another tab is at it. */
export type JobState = 'elsewhere' | 'waiting' | 'making' | 'made' | 'failed' | 'cancelled';

/** A form, its options, and the name that it has among others in one ZIP. */
export interface FormChoice {
  readonly form: FormId;
  readonly options: OutputOptions;
  readonly name: string;
}

/** What came of reading a file back, without its pictures: they are with the queue. */
export interface JobProof {
  readonly holds: boolean;
  readonly lines: readonly ProofLine[];
  readonly seconds: number | null;
}

/** A file that is wanted, made or not. */
export interface OutputJob {
  readonly id: string;
  readonly pieceId: Id;
  readonly pieceName: string;
  /** One, or several in one ZIP. */
  readonly choices: readonly FormChoice[];
  readonly label: string;
  readonly state: JobState;
  /** 0 to 1. */
  readonly share: number;
  readonly fileName: string;
  /** Bytes. */
  readonly size: number;
  readonly note: string;
  /** Why it failed. */
  readonly problem: string;
  readonly proof: JobProof | null;
  /** ms since 1970, when it was asked for. */
  readonly asked: number;
  /** Is all that there is of it kept beyond this tab? */
  readonly kept: boolean;
  /** Why it is not, where that has been tried. */
  readonly unkept: string;
}

/** Files that are being made and that were made, of all pieces; the oldest first. */
export interface OutputsState {
  readonly jobs: readonly OutputJob[];
}

const initialState: OutputsState = { jobs: [] };

const slice = createSlice({
  name: 'outputs',
  initialState,
  reducers: {
    jobAdded: (state, action: PayloadAction<OutputJob>) =>
      void state.jobs.push(action.payload as (typeof state.jobs)[number]),
    /** Jobs of before, which come before all that were asked for since. */
    jobsFound: (state, action: PayloadAction<readonly OutputJob[]>) =>
      void state.jobs.unshift(...(action.payload as typeof state.jobs)),
    jobChanged: (state, action: PayloadAction<Partial<OutputJob> & { readonly id: string }>) => {
      const job = state.jobs.find(({ id }) => id === action.payload.id);
      if (job) Object.assign(job, action.payload);
    },
    jobRemoved: (state, action: PayloadAction<string>) =>
      void (state.jobs = state.jobs.filter(({ id }) => id !== action.payload)),
  },
});

export const outputsActions = slice.actions;
export const outputsReducer = slice.reducer;
