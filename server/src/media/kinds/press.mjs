// Makes the sizes of pictures in a process of its own, at a low priority: what nobody waits for must
// not slow what somebody waits for, and a picture that brings it down brings down nothing else.
import path from 'node:path'
import os from 'node:os'
import sharp from 'sharp'

const LOW_PRIORITY = 10
os.setPriority(LOW_PRIORITY)
// Two pictures at once on two cores; a thread pool each would only get in each other's way.
sharp.concurrency(1)
sharp.cache(false)

/** Smaller than this a picture is decoded whole, which is faster; a giant a few lines at a time. */
const WHOLE_PIXELS = 16_000_000

async function makeSizes({ file, into, sizes, mostPixels, jpeg }) {
  const options = { failOn: 'none', limitInputPixels: mostPixels }
  const about = await sharp(file, options).metadata()
  const sequentialRead = about.width * about.height > WHOLE_PIXELS
  let from = sharp(file, { ...options, sequentialRead })
    .autoOrient()
    .flatten({ background: '#ffffff' })
    .toColourspace('srgb')
  const made = []
  for (const size of [...sizes].sort((a, b) => b - a)) {
    const { data, info } = await from
      .resize({ width: size, height: size, fit: 'inside', withoutEnlargement: true })
      .raw()
      .toBuffer({ resolveWithObject: true })
    const { width, height, channels } = info
    const raw = () => sharp(data, { raw: { width, height, channels } })
    const one = path.join(into, `${size}.jpg`)
    await raw().jpeg(jpeg).toFile(one)
    made.push({ size, file: one, width, height })
    // The next one is smaller and comes from this one.
    from = raw()
  }
  return made
}

/** Whoever asked may be gone meanwhile. */
const answer = (said) => process.connected && process.send(said, () => undefined)

process.on('message', ({ id, picture }) => {
  makeSizes(picture).then(
    (made) => answer({ id, made }),
    (error) => answer({ id, error: String(error) }),
  )
})
process.on('disconnect', () => process.exit())
