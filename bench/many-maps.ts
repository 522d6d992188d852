import type { Page } from '@playwright/test'
import { frameTimes } from './frames'
import { page as pageText } from './import'
import { type Measurement, median, seededRandom } from './measure'
import { importInto, openMap, plain, type Served, withServer } from './served'
import { percentile } from './stage'

const MAPS = 1_000
const FEW = 10
const ROUNDS = 7

/** Imports so many pages of 54 topics into a collection; returns the ids of their maps. */
async function fill({ context, address }: Served, collection: string, count: number): Promise<string[]> {
  const random = seededRandom(54)
  const maps: string[] = []
  for (let from = 0; from < count; from += 100) {
    const pages = Array.from({ length: Math.min(100, count - from) }, (_, i) => ({
      path: `p${from + i}.md`,
      text: pageText(from + i, random),
    }))
    maps.push(...(await importInto(context, address, collection, pages)))
  }
  return maps
}

const wait = (page: Page, ms: number) => page.waitForTimeout(ms)

/** What one map costs among a thousand: opening it, and what every other window receives when a topic is added. */
export const measureManyMaps = (): Promise<Measurement[]> =>
  withServer(async (served) => {
    const { context, address, collection: many } = served
    const made = await context.request.post(`${address}/api/collections`, { data: { title: 'Few' } })
    const { collection: few } = (await made.json()) as { collection: string }
    const large = await fill(served, many, MAPS)
    const small = await fill(served, few, FEW)
    const page = await context.newPage()
    const open = (collection: string, maps: string[], round: number) =>
      openMap(page, { ...served, collection }, maps[round]!, /^Page/)
    await open(few, small, 0)
    const times = { many: [] as number[], few: [] as number[] }
    for (let round = 1; round <= ROUNDS; round++) {
      times.few.push(await open(few, small, round))
      times.many.push(await open(many, large, round))
    }
    const ratio = median(times.many) / median(times.few)
    const opened: Measurement = {
      name: 'open-in-1k',
      value: median(times.many),
      unit: 'ms',
      peer: 'the same map among 10',
      peerValue: median(times.few),
      ratio,
      limit: 1.5,
      ok: ratio <= 1.5,
      note: `medians of ${ROUNDS} rounds in turn`,
    }
    return [
      opened,
      await bytesAfterChange(served, page, large),
      ...(await openAtlas(served)),
      await longestStandstill(served),
    ]
  })

/** From the press on its name to the atlas with every map on the screen, and the work of each frame while it is moved. */
async function openAtlas({ context, address, collection }: Served): Promise<Measurement[]> {
  // In a window of its own: one that lies behind another is drawn seldom.
  const page = await context.newPage()
  const times: number[] = []
  for (let round = 0; round < 3; round++) {
    await page.goto(`${address}/c/${collection}`)
    const name = page.getByRole('link', { name: 'Atlas', exact: true })
    await name.waitFor()
    await wait(page, 500)
    const start = performance.now()
    await name.click()
    await page.waitForFunction((maps) => document.querySelectorAll('section a[href*="/m/"]').length >= maps, MAPS)
    await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
    times.push(performance.now() - start)
  }
  await wait(page, 1_000)
  const frame = (await page.getByRole('region', { name: 'All maps' }).boundingBox())!
  // From beside the maps: a press on one is for that map.
  const [x, y] = [frame.x + 8, frame.y + 8]
  await page.mouse.move(x, y)
  const frames = await frameTimes(page, async () => {
    for (let step = 0; step < 120; step++) {
      if (step % 6 === 0) await page.mouse.down()
      if (step % 6 < 5) await page.mouse.move(x + Math.sin(step / 9) ** 2 * 120, y + Math.cos(step / 7) ** 2 * 120)
      if (step % 6 === 4) await page.mouse.up()
      if (step % 6 === 5) {
        await page.mouse.move(x, y)
        await page.mouse.wheel(0, step % 12 === 5 ? -90 : 90)
      }
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))))
    }
  })
  return [
    plain({ name: 'atlas-1k', value: median(times), unit: 'ms', limit: 1_000, note: `all of ${MAPS} maps in view` }),
    plain({
      name: 'atlas-pan-1k',
      value: percentile(frames, 0.95),
      unit: 'ms',
      limit: 8,
      note: 'p95 of script, style and layout of a frame over 120 steps of pan and zoom',
    }),
  ]
}

/** What a person does with a whole collection, by the address and what is seen when it is there. */
const LOOKS: readonly [name: string, path: string, isThere: string][] = [
  ['the table of maps', '', 'main a[href*="/m/"]'],
  ['the atlas', '/atlas', 'section a[href*="/m/"]'],
  ['the links, with what overlaps', '/links', '[aria-label="Which links"]'],
  ['what is hard to read', '/crowding', 'main li, main tr'],
]

/** The longest time for which a window answers nothing while a person looks at all of 54,000 topics in every way there is. */
async function longestStandstill({ context, address, collection }: Served): Promise<Measurement> {
  const page = await context.newPage()
  await page.addInitScript(() => {
    const longest = { ms: 0 }
    Object.assign(window, { longest })
    new PerformanceObserver((list) => {
      for (const { duration } of list.getEntries()) longest.ms = Math.max(longest.ms, duration)
    }).observe({ type: 'longtask', buffered: true })
  })
  const times: { name: string; ms: number }[] = []
  for (const [name, path, isThere] of LOOKS) {
    await page.goto(`${address}/c/${collection}${path}`)
    await page.locator(isThere).first().waitFor({ timeout: 120_000 })
    await wait(page, 1_500)
    times.push({ name, ms: await page.evaluate(() => (window as unknown as { longest: { ms: number } }).longest.ms) })
  }
  const worst = times.reduce((a, b) => (b.ms > a.ms ? b : a))
  return plain({
    name: 'standstill-1k',
    value: worst.ms,
    unit: 'ms',
    limit: 100,
    note: times.map(({ name, ms }) => `${name} ${ms.toFixed(0)}`).join(', '),
  })
}

/** One topic is added in one window; counts what another one with another map open receives within two seconds. */
async function bytesAfterChange(served: Served, page: Page, maps: string[]): Promise<Measurement> {
  const other = await served.context.newPage()
  await openMap(other, served, maps[20]!, /^Page/)
  await openMap(page, served, maps[21]!, /^Page/)
  await wait(page, 1_500)
  const session = await served.context.newCDPSession(other)
  let bytes = 0
  session.on('Network.dataReceived', ({ dataLength }) => {
    bytes += dataLength
  })
  await session.send('Network.enable')
  await page.keyboard.press('Tab')
  await page.keyboard.type('A topic')
  await page.keyboard.press('Enter')
  await wait(page, 2_000)
  return plain({
    name: 'digest-after-change',
    value: bytes,
    unit: 'bytes',
    limit: 4_096,
    note: 'received by another window, which holds the stream of both',
  })
}
