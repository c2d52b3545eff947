/// <reference types="vitest/config" />
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react()],
  build: {
    outDir: '../src/Pyrometron.Server/wwwroot',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
  },
  server: { proxy: { '/api': 'http://127.0.0.1:5117', '/openapi': 'http://127.0.0.1:5117' } },
  test: { include: ['src/**/*.test.ts', 'src/**/*.test.tsx'] },
});
