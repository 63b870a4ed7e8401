import { createContext, useContext, useEffect, useRef } from 'react';

/** Ties what a field sends while something is being chosen into one step of history. */
export interface Steps {
  /** Whatever is changed from now on is one step; returns what it is ended with. */
  begin(): number;
  end(step: number): void;
}

export const StepContext = createContext<Steps>({ begin: () => 0, end: () => {} });

/** What is sent within this time of each other is one choice, ms. */
const QUIET_MS = 900;

/** For a field that sends a value per event: `touch` before each, `end` when the hand lets go. */
export function useStep(): { readonly touch: () => void; readonly end: () => void } {
  const steps = useContext(StepContext);
  const state = useRef<{ step: number | null; timer: ReturnType<typeof setTimeout> | undefined }>({
    step: null,
    timer: undefined,
  });
  const end = (): void => {
    clearTimeout(state.current.timer);
    if (state.current.step !== null) steps.end(state.current.step);
    state.current.step = null;
  };
  const touch = (): void => {
    state.current.step ??= steps.begin();
    clearTimeout(state.current.timer);
    state.current.timer = setTimeout(end, QUIET_MS);
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: what is open is ended when the field goes
  useEffect(() => end, []);
  return { touch, end };
}
