import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { brotliCompressSync, constants } from 'node:zlib'
import type { Plugin } from 'vite'

/** squeeze writes each file beside itself in brotli; the server hands that out, so that it compresses nothing while children wait. */
export const squeeze: Plugin = {
  name: 'squeeze',
  apply: 'build',
  closeBundle: {
    order: 'post',
    sequential: true,
    handler() {
      const files = readdirSync('dist', { recursive: true, encoding: 'utf8' })
      for (const file of files.filter((f) => /\.(js|css|wasm|svg|html)$/.test(f))) {
        // Of the core's six megabytes the last step would take half a minute of processor, for 4 %.
        const params = { [constants.BROTLI_PARAM_QUALITY]: file.endsWith('.wasm') ? 10 : 11 }
        writeFileSync(`dist/${file}.br`, brotliCompressSync(readFileSync(`dist/${file}`), { params }))
      }
    },
  },
}
