import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

/** Builds the web application; in development the server of `npm run dev` answers /api. */
export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
  resolve: { conditions: ['source', 'browser', 'module', 'import', 'default'] },
  build: { outDir: 'dist/app', emptyOutDir: true, chunkSizeWarningLimit: 1500, assetsInlineLimit: 0 },
  server: { proxy: { '/api': 'http://localhost:4600' } },
});
