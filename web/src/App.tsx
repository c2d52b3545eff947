import { i18n } from '@lingui/core';
import { I18nProvider } from '@lingui/react';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { ConfigProvider } from 'antd';
import { Fragment, useLayoutEffect } from 'react';
import { RouterProvider } from 'react-router';
import { ProblemError } from './api/client';
import { outbox } from './api/outbox';
import { router } from './routes';
import { useDark, usePreferences } from './words/preferences';
import { antdTheme } from './theme/antdTheme';
import { paint } from './theme/tokens';
import { antdWords } from './ui/antdWords';

const client = new QueryClient({
  defaultOptions: {
    queries: {
      staleTime: 5_000,
      // What the server refused it will refuse again; what did not reach it may next time.
      retry: (failures, error) => failures < 2 && !(error instanceof ProblemError && error.problem.status),
    },
  },
});

// Whatever page is open when an entry arrives: what the server makes of it is asked for anew.
outbox.onArrival((job) => {
  client.setQueryData(['job', job.id], job);
  void client.invalidateQueries({ predicate: (q) => q.queryKey[0] !== 'job' });
});

/** The whole of it. Loaded when its language is known: texts are put into words where they stand. */
export function App() {
  const dark = useDark();
  // Figures are put into words where they stand: another unit draws the page anew.
  const { unit } = usePreferences();
  useLayoutEffect(() => paint(dark), [dark]);
  return (
    <I18nProvider i18n={i18n}>
      <ConfigProvider theme={antdTheme(dark)} locale={antdWords}>
        <Fragment key={unit}>
          <QueryClientProvider client={client}>
            <RouterProvider router={router} />
          </QueryClientProvider>
        </Fragment>
      </ConfigProvider>
    </I18nProvider>
  );
}
