import { expect, type Locator, type Page } from '@playwright/test'

/** Begins without an account; ends on the page with the maps of the new collection. */
export async function beginWithoutAccount(page: Page): Promise<void> {
  await page.goto('/')
  await page.getByRole('button', { name: 'Start without an account' }).click()
  await expect(page.getByRole('heading', { name: 'My collection' })).toBeVisible()
}

export async function makeMap(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'New map' }).click()
  await page.getByRole('textbox', { name: 'Name' }).fill(name)
  await page.getByRole('button', { name: 'Make the map' }).click()
  await expect(topic(page, name)).toBeVisible()
  await expect(page.getByRole('tree', { name: `Map ${name}` })).toBeFocused()
}

/** A topic on the map or in the outline, by the beginning of its name. */
export const topic = (page: Page, name: string): Locator =>
  page.getByRole('treeitem', { name: new RegExp(`^${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(,|$)`) })

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
  await page.waitForTimeout(120)
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
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  await page.evaluate((text) => navigator.clipboard.writeText(text), list)
  await page.keyboard.press('Control+v')
  await expect(page.getByRole('button', { name: /^Undo: paste/ })).toBeVisible()
  if (fit) await page.keyboard.press('Alt+f')
}

/** Chooses an entry of a topic's menu, from a submenu where one is named. */
export async function choose(page: Page, name: string, submenu: string | null, entry: string | RegExp): Promise<void> {
  await topic(page, name).click({ button: 'right' })
  if (submenu) await page.getByRole('menuitem', { name: submenu, exact: true }).hover()
  await page.getByRole('menuitem', { name: entry }).click()
}

/** The middle of a topic on the screen. */
export const middleOf = async (page: Page, name: string): Promise<{ x: number; y: number }> => {
  const { x, y, width, height } = (await topic(page, name).boundingBox())!
  return { x: x + width / 2, y: y + height / 2 }
}

/** Opens a section of the topic sheet that is not open yet. */
export async function openSection(page: Page, name: RegExp): Promise<void> {
  const section = page.getByRole('complementary', { name: 'Topic sheet' }).getByRole('button', { name })
  if ((await section.getAttribute('aria-expanded')) !== 'true') await section.click()
}
