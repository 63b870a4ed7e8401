import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vite';

const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** Bundles the server and its worker with the core; packages stay outside. */
export default defineConfig({
  root: at('.'),
  logLevel: 'warn',
  resolve: { alias: { '@core': at('../core/src/index.ts') } },
  build: {
    ssr: true,
    outDir: at('../build/server'),
    emptyOutDir: true,
    target: 'node20',
    rollupOptions: {
      input: {
        main: at('src/main.ts'),
        'start-server': at('src/start-server.ts'),
        'upload-worker': at('src/checks/upload-worker.ts'),
      },
      /* All in one folder: what starts the server finds its worker beside it. */
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
});
