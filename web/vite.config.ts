import tailwind from '@tailwindcss/vite';
import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';

export default defineConfig({
  plugins: [
    vue(),
    tailwind(),
    // What a page opens with is packed once, as small as can be; the large pieces that come later are packed as they go.
    compression({
      algorithms: [defineAlgorithm('brotliCompress')],
      include: /\.(js|css)$/,
      exclude: /(pdfmake|engine)-[\w-]+\.js$/,
      threshold: 1000,
    }),
    VitePWA({
      // A new Kauri waits until nothing is half typed: the application asks.
      registerType: 'prompt',
      injectRegister: false,
      workbox: {
        globPatterns: ['**/*.{js,css,html,woff2,svg,png,wasm}'],
        // The PDF maker and the solvers are large, and wanted without a network too.
        maximumFileSizeToCacheInBytes: 6_000_000,
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//],
        inlineWorkboxRuntime: true,
      },
      manifest: {
        name: 'Kauri',
        short_name: 'Kauri',
        description: 'For people who raise young trees: what stands, what is to be done, and the working.',
        lang: 'en',
        start_url: '/today',
        display: 'standalone',
        background_color: '#F4EFE4',
        theme_color: '#1F261E',
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/icon-maskable-512.png', sizes: '512x512', type: 'image/png', purpose: 'maskable' },
        ],
      },
    }),
  ],
  // Another build may see another shape in what a device remembers.
  define: { __BUILD__: JSON.stringify(Date.now().toString(36)) },
  // A catalogue of words is one string, read when its language is spoken.
  json: { stringify: true, namedExports: false },
  worker: { format: 'es' },
  resolve: {
    alias: [{ find: /^fflate$/, replacement: '/src/tables/zipHere.ts' }],
  },
  build: {
    target: 'es2022',
    // The PDF maker is one piece, loaded when the first PDF is asked for.
    chunkSizeWarningLimit: 1100,
    rolldownOptions: {
      output: {
        codeSplitting: {
          // A hundred small files cost a page more than what is in them: what the door needs is one, and so is what
          // five pages or more share. Nearly all of that is wanted by every page; a lower share made each page larger.
          groups: [
            { name: 'door', tags: ['$initial'], priority: 2 },
            { name: 'house', minShareCount: 5, maxModuleSize: 200_000, priority: 1 },
          ],
        },
      },
    },
  },
  server: {
    host: '127.0.0.1',
    proxy: { '/api': { target: process.env.KAURI_API ?? 'http://127.0.0.1:4310', changeOrigin: false } },
  },
});
