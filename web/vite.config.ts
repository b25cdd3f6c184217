import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [react(), tailwindcss()],
  build: { target: 'es2022', chunkSizeWarningLimit: 700, sourcemap: false },
  server: { proxy: { '/api': `http://127.0.0.1:${process.env['PORT'] ?? 4610}` } },
});
