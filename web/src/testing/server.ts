/** Asked is a request as a test's server sees it: "PUT /takes/t1/acts/a1", and what was sent. */
export type Asked = { path: string; query: URLSearchParams; body: unknown }

/** Answer is JSON, or a refusal. */
type Answer = unknown | Response
/** Answers by method and path, given the parts of the path that a star stands for. */
type Routes = Record<string, (asked: Asked, ...parts: string[]) => Answer | Promise<Answer>>

/** One server for a test at a time: serve sets it up anew. */
let routes: Routes = {}

/** everything that was asked for since the server was set up, as "GET /classes/c". */
export const log: string[] = []

/** serve answers from now on: keys are a method and a path, in which * stands for one part of it and ** for all that follows. */
export function serve(these: Routes) {
  routes = these
  log.length = 0
}

/** refuse is how the server says no. */
export function refuse(status: number, detail: string, fields: Record<string, string> = {}): Response {
  const errors = Object.entries(fields).map(([name, message]) => ({ location: `body.${name}`, message }))
  return Response.json({ status, detail, errors }, { status })
}

/** unreachable is how no network answers. */
export function unreachable(): never {
  throw new TypeError('Failed to fetch')
}

/**
 * asked stands in for the browser's fetch. What no route knows is refused as our server
 * does it, so that a page that asks too much shows it.
 */
export async function asked(request: Request): Promise<Response> {
  const url = new URL(request.url)
  const path = url.pathname.replace(/^\/api/, '')
  const said = `${request.method} ${path}`
  log.push(said)
  const text = await request.text()
  for (const [pattern, answer] of Object.entries(routes)) {
    const found = new RegExp(`^${pattern.replace(/\*\*?/g, (stars) => (stars === '**' ? '(.+)' : '([^/]+)'))}$`).exec(
      said,
    )
    if (!found) continue
    const body = text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : text
    const given = await answer({ path, query: url.searchParams, body }, ...found.slice(1))
    if (given instanceof Response) return given
    return given === undefined ? new Response(null, { status: 204 }) : Response.json(given)
  }
  return refuse(404, `the test's server knows no ${said}`)
}
