/// <reference types="vitest/config" />
import { lingui } from '@lingui/vite-plugin';
import react from '@vitejs/plugin-react';
import { VitePWA } from 'vite-plugin-pwa';
import { defineConfig } from 'vite';
import { bundledPackages } from './bill-of-materials/bundled.ts';
import { messages } from './languages/messages.js';
import { firstPage } from './firstPage.ts';

export default defineConfig({
  plugins: [
    messages(),
    lingui(),
    react(),
    firstPage('src/App.tsx'),
    bundledPackages('../artifacts/bundled.txt'),
    // The whole front end is kept on the device: a job in hand opens without network. Answers of the API are not: what the
    // bench needs of them it keeps itself (src/api/kept.ts).
    VitePWA({
      registerType: 'autoUpdate',
      injectRegister: null,
      includeAssets: ['icon.svg'],
      manifest: {
        name: 'Pyrometron',
        short_name: 'Pyrometron',
        description: 'Which machine needs cleaning, repasting or repadding next, and the bench to do it at.',
        start_url: '/bench',
        display: 'standalone',
        background_color: '#f1ede6',
        theme_color: '#2a2622',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2}'],
        // The language of the tests is fetched when one asks for it.
        globIgnores: ['**/en-XA-*.js'],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/openapi\//],
      },
    }),
  ],
  build: {
    outDir: '../src/Pyrometron.Server/wwwroot',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5117', '/openapi': 'http://127.0.0.1:5117' } },
  test: { include: ['{src,bill-of-materials}/**/*.test.{ts,tsx}'], setupFiles: ['src/words/english.ts'] },
});
