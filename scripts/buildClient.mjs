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
import { plainScript } from './plainScript.mjs'
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
  'client/minify.js',
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
    // And the device's own typefaces stand in.
    globIgnores: ['**/js/web/{teacher,family}-*.js', 'faces/**'],
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
 * What several split-off scripts share is fetched with the first of them, not before the first
 * screen (client/src/device/sharedScript.ts).
 */
function fetchSharedScriptLater() {
  const file = path.join(DIST, 'index.html')
  const page = readFileSync(file, 'utf8')
  const tag = /<script src="([^"]*\/__common-[^"]*)"[^>]*><\/script>/
  if (!tag.test(page)) stop('The page names no script that the others share.')
  writeFileSync(
    file,
    page
      .replace(tag, '')
      .replace('</head>', `<meta name="shared-script" content="${tag.exec(page)[1]}" /></head>`),
  )
}

const FAMILIES = { 400: 'Names', 700: 'NamesBold' }

/**
 * For each script a style sheet with its typefaces, and their files: fetched where a name needs them
 * (client/src/device/faces.ts). The browser takes from a large one the slices it needs.
 */
async function writeFaces() {
  const into = path.join(DIST, 'faces')
  mkdirSync(into, { recursive: true })
  const { SCRIPTS, faceOf } = await import(await plainScript('core/src/school/scripts.ts'))
  for (const script of SCRIPTS) {
    const folder = path.join(ROOT, 'node_modules/@fontsource', faceOf(script))
    const size = script.larger ? `size-adjust: ${script.larger * 100}%; ` : ''
    const sheet = Object.entries(FAMILIES)
      .map(([weight, family]) =>
        readFileSync(path.join(folder, `${weight}.css`), 'utf8')
          .replaceAll(/font-family: '[^']+'/g, `font-family: ${family}`)
          .replaceAll(/font-weight: \d+;/g, 'font-weight: normal;')
          .replaceAll(/src: url\(\.\/files\/([^)]+\.woff2)\)[^;]*;/g, (_, file) => {
            copyFileSync(path.join(folder, 'files', file), path.join(into, file))
            return `${size}src: url(${file}) format('woff2');`
          }),
      )
      .join('')
    writeFileSync(path.join(into, `${script.name}.css`), sheet)
  }
}

/**
 * Beside each file what a school's thirty tablets fetch instead on their first morning: a quarter
 * of its size.
 */
async function writeSmallForms() {
  const small = [
    [
      'br',
      promisify(brotliCompress),
      { params: { [constants.BROTLI_PARAM_QUALITY]: BROTLI_QUALITY } },
    ],
    ['gz', promisify(gzip), { level: constants.Z_BEST_COMPRESSION }],
  ]
  const names = readdirSync(DIST, { recursive: true }).filter((name) =>
    /\.(js|wasm|css|svg|html)$/.test(name),
  )
  await Promise.all(
    names.flatMap((name) => {
      const file = path.join(DIST, name)
      const plain = readFileSync(file)
      return small.map(async ([ending, pack, options]) =>
        writeFileSync(`${file}.${ending}`, await pack(plain, options)),
      )
    }),
  )
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
  fetchSharedScriptLater()
  await writeFaces()
  await writeServiceWorker()
  await writeSmallForms()
  writeFileSync(MARK, now)
}

if (import.meta.url === pathToFileURL(process.argv[1] ?? '').href) await buildClient()
