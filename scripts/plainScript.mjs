// Our TypeScript in plain JavaScript, one file a script: starts in a third of the time it takes to
// read every source through a compiler.
import { build } from 'esbuild'
import { mkdir, readFile, rename } from 'node:fs/promises'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { ROOT } from './setup.mjs'

/** Beside the server's own packages, which are found from here. */
const FOLDER = path.join(ROOT, 'server/dist/scripts')
/** @type {Map<string, Promise<string>>} */
const made = new Map()

/**
 * @param {string} file - A script, from the root of the project.
 * @returns {Promise<string>} what to run in its place, made from the sources as they are now
 */
export function plainScript(file) {
  const known = made.get(file)
  if (known) return known
  const fresh = make(file)
  made.set(file, fresh)
  return fresh
}

/** @param {string} file */
async function make(file) {
  const name = `${path.basename(file, '.ts')}.mjs`
  // Several processes may make it at once: each its own, and the last one stays.
  const mine = path.join(FOLDER, `${process.pid}-${name}`)
  await mkdir(FOLDER, { recursive: true })
  await build({
    entryPoints: [path.join(ROOT, file)],
    outfile: mine,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    keepNames: true,
    sourcemap: 'inline',
    sourcesContent: false,
    logLevel: 'error',
    plugins: [{ name: 'packages-stay, places-stay', setup: keepPlaces }],
  })
  const ready = path.join(FOLDER, name)
  await rename(mine, ready)
  return ready
}

/** @param {import('esbuild').PluginBuild} building */
function keepPlaces(building) {
  building.onResolve({ filter: /^[^./]/ }, ({ path: wanted }) =>
    wanted.startsWith('@nibquill/') ? undefined : { external: true, path: wanted },
  )
  // What lies beside a source is looked for beside the source.
  building.onLoad({ filter: /\.(ts|mjs)$/ }, async ({ path: source }) => ({
    contents: (await readFile(source, 'utf8'))
      .replaceAll('import.meta.url', JSON.stringify(pathToFileURL(source).href))
      .replaceAll('import.meta.dirname', JSON.stringify(path.dirname(source))),
    loader: source.endsWith('.ts') ? 'ts' : 'js',
  }))
}
