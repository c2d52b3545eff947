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
      { path: 'bench/new', lazy: async () => ({ Component: (await import('./bench/NewJob')).NewJob }) },
      { path: 'bench/:id', lazy: async () => ({ Component: (await import('./bench/Job')).Job }) },
      {
        path: 'bench/:id/paper',
        lazy: async () => ({ Component: (await import('./bench/paper/Paper')).Paper }),
      },
      {
        path: 'bench/:id/typed',
        lazy: async () => ({ Component: (await import('./bench/paper/Typed')).Typed }),
      },
      {
        path: 'bench/:id/proof',
        lazy: async () => ({ Component: (await import('./bench/paper/ProofSheet')).ProofSheet }),
      },
      { path: 'log', lazy: async () => ({ Component: (await import('./logbook/LogBook')).LogBook }) },
      { path: 'models', lazy: async () => ({ Component: (await import('./models/Models')).Models }) },
      {
        path: 'models/:model',
        lazy: async () => ({ Component: (await import('./models/ModelNotes')).ModelNotesPage }),
      },
      { path: 'labels', lazy: async () => ({ Component: (await import('./labels/Labels')).Labels }) },
      { path: 'scan', lazy: async () => ({ Component: (await import('./labels/Scan')).Scan }) },
      { path: 'intake', lazy: async () => ({ Component: (await import('./intake/Intake')).Intake }) },
      { path: 'start', lazy: async () => ({ Component: (await import('./start/Start')).Start }) },
      { path: 'round', lazy: async () => ({ Component: (await import('./entry/Round')).Round }) },
      { path: 'rules', lazy: async () => ({ Component: (await import('./rules/Rules')).Rules }) },
      { path: '*', element: <NotFound /> },
    ],
  },
]);
