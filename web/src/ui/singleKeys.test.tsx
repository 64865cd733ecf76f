import { fireEvent, render, screen } from '@testing-library/react'
import { afterEach, describe, expect, it } from 'vitest'
import { isKeyOfPage, SingleKeys } from './singleKeys'

/** asked is whether a key that is pressed on something is the page's. */
function asked(on: Element, key: string, more: KeyboardEventInit = {}): boolean {
  let said = false
  const hear = (e: KeyboardEvent) => {
    said = isKeyOfPage(e)
  }
  window.addEventListener('keydown', hear)
  fireEvent.keyDown(on, { key, ...more })
  window.removeEventListener('keydown', hear)
  return said
}

describe('single keys', () => {
  afterEach(() => localStorage.clear())

  it('are the page’s, and leave to a control what presses it or is written in it', () => {
    render(
      <>
        <button type="button">Press</button>
        <input aria-label="words" />
        <input type="checkbox" aria-label="tick" />
        <select aria-label="choice" />
      </>,
    )
    const button = screen.getByRole('button')
    expect(asked(document.body, ' ')).toBe(true)
    expect(asked(button, 'a')).toBe(true)
    expect(asked(button, ' ')).toBe(false)
    expect(asked(button, 'Enter')).toBe(false)
    expect(asked(screen.getByLabelText('tick'), ' ')).toBe(false)
    expect(asked(screen.getByLabelText('words'), 'a')).toBe(false)
    expect(asked(screen.getByLabelText('choice'), 'a')).toBe(false)
    expect(asked(document.body, 'a', { ctrlKey: true })).toBe(false)
  })

  it('can be switched off on this device', () => {
    render(<SingleKeys />)
    fireEvent.click(screen.getByRole('checkbox'))
    expect(asked(document.body, 'a')).toBe(false)
    fireEvent.click(screen.getByRole('checkbox'))
    expect(asked(document.body, 'a')).toBe(true)
  })
})
