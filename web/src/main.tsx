import '@fontsource-variable/archivo';
import '@fontsource-variable/jetbrains-mono';
import './theme/tokens.css';
import './ui/layout.css';
import './shell/shell.css';
import { i18n } from '@lingui/core';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { askForRows } from './api/early';
import { letOwnStylesIn } from './theme/ownStyles';
import { language, speak } from './words/language';

letOwnStylesIn();

// The page works without it; where the browser takes none (an insecure address), it only needs the network.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined);

/** Not awaited by the module itself: the page's chunk may import from the one that stands here. */
async function start() {
  const isRounds = location.pathname === '/';
  if (isRounds) askForRows();
  await speak(language(), navigator.languages);
  document.documentElement.lang = i18n.locale;
  const [{ App }, { rowsAtHand }] = await Promise.all([import('./App'), import('./api/queryClient')]);
  if (isRounds) await rowsAtHand();
  createRoot(document.getElementById('root')!).render(
    <StrictMode>
      <App />
    </StrictMode>,
  );
}

void start();
