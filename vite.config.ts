import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

const server = `http://127.0.0.1:${process.env.PORT ?? 4180}`;

export default defineConfig({
  plugins: [react(), tailwindcss()],
  build: { outDir: 'dist', sourcemap: true, target: 'es2023' },
  worker: { format: 'es' },
  server: { host: '127.0.0.1', port: 4181, proxy: { '/api': server } },
});
