import { createBrowserRouter } from 'react-router';
import { Rounds } from './rounds/Rounds';
import { NotFound, RouteBroken } from './shell/NotFound';
import { Shell } from './shell/Shell';

/** Rounds is the first screen; the other places are fetched when they are gone to. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <RouteBroken />,
    children: [
      { index: true, element: <Rounds /> },
      { path: 'halls', lazy: async () => ({ Component: (await import('./halls/Halls')).Halls }) },
      {
        path: 'machines/:tag',
        lazy: async () => ({ Component: (await import('./machine/Machine')).Machine }),
      },
      { path: 'bench', lazy: async () => ({ Component: (await import('./bench/Bench')).Bench }) },
      { path: 'bench/:id', lazy: async () => ({ Component: (await import('./bench/Job')).Job }) },
      { path: 'intake', lazy: async () => ({ Component: (await import('./intake/Intake')).Intake }) },
      { path: 'rules', lazy: async () => ({ Component: (await import('./rules/Rules')).Rules }) },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
