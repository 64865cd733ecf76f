import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { build, type Plugin } from 'vite'

/** What a page without network needs; alphabets that few names are written in come when one is. */
const needed = (file: string) =>
  /\.(js|css|html|svg|png|woff2|wasm|webmanifest)$/.test(file) && !/cyrillic|greek|vietnamese/.test(file)

/** The interface's files as workbox-precaching asks for them: those whose names tell their contents need no revision. */
const files = () =>
  readdirSync('dist', { recursive: true, encoding: 'utf8' })
    .filter(needed)
    .sort()
    .map((url) => ({
      url,
      revision: url.startsWith('assets/')
        ? null
        : createHash('sha256')
            .update(readFileSync(`dist/${url}`))
            .digest('hex'),
    }))

/**
 * offline builds the service worker, with the list of what it keeps in it. Workbox has a program for that list
 * which brings three hundred packages, half of all there were.
 */
export const offline: Plugin = {
  name: 'offline',
  apply: 'build',
  closeBundle: {
    order: 'post',
    sequential: true,
    async handler() {
      await build({
        configFile: false,
        logLevel: 'warn',
        publicDir: false,
        define: { 'self.__WB_MANIFEST': JSON.stringify(files()) },
        build: {
          emptyOutDir: false,
          rolldownOptions: { input: 'src/app/sw.ts', output: { entryFileNames: 'sw.js', codeSplitting: false } },
        },
      })
    },
  },
}
