import { configureStore } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { api } from './api';
import { documentActions, documentReducer } from './document';
import { drawingReducer } from './drawing-state';
import { outputsReducer } from './outputs';
import { sessionReducer } from './session';

export function createStore() {
  return configureStore({
    reducer: {
      drawing: drawingReducer,
      document: documentReducer,
      outputs: outputsReducer,
      session: sessionReducer,
      [api.reducerPath]: api.reducer,
    },
    middleware: (getDefault) => getDefault({ serializableCheck: false, immutableCheck: false }).concat(api.middleware),
  });
}

export type AppStore = ReturnType<typeof createStore>;
export type RootState = ReturnType<AppStore['getState']>;
export type AppDispatch = AppStore['dispatch'];
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

let nextMark = 1;

/** Begins a step of history that may take many changes, as while a colour is being dragged; returns what it is ended with. */
export const beginStep =
  () =>
  (dispatch: AppDispatch): number => {
    const mark = nextMark++;
    dispatch(documentActions.markSet(mark));
    return mark;
  };

/** Ends a step that `beginStep` began. */
export const endStep =
  (mark: number) =>
  (dispatch: AppDispatch): void => {
    dispatch(documentActions.markTaken(mark));
  };
