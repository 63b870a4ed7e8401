import { createContext, type ReactNode, useContext, useState } from 'react';
import { SavingDesk } from '../editor';
import { freshId } from '../workers';

const SavingContext = createContext<SavingDesk | null>(null);

/** The browser's small storage, where it may be used. */
function smallStorage(): Storage | undefined {
  try {
    return window.localStorage;
  } catch {
    return undefined;
  }
}

/** Gives the page its desk for saving, one for the life of the tab. */
export function SavingProvider({ children }: { readonly children: ReactNode }) {
  const [desk] = useState(
    () =>
      new SavingDesk({
        factory: window.indexedDB,
        locks: navigator.locks,
        storage: smallStorage(),
        tab: freshId('tab'),
        now: Date.now,
        channel: 'BroadcastChannel' in window ? new BroadcastChannel('arcshift-saves') : undefined,
        persist: () => navigator.storage?.persist?.() ?? Promise.resolve(false),
      }),
  );
  return <SavingContext.Provider value={desk}>{children}</SavingContext.Provider>;
}

export function useSavingDesk(): SavingDesk {
  const desk = useContext(SavingContext);
  if (!desk) throw new Error('The desk for saving is used outside of SavingProvider.');
  return desk;
}
