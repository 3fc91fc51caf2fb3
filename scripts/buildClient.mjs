// Builds the web client when anything it is made of has changed.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { brotliCompress, constants, gzip } from 'node:zlib'
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  readdirSync,
  readFileSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { promisify } from 'node:util'
import { ROOT, stop } from './setup.mjs'

const DIST = path.join(ROOT, 'client/dist')
const MARK = path.join(DIST, '.made-from')
const SOURCES = [
  'scripts/buildClient.mjs',
  'client/src',
  'client/public',
  'client/app.json',
  'client/babel.config.js',
  'client/metro.config.js',
  'client/package.json',
  'contract/src',
  'core/src',
  'package-lock.json',
]

/** Every file below, with the time and size it has: quick, and right for a source tree. */
function fingerprint() {
  const hash = createHash('sha256')
  const visit = (file) => {
    if (!existsSync(file)) return
    const about = statSync(file)
    if (about.isDirectory())
      for (const name of readdirSync(file).sort()) visit(path.join(file, name))
    else if (!/\.test\.tsx?$/.test(file))
      hash.update(path.relative(ROOT, file)).update(readFileSync(file))
  }
  for (const source of SOURCES) visit(path.join(ROOT, source))
  return hash.digest('hex')
}

/** Higher ones take half a minute for a few percent. */
const BROTLI_QUALITY = 9

/** The reader of codes is served by ourselves, beside the page. */
const READER = path.join(ROOT, 'node_modules/zxing-wasm/dist/reader/zxing_reader.wasm')

/**
 * Writes the service worker that keeps the application's files, its runtime with it: nothing is
 * fetched from elsewhere.
 * What begins with /api is never kept.
 */
async function writeServiceWorker() {
  const { generateSW } = await import('workbox-build')
  const { warnings } = await generateSW({
    globDirectory: DIST,
    globPatterns: ['**/*.{html,js,css,woff2,ttf,svg,png,ico,wasm}'],
    swDest: path.join(DIST, 'sw.js'),
    inlineWorkboxRuntime: true,
    sourcemap: false,
    // Without a network only pupils work.
    globIgnores: ['**/js/web/{teacher,family}-*.js'],
    // Files named after their contents need no second name.
    dontCacheBustURLsMatching: /\.[0-9a-f]{32}\./,
    maximumFileSizeToCacheInBytes: 8 * 1024 * 1024,
    navigateFallback: '/index.html',
    navigateFallbackDenylist: [/^\/api\//, /\.[a-z0-9]+$/],
    // The first visit is enough: pages open already are looked after at once. A later version waits
    // its turn.
    clientsClaim: true,
    skipWaiting: false,
    mode: 'production',
  })
  if (warnings.length > 0) stop(`The service worker could not be written:\n${warnings.join('\n')}`)
}

/**
 * Beside each file what a school's thirty tablets fetch instead on their first morning: a quarter
 * of its size.
 */
async function writeSmallForms() {
  const brotli = promisify(brotliCompress)
  const names = readdirSync(DIST, { recursive: true }).filter((name) =>
    /\.(js|wasm|css|svg|html)$/.test(name),
  )
  for (const name of names) {
    const file = path.join(DIST, name)
    const plain = readFileSync(file)
    writeFileSync(
      `${file}.br`,
      await brotli(plain, { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } }),
    )
    writeFileSync(
      `${file}.gz`,
      await promisify(gzip)(plain, { level: constants.Z_BEST_COMPRESSION }),
    )
  }
}

export async function buildClient() {
  copyFileSync(READER, path.join(ROOT, 'client/public/zxing_reader.wasm'))
  const now = fingerprint()
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === now) return
  console.log('Building the web client (about a minute the first time) ...')
  const env = {
    ...process.env,
    EXPO_OFFLINE: '1',
    EXPO_NO_TELEMETRY: '1',
    CI: '1',
    NODE_ENV: 'production',
  }
  const made = spawnSync(
    process.execPath,
    [
      path.join(ROOT, 'node_modules/expo/bin/cli'),
      'export',
      '--platform',
      'web',
      '--output-dir',
      'dist',
    ],
    {
      cwd: path.join(ROOT, 'client'),
      env,
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  )
  if (made.status !== 0) stop(`The web client could not be built:\n${made.stdout}\n${made.stderr}`)
  mkdirSync(DIST, { recursive: true })
  await writeServiceWorker()
  await writeSmallForms()
  writeFileSync(MARK, now)
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildClient()
