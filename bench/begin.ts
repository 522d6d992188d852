import type { Page } from '@playwright/test'
import { type Measurement, median } from './measure'
import { plain, withServer } from './served'

const TIMES = 7
const LIMIT_MS = 500

const LIST = Array.from({ length: 40 }, (_, i) => `${i % 4 === 0 ? '' : '  '}- Row ${i + 1} of the beans`).join('\n')

/** From a press on a button until something is there, in ms, as the page itself counts. */
async function fromPress(page: Page, button: string, isThere: string): Promise<number> {
  const wanted = page.getByRole('button', { name: button, exact: true })
  await wanted.waitFor()
  // What is fetched ahead when nothing else is to be done has come.
  await page.waitForTimeout(1_500)
  await page.evaluate((selector) => {
    const measured = window as unknown as { taken: Promise<number> }
    measured.taken = new Promise((resolve) => {
      let start = 0
      document.addEventListener('click', () => (start = performance.now()), { capture: true, once: true })
      setInterval(() => start > 0 && document.querySelector(selector) && resolve(performance.now() - start), 4)
    })
  }, isThere)
  await wanted.click()
  return page.evaluate(() => (window as unknown as { taken: Promise<number> }).taken)
}

/** How long it takes to begin: from *Start without an account* until one can write, and from *Make the map* until a pasted list is drawn. */
export const measureBegin = (): Promise<Measurement[]> =>
  withServer(async ({ browser, address }) => {
    const starts: number[] = []
    const makes: number[] = []
    for (let i = 0; i < TIMES; i++) {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
      const page = await context.newPage()
      await page.goto(address)
      starts.push(await fromPress(page, 'Start without an account', '[aria-label="Text of the topic"]:focus'))
      await page.keyboard.type('Beans')
      await page.keyboard.press('Enter')
      await page.getByRole('link', { name: 'All maps' }).click()
      await page.getByRole('button', { name: 'Import text' }).click()
      await page.getByRole('textbox', { name: 'A list, an outline or a page of text' }).fill(LIST)
      makes.push(await fromPress(page, 'Make the map', '[data-stage] [role="treeitem"]'))
      await context.close()
    }
    const row = (name: string, values: readonly number[], note: string) =>
      plain({
        name,
        value: median(values),
        unit: 'ms',
        limit: LIMIT_MS,
        note: `${note}, slowest ${Math.max(...values).toFixed(0)}`,
      })
    return [
      row('begin', starts, 'until the root is written in'),
      row('make-the-map', makes, 'until a list of 40 is drawn'),
    ]
  })
