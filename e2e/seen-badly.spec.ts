import AxeBuilder from '@axe-core/playwright'
import { atRest, openSheet, plantGarden, selectTopic, topic } from './person'
import { expect, type Page, test } from './watched'

const WCAG = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']
const PLACES = ['', '/atlas', '/search', '/links', '/files', '/dates', '/comments', '/crowding', '/publish']

/** Everything that is asked of a screen for who sees badly: WCAG 2.2 AA, as far as a machine can tell, and no scrolling to the side. */
async function expectReadable(page: Page, where: string): Promise<void> {
  await atRest(page)
  const { violations } = await new AxeBuilder({ page }).withTags(WCAG).analyze()
  expect([where, violations.map(({ id, nodes }) => `${id}: ${nodes[0]?.html.slice(0, 160)}`)]).toEqual([where, []])
  const [content, window] = await page.evaluate(() => [document.documentElement.scrollWidth, innerWidth])
  expect([where, content]).toEqual([where, window])
}

test('at 400 % every screen can be read and nothing scrolls to the side', async ({ page }) => {
  test.setTimeout(240_000)
  await plantGarden(
    page,
    '- Spring\n  - Sow peas\n- A very long name of a topic that nobody would want to read\n- Summer',
  )
  const map = page.url()
  const collection = map.replace(/\/m\/.*/, '')
  // 1280 × 1024 px at 400 %.
  await page.setViewportSize({ width: 320, height: 256 })
  for (const place of PLACES) {
    await page.goto(collection + place)
    await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
    await expectReadable(page, place || '/maps')
  }
  await page.goto(map)
  await expect(page.getByRole('tree')).toBeVisible()
  await expectReadable(page, 'map')
  for (const [key, face] of [
    ['Alt+2', page.getByRole('tree', { name: /^Outline/ })],
    ['Alt+3', page.getByRole('document', { name: /^Page/ })],
  ] as const) {
    await page.keyboard.press(key)
    await expect(face).toBeVisible()
    await expectReadable(page, key)
  }
  // A column that lies over the map goes when the keyboard goes to what it covers.
  await page.keyboard.press('Alt+1')
  await page.setViewportSize({ width: 390, height: 780 })
  await selectTopic(page, 'Spring')
  await openSheet(page)
  await page.getByRole('tree').focus()
  await expect(page.getByRole('complementary', { name: 'Topic sheet' })).toBeHidden()
})

test('where colours are forced, what is selected and what has the keyboard is still seen', async ({ page }) => {
  await page.emulateMedia({ forcedColors: 'active' })
  await plantGarden(page, '- Spring\n  - Sow peas\n- Summer')
  await selectTopic(page, 'Spring')
  /** Whether something looks otherwise than another thing of its kind. */
  const differs = async (one: string, other: string, properties: readonly string[]) => {
    const look = (selector: string) =>
      page
        .locator(selector)
        .first()
        .evaluate((element, names) => names.map((name) => getComputedStyle(element).getPropertyValue(name)), properties)
    return JSON.stringify(await look(one)) !== JSON.stringify(await look(other))
  }
  await page.keyboard.press('Alt+2')
  await expect(topic(page, 'Spring')).toHaveAttribute('aria-selected', 'true')
  const LOOK = ['background-color', 'color', 'outline-style', 'outline-color', 'border-color']
  expect(await differs('[aria-selected="true"]', '[role="treeitem"][aria-selected="false"]', LOOK)).toBe(true)
  await page.keyboard.press('Control+k')
  await page.keyboard.type('s')
  const option = page.getByRole('option')
  await expect(option.nth(1)).toBeVisible()
  await page.keyboard.press('ArrowDown')
  await expect(
    page.locator('[role="option"][aria-selected="true"], [role="option"][data-combobox-selected]'),
  ).toHaveCount(1)
  expect(
    await differs(
      '[role="option"][data-combobox-selected], [role="option"][aria-selected="true"]',
      '[role="option"]:not([data-combobox-selected]):not([aria-selected="true"])',
      LOOK,
    ),
  ).toBe(true)
})
