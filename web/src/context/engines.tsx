import { createContext, type ReactNode, useContext, useState } from 'react';
import { type Engines, startEngines } from '../workers';

const EnginesContext = createContext<Engines | null>(null);

/** Gives the page its workers. */
export function EnginesProvider({ children }: { readonly children: ReactNode }) {
  const [engines] = useState(startEngines);
  return <EnginesContext.Provider value={engines}>{children}</EnginesContext.Provider>;
}

export function useEngines(): Engines {
  const engines = useContext(EnginesContext);
  if (!engines) throw new Error('The workers are used outside of EnginesProvider.');
  return engines;
}
