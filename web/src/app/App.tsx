import { useEffect } from 'react';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { EnginesProvider } from '../context';
import { DrawerPage } from '../drawer';
import { MatchRoom, OutputRoom, PiecePage, ShapesRoom } from '../rooms';
import { Shelf } from '../shelf';
import { createStore, sessionActions, useAppDispatch, useAppSelector } from '../state';
import { NotFound } from './NotFound';

const THEME_KEY = 'arcshift.theme';

const router = createBrowserRouter([
  { path: '/', element: <Shelf /> },
  {
    path: '/piece/:id',
    element: <PiecePage />,
    children: [
      { index: true, element: <Navigate to="shapes" replace /> },
      { path: 'shapes', element: <ShapesRoom /> },
      { path: 'match', element: <MatchRoom /> },
      { path: 'output', element: <OutputRoom /> },
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
    const stored = localStorage.getItem(THEME_KEY);
    if (stored === 'dark' || (stored === null && window.matchMedia('(prefers-color-scheme: dark)').matches))
      dispatch(sessionActions.themeChosen('dark'));
  }, [dispatch]);
  useEffect(() => {
    const before = document.documentElement.dataset.bsTheme;
    document.documentElement.dataset.bsTheme = theme;
    if (before !== undefined && before !== theme) localStorage.setItem(THEME_KEY, theme);
  }, [theme]);
  return null;
}

const store = createStore();

export function App() {
  return (
    <Provider store={store}>
      <EnginesProvider>
        <Theme />
        <RouterProvider router={router} />
      </EnginesProvider>
    </Provider>
  );
}
