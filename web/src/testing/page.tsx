import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { render } from '@testing-library/react'
import { type ReactElement, Suspense } from 'react'
import { createMemoryRouter, RouterProvider } from 'react-router'

/** at is the address that is open; path says which of its parts are parameters. */
type Place = { at?: string; path?: string }

/** open shows an element as a page does: with a query cache of its own, at an address. where tells the address later on. */
export function open(element: ReactElement, { at = '/', path = '/*' }: Place = {}) {
  const client = new QueryClient({ defaultOptions: { queries: { retry: false }, mutations: { retry: false } } })
  const router = createMemoryRouter(
    [
      { path, element },
      { path: '*', element: <p>another page</p> },
    ],
    { initialEntries: [at] },
  )
  const page = render(
    <QueryClientProvider client={client}>
      <Suspense fallback="waiting">
        <RouterProvider router={router} />
      </Suspense>
    </QueryClientProvider>,
  )
  return { ...page, client, where: () => router.state.location.pathname + router.state.location.search }
}
