import { type AnchorRef, type Id, SHAPE_KINDS, type ShapeKind } from '@core';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type Selection, sessionActions } from './session';

export const TOOLS = ['select', 'points', 'draw', 'shape', 'text', 'cut', 'colour'] as const;
export type ToolId = (typeof TOOLS)[number];
export const DRAWS_AS = ['figure', 'pose', 'part', 'contour'] as const;
/** What a drawn outline becomes: a figure of its own, the next pose, a part of the pose, another contour of the part. */
export type DrawsAs = (typeof DRAWS_AS)[number];

export const DETAIL_TABS = ['pose', 'outline', 'paint', 'arrange'] as const;
export type DetailTab = (typeof DETAIL_TABS)[number];

/** What the pointer snaps to. */
export interface SnapChoices {
  readonly points: boolean;
  readonly outlines: boolean;
  readonly centres: boolean;
  readonly guides: boolean;
  readonly grid: boolean;
}

/** The drawing of this tab: tool, finer selection, drawing preferences. Neither saved nor undone. */
export interface DrawingState {
  readonly tool: ToolId;
  readonly shapeKind: ShapeKind;
  readonly drawsAs: DrawsAs;
  /** Figures chosen besides the one on the rail. */
  readonly also: readonly Id[];
  readonly parts: readonly Id[];
  readonly anchors: readonly AnchorRef[];
  readonly snap: SnapChoices;
  readonly rulers: boolean;
  /** Points of several figures that lie on each other move together. */
  readonly together: boolean;
  /** What colours go to. */
  readonly paints: 'fill' | 'stroke';
  /** Which details are in sight. */
  readonly details: DetailTab;
  /** A text that was just put down: what is typed goes into it. */
  readonly typesInto: Id | null;
  /** What the left column shows. */
  readonly column: 'figures' | 'drawer';
  /** Are the columns at the sides unfolded? */
  readonly left: boolean;
  readonly right: boolean;
}

export const DRAWING_KEY = 'arcshift.drawing';
const DEFAULTS: DrawingState = {
  tool: 'select',
  shapeKind: 'rectangle',
  drawsAs: 'figure',
  also: [],
  parts: [],
  anchors: [],
  snap: { points: true, outlines: false, centres: true, guides: true, grid: false },
  rulers: false,
  together: true,
  paints: 'fill',
  details: 'pose',
  typesInto: null,
  column: 'figures',
  left: true,
  right: true,
};

/** The preferences that a browser remembers. */
function remembered(): Partial<DrawingState> {
  try {
    const { snap, rulers, together, drawsAs, shapeKind, left, right } = JSON.parse(
      localStorage.getItem(DRAWING_KEY) ?? '{}',
    ) as Partial<DrawingState>;
    return {
      ...(snap && { snap: { ...DEFAULTS.snap, ...snap } }),
      ...(typeof left === 'boolean' && { left }),
      ...(typeof right === 'boolean' && { right }),
      ...(typeof rulers === 'boolean' && { rulers }),
      ...(typeof together === 'boolean' && { together }),
      ...(drawsAs && (DRAWS_AS as readonly string[]).includes(drawsAs) && { drawsAs }),
      ...(shapeKind && (SHAPE_KINDS as readonly string[]).includes(shapeKind) && { shapeKind }),
    };
  } catch {
    return {};
  }
}

const slice = createSlice({
  name: 'drawing',
  initialState: (): DrawingState => ({ ...DEFAULTS, ...remembered() }),
  reducers: {
    toolChosen: (state, action: PayloadAction<ToolId>) => {
      state.tool = action.payload;
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
