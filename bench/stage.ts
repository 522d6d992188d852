import type { Page } from '@playwright/test'
import { frameTimes } from './frames'
import { type Measurement, median, seededRandom } from './measure'
import { openXyflow } from './peers/xyflow'
import { openMap, plain, withServer } from './served'

const ROOT = /^(Bench|Empty)/

/** Indented text of a map with so many topics, as wide and deep as maps are. */
export function outline(count: number): string {
  const random = seededRandom(count)
  const words = ['water', 'ditch', 'peat moss', 'dipwell', 'boards', 'reading', 'of the northern dome', 'in August']
  const lines: string[] = []
  let level = 0
  for (let i = 1; i < count; i++) {
    const text = Array.from({ length: 1 + Math.floor(random() * 4) }, () => words[Math.floor(random() * 8)]).join(' ')
    lines.push(`${'  '.repeat(level)}- ${text} ${i}`)
    const step = random()
    level =
      step < 0.35 ? Math.min(level + 1, 5) : step < 0.7 ? level : Math.max(0, level - 1 - Math.floor(random() * 2))
  }
  return `- Bench\n${lines.map((line) => `  ${line}`).join('\n')}`
}

export const percentile = (values: readonly number[], part: number): number =>
  [...values].sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * part))]!

/** How long a map of 5,000 topics takes to open, against an empty one, and from a key to the painted frame on it. */
export const measureStage = (): Promise<Measurement[]> =>
  withServer(async (bog, grow) => {
    const large = await grow(outline(5_000))
    const empty = await grow('- Empty')
    const page = await bog.context.newPage()
    const times = { large: [] as number[], empty: [] as number[] }
    await openMap(page, bog, empty, ROOT)
    for (let round = 0; round < 3; round++) {
      times.empty.push(await openMap(page, bog, empty, ROOT))
      times.large.push(await openMap(page, bog, large, ROOT))
    }
    const limit = median(times.empty) * 1.5 + 600
    const opened = plain({
      name: 'open-5k',
      value: median(times.large),
      unit: 'ms',
      limit,
      note: `an empty map takes ${median(times.empty).toFixed(0)} ms`,
    })
    const keys = await keysToPaint(page)
    const painted = plain({
      name: 'key-to-paint-5k',
      value: percentile(keys, 0.95),
      unit: 'ms',
      limit: 50,
      note: `p95 of ${keys.length} keys, median ${median(keys).toFixed(0)} ms`,
    })
    const huge = await grow(outline(10_000))
    await openMap(page, bog, huge, ROOT)
    const ours = percentile(await panAndZoom(page), 0.95)
    await page.close()
    const peer = await openXyflow(bog.browser, outline(10_000))
    const theirs = percentile(await panAndZoom(peer), 0.95)
    const panned: Measurement = {
      name: 'stage-pan-10k',
      value: ours,
      unit: 'ms',
      peer: '@xyflow/react, only what is visible, the same nodes without edges',
      peerValue: theirs,
      ratio: ours / theirs,
      limit: 8,
      ok: ours <= 8 && ours <= theirs,
      note: `p95 of script, style and layout of a frame over ${STEPS} steps; no more than its peer either`,
    }
    return [opened, painted, panned]
  })

/** Enter, a word, Enter, again and again: the time from each key to the frame that shows it, in the page's own clock. */
export async function keysToPaint(page: Page): Promise<number[]> {
  await page.evaluate(() => {
    const times: number[] = []
    Object.assign(window, { keyTimes: times })
    window.addEventListener(
      'keydown',
      (event) => {
        // The second frame begins when the first one, with what the key did, has been painted.
        requestAnimationFrame(() => requestAnimationFrame((at) => times.push(at - event.timeStamp)))
      },
      { capture: true },
    )
  })
  for (let round = 0; round < 8; round++) {
    await page.keyboard.press('Enter')
    await page.waitForTimeout(120)
    for (const letter of 'moss') {
      await page.keyboard.press(letter)
      await page.waitForTimeout(60)
    }
    await page.keyboard.press('Enter')
    await page.waitForTimeout(150)
  }
  return page.evaluate(() => (window as unknown as { keyTimes: number[] }).keyTimes)
}

const STEPS = 120

/** Pans and zooms step by step, each shown before the next, as a hand does: the work of each frame in ms. */
async function panAndZoom(page: Page): Promise<number[]> {
  const stage = (await page.locator('[data-stage]').boundingBox())!
  await page.mouse.move(stage.x + stage.width / 2, stage.y + stage.height / 2)
  await page.waitForTimeout(1_500)
  return frameTimes(page, async () => {
    for (let step = 0; step < STEPS; step++) {
      if (step % 6 === 5) {
        await page.keyboard.down('Control')
        await page.mouse.wheel(0, step % 12 === 5 ? 90 : -90)
        await page.keyboard.up('Control')
      } else await page.mouse.wheel(Math.sin(step / 9) * 120, Math.cos(step / 7) * 160)
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
    }
  })
}
