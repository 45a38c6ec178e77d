import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [react(), tailwindcss()],
  // For work on the studio alone: the API of a Velarium started with `npm start`.
  server: { proxy: { '/api': 'http://127.0.0.1:4400' } },
  build: { target: 'es2022', assetsInlineLimit: 0 },
});
