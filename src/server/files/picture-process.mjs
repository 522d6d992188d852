import sharp from 'sharp'

/**
 * Measures pictures and makes small ones, in a process of its own: what somebody uploads may take this one's time and
 * memory, and `pictures.ts` ends it where it takes too long. Asked one thing at a time.
 */
sharp.concurrency(1)
sharp.cache(false)

/** WebP has no larger pictures; what is higher is made as high as this. */
const MOST_HIGH = 16_383
const MOST_PIXELS = 100_000_000

/** Size in px as it is seen, turned as the camera says; null for what is no picture, or too large to be shown. */
async function size({ bytes }) {
  const { autoOrient } = await sharp(bytes, { limitInputPixels: MOST_PIXELS }).metadata()
  const { width, height } = autoOrient
  return width > 0 && height > 0 && width * height <= MOST_PIXELS ? { width, height } : null
}

/** The picture as WebP, at most `width` px wide. */
const thumbnail = ({ bytes, width, density }) =>
  sharp(bytes, { density, limitInputPixels: MOST_PIXELS })
    .autoOrient()
    .resize({ width, height: MOST_HIGH, fit: 'inside', withoutEnlargement: true })
    .webp({ quality: 84 })
    .toBuffer()

process.on('message', async ({ task, ...given }) => {
  try {
    process.send({ ok: true, value: await (task === 'size' ? size(given) : thumbnail(given)) })
  } catch (error) {
    process.send({ ok: false, message: String(error?.message ?? error) })
  }
})
process.on('disconnect', () => process.exit(0))
