import { render, screen } from '@testing-library/react'
import { Suspense } from 'react'
import { it } from 'vitest'
import { later } from './later'

const Word = ({ says }: { says: string }) => <p>{says}</p>

it('shows that it waits, where it was not loaded before', async () => {
  const Later = later(async () => Word)
  render(
    <Suspense fallback="loading">
      <Later says="clean" />
    </Suspense>,
  )
  screen.getByText('loading')
  await screen.findByText('clean')
})

it('is there at once, where it was', async () => {
  const Later = later(async () => Word)
  await Later.load()
  const { rerender } = render(<Later says="clean" />)
  screen.getByText('clean')
  rerender(<Later says="nearly" />)
  screen.getByText('nearly')
})
