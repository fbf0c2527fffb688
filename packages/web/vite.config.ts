import { readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { gzipSync } from 'node:zlib';
import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { VitePWA } from 'vite-plugin-pwa';

/** A year in seconds. */
const YEAR_S = 31_536_000;

/** Files that are worth pressing, bytes. */
const PRESSED_FROM = 1400;

/** Presses what is sent as text once, when it is built: a first visit waits for no pressing. */
function pressed(): Plugin {
  let folder = '';
  return {
    name: 'pressed',
    apply: 'build',
    configResolved(config) {
      folder = path.resolve(config.root, config.build.outDir, config.build.assetsDir);
    },
    closeBundle() {
      for (const name of readdirSync(folder)) {
        const file = path.join(folder, name);
        if (/\.(js|css|json|svg|wasm)$/.test(name) && statSync(file).size >= PRESSED_FROM)
          writeFileSync(`${file}.gz`, gzipSync(readFileSync(file), { level: 9 }));
      }
    },
  };
}

export default defineConfig({
  root: import.meta.dirname,
  plugins: [
    react(),
    tailwindcss(),
    pressed(),
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
  build: {
    ...{ target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 1500 },
    rolldownOptions: {
      output: {
        // what most rooms share comes in a few files: a first visit asks for tens of them otherwise
        codeSplitting: {
          groups: [
            { name: 'libraries', test: /node_modules/, minShareCount: 3 },
            // what lays pages out is heavy, and loads with the first page that is laid out
            { name: 'shared', test: /packages(?!.*(ui.pdf|report-pdf))/, minShareCount: 2 },
          ],
        },
      },
    },
  },
  server: { host: '127.0.0.1', port: 5173, proxy: { '/api': 'http://127.0.0.1:4600' } },
});
