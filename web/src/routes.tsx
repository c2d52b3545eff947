import { lazy } from 'react';
import { createBrowserRouter } from 'react-router';
import { Rounds } from './places/rounds/Rounds';
import { NotFound, RouteBroken } from './ui/NotFound';
import { Shell } from './shell/Shell';

/** Needed on an empty database alone. */
const Start = lazy(async () => ({ default: (await import('./places/start/Start')).Start }));

/** Rounds is the first screen; the other places are fetched when they are gone to. */
export const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <RouteBroken />,
    children: [
      { index: true, element: <Rounds empty={<Start />} /> },
      { path: 'weeks', lazy: async () => ({ Component: (await import('./places/weeks/Weeks')).Weeks }) },
      {
        path: 'weeks/people',
        lazy: async () => ({ Component: (await import('./places/weeks/Staff')).Staff }),
      },
      {
        path: 'weeks/sheet/:person/:day',
        lazy: async () => ({ Component: (await import('./places/weeks/DaySheet')).DaySheet }),
      },
      {
        path: 'weeks/campaigns',
        lazy: async () => ({ Component: (await import('./places/campaigns/Campaigns')).Campaigns }),
      },
      {
        path: 'weeks/campaigns/new',
        lazy: async () => ({ Component: (await import('./places/campaigns/NewCampaign')).NewCampaign }),
      },
      {
        path: 'weeks/campaigns/:id',
        lazy: async () => ({ Component: (await import('./places/campaigns/CampaignPage')).CampaignPage }),
      },
      { path: 'halls', lazy: async () => ({ Component: (await import('./places/halls/Halls')).Halls }) },
      {
        path: 'machines/:tag',
        lazy: async () => ({ Component: (await import('./places/machine/Machine')).Machine }),
      },
      { path: 'bench', lazy: async () => ({ Component: (await import('./places/bench/Bench')).Bench }) },
      {
        path: 'bench/new',
        lazy: async () => ({ Component: (await import('./places/bench/NewJob')).NewJob }),
      },
      { path: 'bench/:id', lazy: async () => ({ Component: (await import('./places/bench/Job')).Job }) },
      {
        path: 'bench/:id/paper',
        lazy: async () => ({ Component: (await import('./places/bench/paper/Paper')).Paper }),
      },
      {
        path: 'bench/:id/typed',
        lazy: async () => ({ Component: (await import('./places/bench/paper/Typed')).Typed }),
      },
      {
        path: 'bench/:id/proof',
        lazy: async () => ({ Component: (await import('./places/bench/paper/ProofSheet')).ProofSheet }),
      },
      { path: 'stores', lazy: async () => ({ Component: (await import('./places/stores/Stores')).Stores }) },
      {
        path: 'stores/lots/:id',
        lazy: async () => ({ Component: (await import('./places/stores/LotPage')).LotPage }),
      },
      {
        path: 'stores/count',
        lazy: async () => ({ Component: (await import('./places/stores/Count')).Count }),
      },
      {
        path: 'stores/shopping',
        lazy: async () => ({ Component: (await import('./places/stores/Shopping')).Shopping }),
      },
      {
        path: 'stores/cutting',
        lazy: async () => ({ Component: (await import('./places/stores/CuttingPaper')).CuttingPaper }),
      },
      {
        path: 'stores/paste',
        lazy: async () => ({ Component: (await import('./places/stores/PasteFor')).PasteFor }),
      },
      {
        path: 'stores/pad',
        lazy: async () => ({ Component: (await import('./places/stores/WhichPad')).WhichPad }),
      },
      {
        path: 'stores/labels',
        lazy: async () => ({ Component: (await import('./places/stores/LotLabels')).LotLabels }),
      },
      { path: 'bring', lazy: async () => ({ Component: (await import('./places/bring/Bring')).Bring }) },
      { path: 'proof', lazy: async () => ({ Component: (await import('./places/proof/Proof')).Proof }) },
      {
        path: 'proof/report',
        lazy: async () => ({ Component: (await import('./places/proof/Report')).Report }),
      },
      { path: 'log', lazy: async () => ({ Component: (await import('./places/logbook/LogBook')).LogBook }) },
      { path: 'models', lazy: async () => ({ Component: (await import('./places/models/Models')).Models }) },
      {
        path: 'models/:model',
        lazy: async () => ({ Component: (await import('./places/models/ModelNotes')).ModelNotesPage }),
      },
      { path: 'labels', lazy: async () => ({ Component: (await import('./places/labels/Labels')).Labels }) },
      { path: 'scan', lazy: async () => ({ Component: (await import('./places/labels/Scan')).Scan }) },
      { path: 'intake', lazy: async () => ({ Component: (await import('./places/intake/Intake')).Intake }) },
      { path: 'start', lazy: async () => ({ Component: (await import('./places/start/Start')).Start }) },
      { path: 'round', lazy: async () => ({ Component: (await import('./places/round/Round')).Round }) },
      { path: 'notices', lazy: async () => ({ Component: (await import('./places/notices/News')).News }) },
      {
        path: 'notices/people',
        lazy: async () => ({ Component: (await import('./places/notices/WhoIsTold')).WhoIsTold }),
      },
      {
        path: 'account',
        lazy: async () => ({ Component: (await import('./places/account/Account')).Account }),
      },
      {
        path: 'own',
        lazy: async () => ({ Component: (await import('./places/own/OwnMachines')).OwnMachines }),
      },
      { path: 'phone', lazy: async () => ({ Component: (await import('./places/phone/Phone')).Phone }) },
      {
        path: 'rules/accounts',
        lazy: async () => ({ Component: (await import('./places/accounts/Accounts')).Accounts }),
      },
      {
        path: 'rules/audit',
        lazy: async () => ({ Component: (await import('./places/audit/Audit')).Audit }),
      },
      {
        path: 'rules/backups',
        lazy: async () => ({ Component: (await import('./places/backups/Backups')).Backups }),
      },
      {
        path: 'rules/reference',
        lazy: async () => ({ Component: (await import('./places/reference/Reference')).Reference }),
      },
      {
        path: 'rules/housekeeping',
        lazy: async () => ({ Component: (await import('./places/housekeeping/Housekeeping')).Housekeeping }),
      },
      { path: 'rules', lazy: async () => ({ Component: (await import('./places/rules/Rules')).Rules }) },
      { path: '*', element: <NotFound /> },
    ],
  },
  {
    path: '/enter',
    errorElement: <RouteBroken />,
    lazy: async () => ({ Component: (await import('./places/enter/Enter')).Enter }),
  },
]);
