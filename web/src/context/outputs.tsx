import { baseNameOf } from '@core';
import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';
import { OutputQueue } from '../editor';
import { useAppDispatch, useAppSelector } from '../state';
import { freshId } from '../workers';
import { useEngines } from './engines';

const OutputsContext = createContext<OutputQueue | null>(null);

/** Gives the page its queue of outputs, one for the life of the tab. */
export function OutputsProvider({ children }: { readonly children: ReactNode }) {
  const engines = useEngines();
  const dispatch = useAppDispatch();
  const [queue] = useState(
    () =>
      new OutputQueue({
        engine: engines.outputs,
        dispatch,
        fileName: (extension, pieceName) => `${baseNameOf(pieceName)}.${extension}`,
        freshId: () => freshId('job'),
        now: Date.now,
        urlOf: (blob) => URL.createObjectURL(blob),
        revoke: (url) => URL.revokeObjectURL(url),
      }),
  );
  const atWork = useAppSelector((state) =>
    state.outputs.jobs.some((job) => job.state === 'making' || job.state === 'waiting'),
  );
  useEffect(() => {
    if (!atWork) return;
    // What is being made would be gone: the browser asks first.
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [atWork]);
  return <OutputsContext.Provider value={queue}>{children}</OutputsContext.Provider>;
}

export function useOutputQueue(): OutputQueue {
  const queue = useContext(OutputsContext);
  if (!queue) throw new Error('The queue of outputs is used outside of OutputsProvider.');
  return queue;
}
