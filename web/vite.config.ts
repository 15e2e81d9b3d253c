import tailwind from '@tailwindcss/vite';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';

export default defineConfig({
  plugins: [vue(), tailwind()],
  // Another build may see another shape in what a device remembers.
  define: { __BUILD__: JSON.stringify(Date.now().toString(36)) },
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    // The PDF maker is one piece, loaded when the first PDF is asked for.
    chunkSizeWarningLimit: 1100,
  },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: process.env.KAURI_API ?? 'http://127.0.0.1:4310', changeOrigin: false } },
  },
});
