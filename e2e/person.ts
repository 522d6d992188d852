import AxeBuilder from '@axe-core/playwright'
import { expect, type Locator, type Page } from '@playwright/test'
import { importAndWait } from '../scripts/setup/imports.mjs'

/** Begins without an account; ends on the page of the new collection, before it has a map. */
export async function beginWithoutAccount(page: Page): Promise<void> {
  const begun = await page.request.post('/api/guests')
  const { collection } = (await begun.json()) as { collection: string }
  await page.goto(`/c/${collection}`)
  await expect(page.getByRole('heading', { name: 'My collection' })).toBeVisible()
}

/** Begins without an account as people do; ends on a map whose root is being written. */
export async function beginOnMap(page: Page, isFirst = true): Promise<void> {
  if (isFirst) await page.goto('/')
  await page.getByRole('button', { name: 'Start without an account' }).click()
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toBeFocused()
}

/** Begins a map from a plate of the gallery. */
export async function beginFrom(page: Page, plate: string): Promise<void> {
  await page.getByRole('button', { name: 'New map' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: new RegExp(`^${plate}:`) })
    .click()
}

export async function makeMap(page: Page, name: string): Promise<void> {
  await beginFrom(page, 'Empty')
  await expect(page.getByRole('textbox', { name: 'Text of the topic' })).toBeFocused()
  await page.keyboard.type(name)
  await page.keyboard.press('Enter')
  await expect(topic(page, name)).toBeVisible()
  await expect(page.getByRole('tree', { name: `Map ${name}` })).toBeFocused()
}

/** Imports text files on the page of the collection, having seen what they would become. */
export async function importFiles(
  page: Page,
  files: readonly { name: string; mimeType: string; buffer: Buffer }[],
): Promise<void> {
  await page.getByRole('button', { name: 'Import text' }).click()
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose files' }).click()
  await (await chooser).setFiles([...files])
  await page.getByRole('button', { name: files.length === 1 ? 'Make the map' : `Make ${files.length} maps` }).click()
}

/** Goes from a map to the page of all maps. */
export async function toAllMaps(page: Page): Promise<void> {
  await page.getByRole('link', { name: 'All maps' }).click()
  await expect(page.getByRole('navigation', { name: 'Places of the collection' })).toBeVisible()
}

/** Has the topic sheet beside the map. */
export async function openSheet(page: Page): Promise<void> {
  const button = page.getByRole('button', { name: 'Show or hide the topic sheet' })
  // Where it is shown by the button and not seen yet, it is on its way.
  if ((await button.getAttribute('aria-pressed')) !== 'true') await button.click()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeVisible()
}

/** A topic on the map or in the outline, by the beginning of its name. */
export const topic = (page: Page, name: string): Locator =>
  page.getByRole('treeitem', { name: new RegExp(`^${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(,|$)`) })

/** The way into a map from its card on the page of the collection, where its name stands elsewhere too. */
export const cardOf = (page: Page, name: string): Locator =>
  page.getByRole('region', { name, exact: true }).getByRole('link', { name, exact: true })

/** Writes a text while a topic is selected or being written, and keeps it. */
export async function write(page: Page, text: string): Promise<void> {
  await page.keyboard.type(text)
  await page.keyboard.press('Enter')
}

/** Clicks a topic; where it lies outside the stage, fits the map first as a person would. */
export const selectTopic = async (page: Page, name: string): Promise<void> => {
  const box = await topic(page, name).boundingBox()
  const stage = await page.locator('[data-stage]').first().boundingBox()
  if (
    box &&
    stage &&
    (box.x < stage.x ||
      box.x + box.width > stage.x + stage.width ||
      box.y < stage.y ||
      box.y + box.height > stage.y + stage.height)
  )
    await page.keyboard.press('Alt+f')
  await topic(page, name).click()
  await expect(topic(page, name)).toHaveAttribute('aria-selected', 'true')
  // What stands beside the map follows two frames later: no hand is there sooner.
  await page.evaluate(
    () =>
      new Promise<void>((follow) => {
        const frames = (left: number) =>
          left === 0 ? setTimeout(follow) : requestAnimationFrame(() => frames(left - 1))
        frames(4)
      }),
  )
}

/** Adds a topic beside another one by Enter, or below it by Tab, and ends the writing. */
export async function addAt(page: Page, name: string, key: 'Enter' | 'Tab', text: string): Promise<void> {
  await selectTopic(page, name)
  await page.keyboard.press(key)
  await write(page, text)
  await page.keyboard.press('Escape')
}

export const allSaved = (page: Page): Promise<void> => expect(page.getByText('Everything is saved')).toBeVisible()

/** The boxes of all topics on the stage, as drawn. */
async function topicBoxes(
  page: Page,
): Promise<{ name: string; x: number; y: number; width: number; height: number }[]> {
  return page.locator('[data-stage] [data-topic]').evaluateAll((elements) =>
    elements.map((element) => {
      const { x, y, width, height } = element.querySelector('rect')!.getBoundingClientRect()
      return { name: element.getAttribute('aria-label') ?? '', x, y, width, height }
    }),
  )
}

