import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** A year in seconds. */
const YEAR_S = 31_536_000;

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      // registered by main.tsx, when the first view is done
      injectRegister: null,
      manifest: {
        ...{ name: 'Velvet Reed', short_name: 'Velvet Reed', lang: 'en', start_url: '/', display: 'standalone' },
        description: 'Choose, build, measure and compare receive antennas, and plan the path to the receiver',
        ...{ background_color: '#f7f3ea', theme_color: '#5d2b4e' },
        icons: [
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png' },
          { src: '/favicon.svg', sizes: 'any', type: 'image/svg+xml' },
        ],
      },
      workbox: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm,json}'],
        maximumFileSizeToCacheInBytes: 8_000_000,
        ...{ skipWaiting: true, clientsClaim: true, cleanupOutdatedCaches: true, sourcemap: false },
        // a page comes from the server when it answers: after an upgrade nobody sees the old one
        ...{ navigateFallback: null, directoryIndex: null },
        runtimeCaching: [
          {
            urlPattern: ({ request }) => request.mode === 'navigate',
            handler: 'NetworkFirst',
            options: { cacheName: 'pages', networkTimeoutSeconds: 3, precacheFallback: { fallbackURL: 'index.html' } },
          },
          {
            // by its checksum an address names these very bytes, whichever data folder is served
            urlPattern: ({ url }) =>
              url.searchParams.has('sum') && /^\/api\/\w+\/\d+\/(samples|bytes)$/.test(url.pathname),
            handler: 'CacheFirst',
            options: {
              cacheName: 'records',
              expiration: { maxEntries: 300, maxAgeSeconds: YEAR_S },
              cacheableResponse: { statuses: [200] },
            },
          },
        ],
      },
    }),
  ],
  build: { target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': 'http://127.0.0.1:4600' } },
});
