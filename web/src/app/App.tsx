import { type ReactElement, useEffect } from 'react';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { EnginesProvider, SavingProvider } from '../context';
import { DrawerPage } from '../drawer';
import { MatchRoom, OutputRoom, PiecePage, ShapesRoom } from '../rooms';
import { Shelf } from '../shelf';
import {
  beginStep,
  createStore,
  endStep,
  ROOMS,
  type RoomId,
  remember,
  remembered,
  sessionActions,
  useAppDispatch,
  useAppSelector,
} from '../state';
import { StepContext, type Steps } from '../ui';
import { NotFound } from './NotFound';

const ROOM_PAGES: Readonly<Record<RoomId, ReactElement>> = {
  shapes: <ShapesRoom />,
  match: <MatchRoom />,
  output: <OutputRoom />,
};

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  {
    path: '/piece/:id',
    element: <PiecePage />,
    children: [
      { index: true, element: <Navigate to="shapes" replace /> },
      ...ROOMS.map(({ id }) => ({ path: id, element: ROOM_PAGES[id] })),
    ],
  },
  { path: '/shapes', element: <DrawerPage /> },
  { path: '*', element: <NotFound /> },
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
        <SavingProvider>
          <Theme />
          <StepContext value={steps}>
            <RouterProvider router={router} />
          </StepContext>
        </SavingProvider>
      </EnginesProvider>
    </Provider>
  );
}
