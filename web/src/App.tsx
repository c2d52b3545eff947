import { i18n } from '@lingui/core';
import { I18nProvider } from '@lingui/react';
import { QueryClientProvider } from '@tanstack/react-query';
import { ConfigProvider } from 'antd';
import { Fragment, useLayoutEffect } from 'react';
import { RouterProvider } from 'react-router';
import { queryClient } from './api/queryClient';
import { router } from './routes';
import { useDark, usePreferences } from './words/preferences';
import { antdTheme } from './theme/antdTheme';
import { paint } from './theme/tokens';
import { antdWords } from './ui/antdWords';

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
          <QueryClientProvider client={queryClient}>
            <RouterProvider router={router} />
          </QueryClientProvider>
        </Fragment>
      </ConfigProvider>
    </I18nProvider>
  );
}
