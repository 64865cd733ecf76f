import { readdirSync, readFileSync } from 'node:fs'
import { defineConfig, mergeConfig } from 'vitest/config'
import built from './vite.config.ts'

const tests = readdirSync('src', { recursive: true, encoding: 'utf8' })
  .filter((file) => /\.test\.tsx?$/.test(file))
  .map((file) => `src/${file}`)
const saying = (words: string) => tests.filter((file) => readFileSync(file, 'utf8').includes(words))

/** Tests that put something in a module's place stand alone, and those that need no page share none. */
const mocking = saying('vi.mock(')
const pageless = saying('@vitest-environment node').filter((file) => !mocking.includes(file))
const sharing = tests.filter((file) => !mocking.includes(file) && !pageless.includes(file))

export default mergeConfig(
  built,
  defineConfig({
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
  }),
)
