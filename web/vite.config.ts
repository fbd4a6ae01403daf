import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import { VitePWA } from 'vite-plugin-pwa'
import vuetify from 'vite-plugin-vuetify'

/**
 * Without a connection the page itself opens from the browser, and what was read lately is shown.
 * Changes never pass through here: the outbox keeps them.
 */
const offline = VitePWA({
  registerType: 'autoUpdate',
  injectRegister: 'script-defer',
  manifest: {
    name: 'Firm Footing',
    short_name: 'Firm Footing',
    description: 'From ball flight, divot and strike to the footwork and pressure causes.',
    display: 'standalone',
    start_url: '/',
    icons: [{ src: '/mark.svg', sizes: 'any', type: 'image/svg+xml' }],
  },
  workbox: {
    globPatterns: ['**/*.{js,css,html,svg,woff2}'],
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//],
    cleanupOutdatedCaches: true,
    inlineWorkboxRuntime: true,
    runtimeCaching: [
      {
        urlPattern: ({ url, request }) =>
          url.pathname.startsWith('/api/') &&
          request.method === 'GET' &&
          !url.pathname.endsWith('/revision') &&
          !url.pathname.endsWith('/health'),
        handler: 'NetworkFirst',
        options: {
          cacheName: 'read-lately',
          networkTimeoutSeconds: 10,
          expiration: { maxEntries: 300, maxAgeSeconds: 14 * 24 * 3600 },
          cacheableResponse: { statuses: [200] },
        },
      },
    ],
  },
})

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true }), offline],
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  server: { proxy: { '/api': 'http://127.0.0.1:8700' } },
  build: { chunkSizeWarningLimit: 900 },
  test: {
    include: ['tests/**/*.test.ts'],
    environment: 'jsdom',
    // one page for all of a worker's files: Vuetify is loaded once, which takes most of the time
    isolate: false,
    setupFiles: ['tests/setup.ts'],
    server: { deps: { inline: ['vuetify'] } },
  },
})
