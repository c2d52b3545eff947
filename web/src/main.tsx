import '@fontsource-variable/archivo';
import '@fontsource-variable/jetbrains-mono';
import './theme/tokens.css';
import './shell/shell.css';
import { QueryClient, QueryClientProvider } from '@tanstack/react-query';
import { App as AntApp, ConfigProvider } from 'antd';
import { StrictMode, useLayoutEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { ProblemError } from './api/client';
import { outbox } from './api/outbox';
import { router } from './routes';
import { useDark, usePreferences } from './words/preferences';
import { antdTheme } from './theme/antdTheme';
import { paint } from './theme/tokens';

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

export function Root() {
  const dark = useDark();
  // Figures are put into words where they stand: another unit draws the page anew.
  const { unit } = usePreferences();
  useLayoutEffect(() => paint(dark), [dark]);
  return (
    <ConfigProvider theme={antdTheme(dark)}>
      <AntApp key={unit} style={{ height: '100%' }}>
        <QueryClientProvider client={client}>
          <RouterProvider router={router} />
        </QueryClientProvider>
      </AntApp>
    </ConfigProvider>
  );
}

// The page works without it; where the browser takes none (an insecure address), it only needs the network.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined);

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <Root />
  </StrictMode>,
);
