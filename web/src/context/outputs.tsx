import { baseNameOf } from '@core';
import { createContext, type ReactNode, useContext, useEffect, useState } from 'react';
import { OutputQueue, SERVER_STORE } from '../editor';
import { sessionActions, useAppDispatch, useAppSelector } from '../state';
import { freshId } from '../workers';
import { useEngines } from './engines';

const OutputsContext = createContext<OutputQueue | null>(null);

/** The lock that a tab holds for each file that it makes, as long as it is there. */
const LOCK_PREFIX = 'arcshift-output-';

/** Without locks, which a page of another machine would not have, every tab takes what it finds. */
const hold = (id: string): Promise<void> =>
  new Promise((held) => {
    if (!navigator.locks) held();
    else
      void navigator.locks.request(LOCK_PREFIX + id, () => {
        held();
        return new Promise(() => {});
      });
  });

/** Gives the page its queue of outputs, one for the life of the tab. */
export function OutputsProvider({ children }: { readonly children: ReactNode }) {
  const engines = useEngines();
  const dispatch = useAppDispatch();
  const [queue] = useState(
    () =>
      new OutputQueue({
        engine: engines.outputs,
        store: SERVER_STORE,
        hold,
        dispatch,
        fileName: (extension, pieceName) => `${baseNameOf(pieceName)}.${extension}`,
        freshId: () => freshId('job'),
        now: Date.now,
        wait: (ms) => new Promise((done) => setTimeout(done, ms)),
        urlOf: (blob) => URL.createObjectURL(blob),
        revoke: (url) => URL.revokeObjectURL(url),
      }),
  );
  useEffect(() => {
    queue.takeUp().catch((error: Error) => {
      const text = `The files that were made before cannot be listed: ${error.message} Reload the page to try again.`;
      dispatch(sessionActions.told({ tone: 'notice', text }));
    });
  }, [queue, dispatch]);
  const inTabOnly = useAppSelector((state) =>
    state.outputs.jobs.some(({ kept, state: job }) => !kept && job !== 'cancelled' && job !== 'failed'),
  );
  useEffect(() => {
    if (!inTabOnly) return;
    // What is not kept by the server would be gone: the browser asks first.
    const ask = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', ask);
    return () => window.removeEventListener('beforeunload', ask);
  }, [inTabOnly]);
  return <OutputsContext.Provider value={queue}>{children}</OutputsContext.Provider>;
}

export function useOutputQueue(): OutputQueue {
  const queue = useContext(OutputsContext);
  if (!queue) throw new Error('The queue of outputs is used outside of OutputsProvider.');
  return queue;
}
