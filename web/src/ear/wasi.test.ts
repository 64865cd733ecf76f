// @vitest-environment node
import { expect, test } from 'vitest'
import { wasi } from './wasi'

// As the interface has it (WASI preview 1, environ_sizes_get and environ_get): how many variables and
// how many letters; then where each begins, and the letters, each variable ended by a zero.
test('tells Go its one variable', () => {
  const memory = new WebAssembly.Memory({ initial: 1 })
  const system = wasi(() => memory) as Record<string, (...numbers: number[]) => number>
  const view = new DataView(memory.buffer)
  expect(system.environ_sizes_get?.(8, 12)).toBe(0)
  expect(view.getUint32(8, true)).toBe(1)
  const size = view.getUint32(12, true)
  expect(system.environ_get?.(16, 32)).toBe(0)
  expect(view.getUint32(16, true)).toBe(32)
  expect(new TextDecoder().decode(new Uint8Array(memory.buffer, 32, size + 1))).toBe('GOGC=300\0\0')
})
