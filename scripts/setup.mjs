// What must be on a machine before anything else can run: npm packages and Debian's. Plain Node,
// nothing installed needed.
import { spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import path from 'node:path'

export const ROOT = path.resolve(import.meta.dirname, '..')
const MARK = path.join(ROOT, 'node_modules/.nibquill-installed')

const POSTGRES = '/usr/lib/postgresql'

/** Debian package and the program that shows it is there. */
export const DEBIAN = {
  // Its server: the client's package alone lies in the same folder.
  postgresql: () =>
    existsSync(POSTGRES) &&
    readdirSync(POSTGRES).some((version) => existsSync(path.join(POSTGRES, version, 'bin/initdb'))),
  'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell'),
  'libimage-exiftool-perl': () => existsSync('/usr/bin/exiftool'),
  qpdf: () => existsSync('/usr/bin/qpdf'),
  'espeak-ng': () => existsSync('/usr/bin/espeak-ng'),
  ffmpeg: () => existsSync('/usr/bin/ffprobe'),
  'poppler-utils': () => existsSync('/usr/bin/pdftoppm'),
  'python3-swift': () => existsSync('/usr/lib/python3/dist-packages/swift'),
  imagemagick: () => existsSync('/usr/bin/convert'),
}

/** Installs npm packages when package-lock.json is not the one they were installed from. */
export function ensureNpmPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(path.join(ROOT, 'package-lock.json')))
    .digest('hex')
  if (existsSync(MARK) && readFileSync(MARK, 'utf8') === lock) return
  console.log('Installing npm packages (about two minutes the first time) ...')
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  })
  if (done.status !== 0)
    stop(
      'npm could not install the packages. Look at the lines above, then run the same command again.',
    )
  writeFileSync(MARK, lock)
}

/**
 * Installs Debian packages as root or through sudo; otherwise prints the one line to run and stops.
 */
export function ensureDebianPackages(names) {
  const missing = names.filter((name) => !DEBIAN[name]())
  if (missing.length === 0) return
  const prefix =
    process.getuid?.() === 0
      ? []
      : spawnSync('sudo', ['-n', 'true']).status === 0
        ? ['sudo', '-n']
        : null
  if (!prefix)
    stop(
      `Nibquill needs ${missing.join(', ')}. Please run this once, then start again:\n\n  sudo apt-get install -y ${missing.join(' ')}\n`,
    )
  console.log(`Installing ${missing.join(', ')} from Debian ...`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const apt = (...words) =>
    spawnSync([...prefix, 'apt-get', ...words][0], [...prefix, 'apt-get', ...words].slice(1), {
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    })
  apt('update', '-qq')
  if (apt('install', '-y', '-qq', '--no-install-recommends', ...missing).status !== 0) {
    stop(
      `Debian's packages could not be installed. Please run: apt-get update && apt-get install -y ${missing.join(' ')}`,
    )
  }
}

export function ensureNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    stop(`Nibquill needs Node 20.19 or newer; this is ${process.versions.node}.`)
}

export function ensureFolder(folder) {
  try {
    mkdirSync(folder, { recursive: true })
  } catch (error) {
    stop(`The data folder ${folder} cannot be made: ${error.message}`)
  }
}

export function stop(sentence) {
  console.error(`\n${sentence}\n`)
  process.exit(1)
}
