// @vitest-environment node
import { expect, it } from 'vitest'
import { encodeWAV } from './wav'

it('writes a canonical 16-bit file and clips what is too loud', async () => {
  const blob = encodeWAV([new Float32Array([0, 0.5]), new Float32Array([-2])], 48000)
  const view = new DataView(await new Response(blob).arrayBuffer())
  expect(view.byteLength).toBe(44 + 6)
  expect(view.getUint32(24, true)).toBe(48000)
  expect([44, 46, 48].map((at) => view.getInt16(at, true))).toEqual([0, 16384, -32768])
})
