import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** Bundles the server with the core; packages stay outside. */
export default defineConfig({
  root: at('.'),
  logLevel: 'warn',
  resolve: { alias: { '@core': at('../core/src/index.ts') } },
  build: {
    ssr: at('src/main.ts'),
    outDir: at('../build/server'),
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: { output: { entryFileNames: 'main.mjs' } },
  },
});
