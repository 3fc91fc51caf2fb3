// Writes the types of the client's routes, as the development server would: an address nobody has is
// then no type.
import { createRequire } from 'node:module'
import { mkdirSync, writeFileSync } from 'node:fs'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './setup.mjs'

const TYPES = path.join(ROOT, 'client/.expo/types')

export function writeRouteTypes() {
  const needs = createRequire(path.join(ROOT, 'client/package.json'))
  const { requireContext } = needs('expo-router/internal/testing')
  const { EXPO_ROUTER_CTX_IGNORE } = needs('expo-router/_ctx-shared')
  const { getTypedRoutesDeclarationFile } = needs('@expo/router-server/build/typed-routes/generate')
  const routes = requireContext(path.join(ROOT, 'client/src/app'), true, EXPO_ROUTER_CTX_IGNORE)
  mkdirSync(TYPES, { recursive: true })
  writeFileSync(path.join(TYPES, 'router.d.ts'), getTypedRoutesDeclarationFile(routes, {}))
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) writeRouteTypes()
