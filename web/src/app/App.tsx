import { useEffect } from 'react';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { EnginesProvider, OutputsProvider, SavingProvider } from '../context';
import { Shelf } from '../shelf';
import {
  beginStep,
  createStore,
  endStep,
  ROOMS,
  remember,
  remembered,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { StepContext, type Steps } from '../ui';
import { NotFound } from './NotFound';

/** Rooms come when a piece is first opened: the shelf shows without them. */
const room = (name: 'PiecePage' | 'ShapesRoom' | 'MatchRoom' | 'TimingRoom' | 'OutputRoom') => async () => ({
  Component: (await import('../rooms'))[name],
});
const ROOM_PAGES = {
  shapes: room('ShapesRoom'),
  match: room('MatchRoom'),
  timing: room('TimingRoom'),
  output: room('OutputRoom'),
} as const;

const router = createBrowserRouter([
  {
    // What is shown while a page that was opened by its address is on its way.
    HydrateFallback: () => <p className="app-loading soft">Opening …</p>,
    children: [
      { path: '/', element: <Shelf /> },
      {
        path: '/piece/:id',
        lazy: room('PiecePage'),
        children: [
          { index: true, element: <Navigate to="shapes" replace /> },
          ...ROOMS.map(({ id }) => ({ path: id, lazy: ROOM_PAGES[id] })),
        ],
      },
      { path: '/shapes', lazy: async () => ({ Component: (await import('../drawer')).DrawerPage }) },
      { path: '*', element: <NotFound /> },
    ],
  },
]);

/** Keeps the chosen theme on the page and in the browser. */
function Theme() {
  const theme = useAppSelector((state) => state.session.theme);
  const dispatch = useAppDispatch();
  useEffect(() => {
    const stored = remembered('theme');
    if (stored === 'dark' || (stored === null && window.matchMedia('(prefers-color-scheme: dark)').matches))
      dispatch(sessionActions.themeChosen('dark'));
  }, [dispatch]);
  useEffect(() => {
    const before = document.documentElement.dataset.bsTheme;
    document.documentElement.dataset.bsTheme = theme;
    if (before !== undefined && before !== theme) remember('theme', theme);
  }, [theme]);
  return null;
}

const store = createStore();
const steps: Steps = {
  begin: () => store.dispatch(beginStep()),
  end: (step) => store.dispatch(endStep(step)),
};

export function App() {
  return (
    <Provider store={store}>
      <EnginesProvider>
        <OutputsProvider>
          <SavingProvider>
            <Theme />
            <StepContext value={steps}>
              <RouterProvider router={router} />
            </StepContext>
          </SavingProvider>
        </OutputsProvider>
      </EnginesProvider>
    </Provider>
  );
}
