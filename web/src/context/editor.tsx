import { createContext, useContext, useSyncExternalStore } from 'react';
import type { Arrivals, Autosave, Editor, PlanStatus } from '../editor';

export interface OpenPiece {
  readonly editor: Editor;
  readonly autosave: Autosave;
  readonly arrivals: Arrivals;
  /** Lets the user choose SVG files; they become poses before stop `at`. */
  readonly chooseFiles: (at?: number) => void;
  /** Takes files that were dropped or pasted. */
  readonly takeFiles: (files: readonly File[], at?: number) => void;
  /** Takes SVG text, as from the drawer. */
  readonly takeSvg: (name: string, svg: string, at?: number) => void;
}

export const EditorContext = createContext<OpenPiece | null>(null);

export function useOpenPiece(): OpenPiece {
  const open = useContext(EditorContext);
  if (!open) throw new Error('The editor is used outside of an open piece.');
  return open;
}

export const useEditor = (): Editor => useOpenPiece().editor;

/** Plans of all shifts; renders again when one of them comes or goes stale, not per frame. */
export function usePlanStatuses(): ReadonlyMap<string, PlanStatus> {
  const { plans } = useEditor();
  return useSyncExternalStore(plans.subscribe, plans.statuses);
}

/** Share of a shift's plan that is done, while it is under way; renders only what shows it. */
export function usePlanProgress(shiftId: string): number | undefined {
  const { plans } = useEditor();
  return useSyncExternalStore(
    (listener) => {
      const stops = [plans.onProgress(listener), plans.subscribe(listener)];
      return () => {
        for (const stop of stops) stop();
      };
    },
    () => plans.progressOf(shiftId),
  );
}

export function usePlaying(): boolean {
  const { clock } = useEditor();
  return useSyncExternalStore(
    (listener) => clock.onState(listener),
    () => clock.playing,
  );
}
