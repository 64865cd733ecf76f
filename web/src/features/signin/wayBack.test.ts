import { expect, it } from 'vitest'
import { wayBack } from './queries'

it('leads back to a page of ours, and nowhere else', () => {
  expect(wayBack('?to=%2Fclass%2Fc%2Fplan%3Fstep%3D1')).toBe('/class/c/plan?step=1')
  expect(wayBack('')).toBe('/')
  for (const elsewhere of [
    '//evil.example',
    'https://evil.example',
    '/sign-in?to=/',
    'javascript:alert(1)',
    '/\\evil',
  ]) {
    expect(wayBack(`?to=${encodeURIComponent(elsewhere)}`)).toBe('/')
  }
})
