import type { Express } from 'express'

/** `path` as it is mounted, with its parameters: `/api/pieces/:id`. */
export type ListedRoute = { method: string; path: string; params: string[] }
type Layer = {
  rawPath: string
  route?: { path: string; methods: Record<string, boolean> }
  handle: { stack?: Layer[] }
}

const ASKED = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE']

/**
 * Every route of the API, read from the router itself: one that was added yesterday is here today.
 */
export function listRoutes(app: Express): ListedRoute[] {
  const found: ListedRoute[] = []
  const visit = (stack: Layer[], prefix: string) => {
    for (const { rawPath, route, handle } of stack) {
      if (route)
        for (const method of ASKED.filter((name) => route.methods[name.toLowerCase()]))
          found.push(listed(method, `${prefix}${route.path === '/' ? '' : route.path}`))
      else if (handle.stack) visit(handle.stack, rawPath === '/' ? prefix : `${prefix}${rawPath}`)
    }
  }
  visit((app as unknown as { router: { stack: Layer[] } }).router.stack, '')
  return found.filter(({ path }) => path.startsWith('/api/'))
}

function listed(method: string, raw: string): ListedRoute {
  const path = raw.replace('{/*rest}', '/:rest')
  return { method, path, params: [...path.matchAll(/:(\w+)/g)].map(([, name]) => name!) }
}

/** The address below `/api`, with something in the place of each parameter. */
export const addressOf = ({ path }: ListedRoute, fill: (name: string) => string): string =>
  path.replace('/api', '').replaceAll(/:(\w+)/g, (_all, name: string) => fill(name))
