import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';
import { constants } from 'node:zlib';
import { compression, defineAlgorithm } from 'vite-plugin-compression2';
import { VitePWA } from 'vite-plugin-pwa';
import { groups } from './chunks';

declare const process: { env: Record<string, string | undefined> };

export default defineConfig({
  plugins: [
    react(),
    // Made once here, so that no server packs the same file for every phone.
    compression({
      include: /\.(js|css|html|svg|webmanifest)$/,
      threshold: 1_000,
      algorithms: [
        defineAlgorithm('gzip', { level: 9 }),
        // The last step of quality would make files 1.6 % smaller and take two and a half times as long.
        defineAlgorithm('brotliCompress', {
          params: { [constants.BROTLI_PARAM_QUALITY]: 10 },
        }),
      ],
      scheduler: { limit: 2 },
    }),
    VitePWA({
      // The pages must open on a field without network; the data they need is kept in IndexedDB.
      minify: false,
      registerType: 'autoUpdate',
      injectRegister: false,
      manifest: {
        name: 'Gravek',
        short_name: 'Gravek',
        description: 'Plans run-ups, runs drill sets, tracks faults.',
        display: 'standalone',
        background_color: '#f4efe4',
        theme_color: '#1c2621',
        icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
      },
      workbox: {
        // Nothing is loaded into it from elsewhere.
        inlineWorkboxRuntime: true,
        globPatterns: ['**/*.{js,css,html,svg,woff2}'],
        // Words are kept when they are first heard, or with a session that is kept for the field.
        runtimeCaching: [
          {
            urlPattern: /\/assets\/[^/]+\.wav$/,
            handler: 'CacheFirst',
            options: { cacheName: 'gravek-words', expiration: { maxEntries: 60 } },
          },
        ],
        navigateFallback: '/index.html',
        navigateFallbackDenylist: [/^\/api\//, /^\/calendar\//, /^\/(healthz|readyz)/],
      },
    }),
  ],
  build: {
    // The content security policy allows no data: address for fonts and styles.
    assetsInlineLimit: 0,
    target: 'es2022',
    // A test adds up what each place loads.
    manifest: true,
    modulePreload: false,
    rolldownOptions: { output: { codeSplitting: { groups: groups() } } },
  },
  server: {
    proxy: { '/api': { target: process.env.GRAVEK_API ?? 'http://127.0.0.1:5180' } },
  },
  css: {
    preprocessorOptions: {
      scss: {
        quietDeps: true,
        silenceDeprecations: ['import', 'global-builtin', 'color-functions', 'if-function'],
      },
    },
  },
});
