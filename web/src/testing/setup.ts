import { configure } from '@testing-library/react'
import { afterEach } from 'vitest'
import { asked } from './server'

// The client takes hold of fetch and Request when it is first imported, so they are
// replaced before any test is: addresses are a school's, and answers are the
// test's own.
class SchoolRequest extends Request {
  constructor(input: RequestInfo | URL, init?: RequestInit) {
    super(typeof input === 'string' ? new URL(input, 'http://school.example') : input, init)
  }
}
globalThis.Request = SchoolRequest
globalThis.fetch = (input, init) => asked(new SchoolRequest(input instanceof URL ? input.href : input, init))

// What a browser has and jsdom does not; nothing is ever laid out here.
class Unmeasured {
  observe() {}
  unobserve() {}
  disconnect() {}
}
globalThis.ResizeObserver ??= Unmeasured as typeof ResizeObserver
if (typeof window !== 'undefined') {
  window.HTMLMediaElement.prototype.play = async () => {}
  window.HTMLMediaElement.prototype.pause = () => {}
}

afterEach(async () => {
  if (typeof document === 'undefined') return
  const { cleanup } = await import('@testing-library/react')
  cleanup()
  localStorage.clear()
})

// A second is never reached by what works, but for a machine with much else to do.
configure({ asyncUtilTimeout: 60_000 })
