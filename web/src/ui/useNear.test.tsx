import { fireEvent, render, screen } from '@testing-library/react'
import { expect, it, vi } from 'vitest'
import { useNear } from './useNear'

function Row() {
  const [ref, near] = useNear<HTMLDivElement>()
  return <div ref={ref}>{near ? 'drawn' : 'far'}</div>
}

it('is drawn before the printer takes the page, though it never came near', () => {
  vi.stubGlobal(
    'IntersectionObserver',
    class {
      observe() {}
      unobserve() {}
    },
  )
  render(<Row />)
  expect(screen.getByText('far')).toBeTruthy()
  let seen = ''
  window.addEventListener('beforeprint', () => {
    seen = document.body.textContent ?? ''
  })
  fireEvent(window, new Event('beforeprint'))
  expect(seen).toBe('drawn')
})
