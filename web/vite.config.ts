import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants } from 'node:zlib'
import tailwindcss from '@tailwindcss/vite'
import react from '@vitejs/plugin-react'
import { VitePWA } from 'vite-plugin-pwa'
import { defineConfig } from 'vitest/config'

/** squeeze writes each file beside itself in brotli; the server hands that out, so that it compresses nothing while children wait. */
const squeeze = {
  name: 'squeeze',
  apply: 'build' as const,
  closeBundle: {
    order: 'post' as const,
    sequential: true,
    handler() {
      const files = readdirSync('dist', { recursive: true, encoding: 'utf8' })
      for (const file of files.filter((f) => /\.(js|css|wasm|svg|html)$/.test(f))) {
        // Ten seconds here are a second for each phone that loads it.
        const params = {
          [constants.BROTLI_PARAM_QUALITY]: 11,
          [constants.BROTLI_PARAM_LGWIN]: 24,
        }
        writeFileSync(`dist/${file}.br`, brotliCompressSync(readFileSync(`dist/${file}`), { params }))
      }
    },
  },
}

const tests = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.test\.tsx?$/.test(file))
  .map((file) => `src/${file}`)
const saying = (words: string) => tests.filter((file) => readFileSync(file, 'utf8').includes(words))

/** Tests that put something in a module's place stand alone, and those that need no page share none. */
const mocking = saying('vi.mock(')
const pageless = saying('@vitest-environment node').filter((file) => !mocking.includes(file))
const sharing = tests.filter((file) => !mocking.includes(file) && !pageless.includes(file))

export default defineConfig({
  plugins: [
    react(),
    tailwindcss(),
    VitePWA({
      injectRegister: false, // app/main.tsx does, the policy allows no inline script
      manifest: {
        name: 'Early Chorus',
        short_name: 'Early Chorus',
        description: 'Daily warm-ups for young wind players',
        start_url: '/',
        display: 'standalone',
        background_color: '#faf6ee',
        theme_color: '#faf6ee',
        icons: [
          { src: '/icon.svg', sizes: 'any', type: 'image/svg+xml' },
          { src: '/icon-192.png', sizes: '192x192', type: 'image/png' },
          { src: '/icon-512.png', sizes: '512x512', type: 'image/png', purpose: 'any maskable' },
        ],
      },
      strategies: 'injectManifest',
      srcDir: 'src/app',
      filename: 'sw.ts',
      injectManifest: {
        globPatterns: ['**/*.{js,css,html,svg,png,woff2,wasm}'],
        globIgnores: ['**/*{cyrillic,greek,vietnamese}*'],
        maximumFileSizeToCacheInBytes: 8 << 20,
      },
    }),
    squeeze,
  ],
  build: { assetsInlineLimit: 0, emptyOutDir: true },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
  // Minutes are never reached by a test that works; five seconds are, on a busy machine.
  test: {
    environment: 'jsdom',
    setupFiles: ['src/testing/setup.ts'],
    testTimeout: 180_000,
    pool: 'threads',
    unstubGlobals: true,
    // A page made anew for every file costs more than the tests on it.
    projects: [
      { extends: true, test: { name: 'alone', include: mocking } },
      { extends: true, test: { name: 'no page', include: pageless } },
      { extends: true, test: { name: 'one page', include: sharing, isolate: false } },
    ],
  },
})
