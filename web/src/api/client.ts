import createClient from 'openapi-fetch'
import type { components, paths } from './schema.gen'

/** Schemas are the shapes the server answers, generated from its OpenAPI document. */
export type Schemas = components['schemas']

/**
 * Typed from the server's own document: an address or a field that is not there does not
 * compile.
 */
export const api = createClient<paths>({ baseUrl: '/api' })

/** Failure is an answer that says no, in the server's own words. */
export class Failure extends Error {
  readonly status: number
  /** fields maps a field's name to what is wrong with it. */
  readonly fields: Record<string, string>

  constructor(status: number, problem: { detail?: string; errors?: { location?: string; message?: string }[] | null }) {
    super(problem.detail ?? 'The server did not say what is wrong.')
    this.status = status
    this.fields = {}
    for (const e of problem.errors ?? []) {
      const name = e.location?.split('.').at(-1)
      if (name && e.message) this.fields[name] = e.message
    }
  }
}

/** What openapi-fetch returns. */
type Answer<T> = { data?: T; error?: unknown; response: Response }

/** answer returns the data of a request, or throws its Failure. */
export async function answer<T>(request: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await request
  if (!response.ok) throw new Failure(response.status, (error ?? {}) as Schemas['ErrorModel'])
  return data as T
}
