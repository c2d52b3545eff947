import '@fontsource-variable/archivo';
import '@fontsource-variable/jetbrains-mono';
import './theme/tokens.css';
import './ui/layout.css';
import './shell/shell.css';
import { i18n } from '@lingui/core';
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { language, speak } from './words/language';

// The page works without it; where the browser takes none (an insecure address), it only needs the network.
if (import.meta.env.PROD && 'serviceWorker' in navigator)
  void navigator.serviceWorker.register('/sw.js').catch(() => undefined);

await speak(language(), navigator.languages);
document.documentElement.lang = i18n.locale;
const { App } = await import('./App');

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <App />
  </StrictMode>,
);
