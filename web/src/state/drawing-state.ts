import type { AnchorRef, Id, Part, ShapeKind } from '@core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { DrawsAs, SnapChoices } from './drawing-choices';
import { type DrawingPreferences, remembered } from './preferences';
import { type Selection, sessionActions } from './session';

export const TOOLS = ['select', 'points', 'draw', 'shape', 'text', 'cut', 'colour'] as const;
export type ToolId = (typeof TOOLS)[number];
export const DETAIL_TABS = ['pose', 'outline', 'paint', 'arrange'] as const;
export type DetailTab = (typeof DETAIL_TABS)[number];

/** Something that was just drawn, what it became, and what else it could become. */
export interface Drawn {
  /** As it was drawn, in canvas px. */
  readonly part: Part;
  readonly as: DrawsAs;
  /** The entry of the history that put it there. */
  readonly entry: number;
  /** The pose that it could follow or belong to. */
  readonly into: { readonly figureId: Id; readonly stop: number } | null;
}

/** The drawing of this tab: tool, finer selection, drawing preferences. Neither saved nor undone. */
export interface DrawingState extends DrawingPreferences {
  readonly tool: ToolId;
  /** What the next thing that is drawn becomes, before what was wished for all goes on. */
  readonly once: DrawsAs | null;
  /** Figures chosen besides the one on the rail. */
  readonly also: readonly Id[];
  readonly parts: readonly Id[];
  readonly anchors: readonly AnchorRef[];
  /** What colours go to. */
  readonly paints: 'fill' | 'stroke';
  /** Which details are in sight. */
  readonly details: DetailTab;
  /** A text that was just put down: what is typed goes into it. */
  readonly typesInto: Id | null;
  /** What was drawn last, as long as it was the last change. */
  readonly drawn: Drawn | null;
  /** A text that became a figure, and the pose that it could follow, as long as it stays chosen. */
  readonly typed: { readonly figureId: Id; readonly into: { readonly figureId: Id; readonly stop: number } } | null;
  /** What is to get another name: its field is opened. */
  readonly renames: Id | null;
  /** Which column stays where there is no room for both. */
  readonly firstColumn: 'left' | 'right';
  /** Moments before and after that are shown faintly in the Timing room: how many each way, and how many frames apart; 0: none. */
  readonly onion: {
    readonly count: number;
    readonly frames: number;
    readonly strength: number;
    readonly tint: boolean;
  };
  /** Are the ways of points shown in the Timing room? */
  readonly pointPaths: boolean;
  /** What the left column shows. */
  readonly column: 'figures' | 'drawer';
}

const initialState = (): DrawingState => ({
  ...remembered('drawing'),
  tool: 'select',
  once: null,
  also: [],
  parts: [],
  anchors: [],
  paints: 'fill',
  details: 'pose',
  typesInto: null,
  drawn: null,
  typed: null,
  renames: null,
  firstColumn: 'right',
  column: 'figures',
  pointPaths: false,
  onion: { count: 0, frames: 6, strength: 0.34, tint: false },
});

const slice = createSlice({
  name: 'drawing',
  initialState,
  reducers: {
    toolChosen: (state, action: PayloadAction<ToolId>) => {
      state.tool = action.payload;
      state.once = null;
      if (action.payload === 'points') state.details = 'outline';
      if (action.payload === 'colour') state.details = 'paint';
      state.anchors = [];
    },
    shapeChosen: (state, action: PayloadAction<ShapeKind>) => {
      state.tool = 'shape';
      state.shapeKind = action.payload;
    },
    changed: (state, action: PayloadAction<Partial<DrawingState>>) => Object.assign(state, action.payload),
    snapChanged: (state, action: PayloadAction<Partial<SnapChoices>>) => void Object.assign(state.snap, action.payload),
    partsChosen: (state, action: PayloadAction<readonly Id[]>) => {
      state.parts = [...action.payload];
      state.anchors = [];
    },
    anchorsChosen: (state, action: PayloadAction<readonly AnchorRef[]>) => {
      state.anchors = [...action.payload];
    },
    /** Chooses figures besides the one on the rail. */
    alsoChosen: (state, action: PayloadAction<readonly Id[]>) => {
      state.also = [...action.payload];
      state.parts = [];
      state.anchors = [];
    },
  },
  extraReducers: (build) => {
    const clear = (state: { also: Id[]; parts: Id[]; anchors: AnchorRef[] }): void => {
      state.also = [];
      state.parts = [];
      state.anchors = [];
    };
    build.addCase(sessionActions.selected, (state, _action: PayloadAction<Selection | null>) => clear(state));
    build.addCase(sessionActions.reset, (state) => {
      clear(state);
      state.tool = 'select';
    });
  },
});

export const drawingActions = slice.actions;
export const drawingReducer = slice.reducer;
