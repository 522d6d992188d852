import { allSaved, beginWithoutAccount, expectNoOverlap, makeMap, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test('texts as long as they may be, right to left, and made of emoji are set without a letter outside', async ({
  page,
}) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  const texts = [
    'word '.repeat(1_000).trim(),
    'x'.repeat(5_000),
    'שלום לגן הירק ולבאר המים',
    '🌱🌿🍀🌳👩🏽‍🌾',
    '苔蘚植物和泥炭沼澤',
  ]
  await page.evaluate((list) => navigator.clipboard.writeText(list), texts.map((text) => `- ${text}`).join('\n'))
  await page.keyboard.press('Control+v')
  await expect(page.getByRole('button', { name: /^Undo: paste/ })).toBeVisible()
  await page.keyboard.press('Alt+f')
  await expectNoOverlap(page)
  await selectTopic(page, 'Garden')
  for (const text of texts.slice(2)) {
    const item = topic(page, text)
    await expect(item).toHaveCount(1)
    const reach = (await item.locator('rect').first().boundingBox())!
    for (const line of await item.locator('text').all()) {
      const box = (await line.boundingBox())!
      expect(box.x).toBeGreaterThanOrEqual(reach.x - 1)
      expect(box.x + box.width).toBeLessThanOrEqual(reach.x + reach.width + 1)
    }
  }
  await allSaved(page)
})

test('a list that would be too much is refused in words, and nothing is lost', async ({ page }) => {
  await plantGarden(page, '- Spring')
  await selectTopic(page, 'Garden')
  const megabyte = Array.from({ length: 40_000 }, (_, i) => `- A line of the page ${i}`).join('\n')
  expect(megabyte.length).toBeGreaterThan(1_000_000)
  await page.evaluate((list) => navigator.clipboard.writeText(list), megabyte)
  await page.keyboard.press('Control+v')
  await expect(page.getByText(/at most [\d,]+/)).toBeVisible()
  await expect(topic(page, 'Spring')).toBeVisible()
  // One line of more than a megabyte is too long for a topic and for the note it would run on in, and says so too.
  await page.evaluate(() => navigator.clipboard.writeText('y'.repeat(1_100_000)))
  await page.keyboard.press('Control+v')
  await expect(page.getByText(/letters/)).toBeVisible()
  await page.reload()
  await expect(topic(page, 'Spring')).toBeVisible()
  await expect(page.locator('[data-topic]')).toHaveCount(2)
})

test('200 levels and 2,000 siblings open, are worked on, and fold', async ({ page }) => {
  const deep = Array.from({ length: 200 }, (_, i) => `${'  '.repeat(i)}- Level ${i + 1}`)
  const wide = Array.from({ length: 2_000 }, (_, i) => `- Sibling ${i + 1}`)
  await plantGarden(page, [...deep, ...wide].join('\n'), false)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('Garden')
  await page
    .getByRole('option', { name: /^Garden/ })
    .last()
    .click()
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Tab')
  await page.keyboard.type('One more')
  await page.keyboard.press('Escape')
  await expect(topic(page, 'One more')).toHaveAttribute('aria-setsize', '2002')
  await expectNoOverlap(page)
  await page.keyboard.press('Control+z')
  await expect(topic(page, 'One more')).toHaveCount(0)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('Level 200')
  await page.getByRole('option', { name: /^Level 200/ }).click()
  await expect(topic(page, 'Level 200')).toHaveAttribute('aria-level', '201')
  await expect(topic(page, 'Level 200')).toBeInViewport()
  await allSaved(page)
})

test('an empty map says what to do next, by keyboard alone, and an empty topic leaves nothing behind', async ({
  page,
}) => {
  await beginWithoutAccount(page)
  await makeMap(page, 'Garden')
  await expect(page.getByText(/Press Enter and write/)).toBeVisible()
  await page.keyboard.press('Tab')
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-topic]')).toHaveCount(1)
  await page.keyboard.press('Delete')
  await expect(page.getByText(/keeps its root topic/)).toBeVisible()
  for (const key of ['Alt+f', 'Alt+Shift+f', 'Alt+c', 'Alt+g', ' ', 'Control+d', 'Shift+Tab', 'Alt+ArrowUp'])
    await page.keyboard.press(key)
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
})
