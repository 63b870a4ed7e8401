import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

export default defineConfig({
  root: at('.'),
  logLevel: 'warn',
  plugins: [react()],
  resolve: { alias: { '@core': at('../core/src/index.ts') } },
  css: {
    preprocessorOptions: {
      scss: { quietDeps: true, silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'] },
    },
  },
  // Fonts stay files: the content security policy allows no data: fonts.
  build: {
    outDir: at('../build/web'),
    emptyOutDir: true,
    target: 'es2023',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 1500,
  },
  worker: { format: 'es' },
});
