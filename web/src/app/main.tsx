import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { setNonce } from 'get-nonce'
import { StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { RouterProvider } from 'react-router'
import { Failure } from '../api/client'
import { router } from './routes'
import './styles.css'

/**
 * Answers are kept for five seconds: a page gone back to is there at once, and what
 * somebody else changed meanwhile soon is.
 */
const queries = new QueryClient({
  defaultOptions: {
    queries: {
      // What the server says plainly (4xx) does not change by asking again.
      retry: (count, error) => count < 2 && error instanceof Failure && error.status >= 500,
      staleTime: 5_000,
      networkMode: 'always', // without a network the device answers
    },
    mutations: { networkMode: 'always' },
  },
})

// Dialogs hold the page still by a style of their own, which the policy lets in by its nonce.
const nonce = document.querySelector<HTMLMetaElement>('meta[name=style-nonce]')?.content
if (nonce) setNonce(nonce)

/** The one element of index.html. */
const root = document.getElementById('root')
if (!root) throw new Error('index.html has no #root')
createRoot(root).render(
  <StrictMode>
    <QueryClientProvider client={queries}>
      <RouterProvider router={router} />
    </QueryClientProvider>
  </StrictMode>,
)

// The page and its sounds open without a network. A newer one waits until every
// page of this one is closed, so that nothing changes under a take.
if ('serviceWorker' in navigator && import.meta.env.PROD) void navigator.serviceWorker.register('/sw.js')
