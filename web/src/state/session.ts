import type { ArrivalForm, Easing, Id, PlacementRule } from '@core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** What is selected on the rail; stops are counted from the rail's start. */
export type Selection =
  | { readonly kind: 'stop'; readonly figureId: Id; readonly stop: number }
  | { readonly kind: 'shift'; readonly figureId: Id; readonly shiftId: Id };

/** Something on a figure's rail. */
export type RailItem =
  | { readonly kind: 'stop'; readonly stop: number }
  | { readonly kind: 'shift'; readonly shiftId: Id };

/** A key of a lane, or the lane itself (null). */
export interface KeyRef {
  readonly lane: Id;
  readonly key: Id | null;
}

/** *Offline* is tried again by itself; *conflict*, *refused* (the server cannot take it) and *gone* (deleted elsewhere) wait for the user. */
export type SaveState = 'saved' | 'saving' | 'unsaved' | 'offline' | 'conflict' | 'refused' | 'gone';

export interface Message {
  readonly id: number;
  readonly tone: 'error' | 'notice';
  readonly text: string;
  readonly details?: readonly string[];
  readonly undoDelete?: string;
  /** Is it about the piece that is opened next? Then it is still there when that is open. */
  readonly ofNext?: boolean;
  /** What “Open” leads to: an address inside the program. */
  readonly opens?: string;
  /** The step that “Undo” takes back, as long as it is the last one. */
  readonly undoChange?: number;
}

/** Shapes that have just arrived, and the rule by which they were placed. */
export interface Arrival {
  readonly figureId: Id;
  readonly poseIds: readonly Id[];
  readonly rule: PlacementRule;
  readonly notes: readonly string[];
  readonly form: ArrivalForm;
  /** How many small gaps its outlines have. */
  readonly gaps: number;
}

/** Figures that have just arrived with their movement. */
export interface MovingArrival {
  readonly names: readonly string[];
  readonly figureIds: readonly Id[];
  readonly notes: readonly string[];
  /** How many of the files were drawings, that can be taken still too. */
  readonly drawings: number;
  /** The step that brought them in: while it is the last one they can be taken still instead. */
  readonly entry: number;
}

/** What is at work: a word, how much is done (0 to 1, null: unknown), and whether it can be stopped. */
export interface Busy {
  readonly text: string;
  readonly share: number | null;
  readonly stoppable: boolean;
}

/** What belongs to this tab and is neither saved nor undone. */
export interface SessionState {
  readonly selection: Selection | null;
  /** What is chosen besides on the same rail. */
  readonly more: readonly RailItem[];
  /** Keys of lanes that are chosen. */
  readonly keys: readonly KeyRef[];
  /** An easing that was copied, and one that was set aside to be compared; null: none. */
  readonly copiedEasing: Easing | null;
  readonly asideEasing: Easing | null;
  readonly save: SaveState;
  /** The server's reason for not taking it. */
  readonly saveProblem: string | null;
  readonly messages: readonly Message[];
  readonly arrival: Arrival | null;
  readonly moving: MovingArrival | null;
  readonly theme: 'light' | 'dark';
  readonly sheetOpen: boolean;
  readonly busy: Busy | null;
  /** What a screen reader is told of the keys' work on the canvas. */
  readonly said: string;
}

const initialState: SessionState = {
  selection: null,
  more: [],
  keys: [],
  copiedEasing: null,
  asideEasing: null,
  save: 'saved',
  saveProblem: null,
  messages: [],
  arrival: null,
  moving: null,
  theme: 'light',
  sheetOpen: false,
  busy: null,
  said: '',
};
let nextMessage = 1;

const slice = createSlice({
  name: 'session',
  initialState,
  reducers: {
    selected: (state, action: PayloadAction<Selection | null>) => {
      state.selection = action.payload;
      state.more = [];
      state.keys = [];
    },
    /** Chooses more of the same rail. */
    moreChosen: (state, action: PayloadAction<readonly RailItem[]>) => void (state.more = [...action.payload]),
    easingCopied: (state, action: PayloadAction<Easing>) =>
      void (state.copiedEasing = action.payload as typeof state.copiedEasing),
    easingSetAside: (state, action: PayloadAction<Easing | null>) =>
      void (state.asideEasing = action.payload as typeof state.asideEasing),
    keysChosen: (state, action: PayloadAction<readonly KeyRef[]>) => void (state.keys = [...action.payload]),
    saveChanged: (state, action: PayloadAction<{ state: SaveState; problem: string | null }>) => {
      state.save = action.payload.state;
      state.saveProblem = action.payload.problem;
    },
    told: {
      prepare: (message: Omit<Message, 'id'>) => ({ payload: { ...message, id: nextMessage++ } }),
      reducer: (state, action: PayloadAction<Message>) => {
        state.messages = [
          ...state.messages.filter((message) => message.text !== action.payload.text),
          { ...action.payload, details: action.payload.details && [...action.payload.details] },
        ].slice(-4);
      },
    },
    dismissed: (state, action: PayloadAction<number>) =>
      void (state.messages = state.messages.filter(({ id }) => id !== action.payload)),
    cameMoving: (state, action: PayloadAction<MovingArrival | null>) =>
      void (state.moving = action.payload as typeof state.moving),
    arrived: (state, action: PayloadAction<Arrival | null>) =>
      void (state.arrival = action.payload as typeof state.arrival),
    themeChosen: (state, action: PayloadAction<'light' | 'dark'>) => void (state.theme = action.payload),
    sheetToggled: (state, action: PayloadAction<boolean | undefined>) =>
      void (state.sheetOpen = action.payload ?? !state.sheetOpen),
    busyChanged: (state, action: PayloadAction<Busy | null>) => void (state.busy = action.payload),
    said: (state, action: PayloadAction<string>) => void (state.said = action.payload),
    reset: (state) => ({
      ...initialState,
      theme: state.theme,
      messages: state.messages.flatMap(({ ofNext, ...message }) => (ofNext ? [message] : [])),
    }),
  },
  extraReducers: (build) => {
    // Several figures, or several poses of one.
    build.addMatcher(
      ({ type }: { type: string }) => type === 'drawing/alsoChosen',
      (state) => void (state.more = []),
    );
  },
});

export const sessionActions = slice.actions;
export const sessionReducer = slice.reducer;
