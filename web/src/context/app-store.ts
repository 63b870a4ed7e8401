import { useStore } from 'react-redux';
import type { AppStore } from '../state';

/** The store as itself, for actions of the editor. */
export const useAppStore = (): AppStore => useStore() as AppStore;