/** Fails where two topics on the stage lie on one another. */
export async function expectNoOverlap(page: Page): Promise<void> {
  const boxes = await topicBoxes(page)
  const overlapping = boxes.flatMap((a, i) =>
    boxes
      .slice(i + 1)
      .filter(
        (b) =>
          a.x + 1 < b.x + b.width && b.x + 1 < a.x + a.width && a.y + 1 < b.y + b.height && b.y + 1 < a.y + a.height,
      )
      .map((b) => `${a.name} / ${b.name}`),
  )
  expect(overlapping).toEqual([])
}

/** Makes a map from an indented list; all of it is fitted into the view unless it should stay as it is first seen. */
export async function plantGarden(page: Page, list: string, fit = true): Promise<void> {
  const begun = await page.request.post('/api/guests')
  const { collection } = (await begun.json()) as { collection: string }
  const base = `/api/collections/${collection}`
  const ask = async (method: 'GET' | 'POST', path: string, data?: object) =>
    (await page.request.fetch(base + path, { method, ...(data ? { data } : {}) })).json()
  // Without the way through the gallery, which other stories take: every page that is opened costs a second.
  const [map] = await importAndWait(ask, [{ path: 'planted.md', text: '# Garden' }])
  await page.goto(`/c/${collection}/m/${map}`)
  await expect(page.getByRole('tree', { name: 'Map Garden' })).toBeFocused()
  await page.evaluate((text) => navigator.clipboard.writeText(text), list)
  await page.keyboard.press('Control+v')
  await expect(page.getByRole('button', { name: /^Undo: paste/ })).toBeVisible()
  if (fit) await page.keyboard.press('Alt+f')
}

/** Chooses an entry of a topic's menu, or of the panel of a group to which the menu leads. */
export async function choose(page: Page, name: string, group: string | null, entry: string | RegExp): Promise<void> {
  await topic(page, name).click({ button: 'right' })
  await chooseFromMenu(page, group, entry)
}

/** The same where the menu of a topic is open. */
export async function chooseFromMenu(page: Page, group: string | null, entry: string | RegExp): Promise<void> {
  if (group) await page.getByRole('menuitem', { name: group, exact: true }).click()
  await page.getByRole('menuitem', { name: entry }).click()
}

/** The middle of a topic on the screen. */
export const middleOf = async (page: Page, name: string): Promise<{ x: number; y: number }> => {
  const { x, y, width, height } = (await topic(page, name).boundingBox())!
  return { x: x + width / 2, y: y + height / 2 }
}

/** Opens a section of the topic sheet that is not open yet. */
export async function openSection(page: Page, name: RegExp): Promise<void> {
  await openSheet(page)
  const section = page.getByRole('complementary', { name: 'Topic sheet' }).getByRole('button', { name })
  // What stands above it can still be growing, so that a press meets something else: nobody gives up then.
  await expect(async () => {
    if ((await section.getAttribute('aria-expanded')) !== 'true') await section.click()
    await expect(section).toHaveAttribute('aria-expanded', 'true', { timeout: 1_000 })
  }).toPass({ timeout: 20_000 })
}

/** A place in the window, in px. */
interface Spot {
  x: number
  y: number
}

/** Drags one thing onto another with the mouse. */
export async function drag(page: Page, from: Locator | Spot, onto: Locator | Spot): Promise<void> {
  const at = async (locator: Locator | Spot) => {
    if ('x' in locator) return locator
    const { x, y, width, height } = (await locator.boundingBox())!
    return { x: x + width / 2, y: y + height / 2 }
  }
  const begin = await at(from)
  await page.mouse.move(begin.x, begin.y)
  await page.mouse.down()
  await page.mouse.move(begin.x + 12, begin.y - 8, { steps: 3 })
  const end = await at(onto)
  await page.mouse.move(end.x, end.y, { steps: 6 })
  await page.mouse.up()
}

/** Waits until nothing moves or changes its colour any more, but for what never ends. */
export async function atRest(page: Page): Promise<void> {
  await page.waitForFunction(() =>
    document
      .getAnimations()
      .every(
        ({ playState, effect }) =>
          playState !== 'running' || effect?.getComputedTiming().endTime === Number.POSITIVE_INFINITY,
      ),
  )
}

/** Finds no barrier on a page, or within a part of it, that axe knows. */
export async function expectNoBarriers(page: Page, within?: string): Promise<void> {
  await atRest(page)
  const axe = new AxeBuilder({ page })
  expect((await (within ? axe.include(within) : axe).analyze()).violations).toEqual([])
}

/** The same in light and then in dark, in which the page stays. */
export async function expectNoBarriersInBoth(page: Page, within?: string): Promise<void> {
  for (const colorScheme of ['light', 'dark'] as const) {
    await page.emulateMedia({ colorScheme })
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', colorScheme)
    await expectNoBarriers(page, within)
  }
}
