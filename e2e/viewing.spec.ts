import { expect, test } from '@playwright/test'
import { plantGarden, selectTopic, topic } from './person'

/** A list of so many branches with four topics each. */
const long = (branches: number) =>
  Array.from(
    { length: branches },
    (_, i) => `- Branch ${i}\n${[1, 2, 3, 4].map((n) => `  - Topic ${i}.${n}`).join('\n')}`,
  ).join('\n')

test('a large map is seen whole as bars, with an overview, and every way of fitting leads back', async ({ page }) => {
  await plantGarden(page, long(90))
  const stage = page.locator('[data-stage]')
  // Seen whole, its words cannot be read: bars on a canvas stand for them, and only what is selected is an element.
  await expect(stage.locator('canvas').first()).toBeVisible()
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeLessThan(10)
  const box = (await stage.boundingBox())!
  await page.mouse.dblclick(box.x + box.width / 2 + 14, box.y + box.height / 2)
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeGreaterThan(20)
  await page.keyboard.press('Alt+z')
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeLessThan(10)
  await page.keyboard.press('Alt+Shift+f')
  await expect.poll(() => stage.locator('[data-topic]').count()).toBeGreaterThan(20)
  await expect(topic(page, 'Branch 0')).toBeInViewport()
  await selectTopic(page, 'Branch 0')
  await page.keyboard.press('Alt+g')
  for (const name of ['Branch 0', 'Topic 0.1', 'Topic 0.4']) await expect(topic(page, name)).toBeInViewport()
  // A press on the overview goes there.
  const overview = stage.getByTitle(/^The whole map/)
  const small = (await overview.boundingBox())!
  await page.mouse.click(small.x + small.width / 2, small.y + small.height - 12)
  await expect(topic(page, 'Branch 0')).not.toBeInViewport()
  await page.keyboard.press('Alt+v')
  await expect(overview).toHaveCount(0)
})

test('the selection is never lost: deleted or filtered away it hands over to what is above', async ({ page }) => {
  await plantGarden(page, '- Spring\n  - Sow peas\n    - In rows\n- Summer')
  await selectTopic(page, 'In rows')
  await page.keyboard.press('Delete')
  await expect(page.locator('[aria-selected="true"]')).toHaveCount(1)
  await page.keyboard.press('Control+z')
  await selectTopic(page, 'In rows')
  await page.getByRole('button', { name: /^Filter/ }).click()
  await page.getByLabel('Topics with these words').fill('summer')
  await page.getByLabel('Show nothing else').check()
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Garden')).toHaveAttribute('aria-selected', 'true')
})

test('with fingers: a tap selects, a long press opens the menu, a drag moves the map', async ({ browser }) => {
  const context = await browser.newContext({ hasTouch: true, permissions: ['clipboard-read', 'clipboard-write'] })
  const page = await context.newPage()
  await plantGarden(page, '- Spring\n- Summer')
  await topic(page, 'Spring').tap()
  await expect(topic(page, 'Spring')).toHaveAttribute('aria-selected', 'true')
  const client = await context.newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', x = 0, y = 0) =>
    client.send('Input.dispatchTouchEvent', { type, touchPoints: type === 'touchEnd' ? [] : [{ x, y }] })
  const summer = (await topic(page, 'Summer').boundingBox())!
  const at = { x: summer.x + summer.width / 2, y: summer.y + summer.height / 2 }
  await touch('touchStart', at.x, at.y)
  await expect(page.getByRole('menuitem', { name: 'Add a child' })).toBeVisible()
  await touch('touchEnd')
  await page.keyboard.press('Escape')
  await topic(page, 'Spring').tap()
  const before = (await topic(page, 'Summer').boundingBox())!
  await touch('touchStart', before.x + 4, before.y + 4)
  for (const step of [20, 50, 90]) await touch('touchMove', before.x + 4, before.y + 4 - step)
  await touch('touchEnd')
  await expect.poll(async () => (await topic(page, 'Summer').boundingBox())!.y).toBeLessThan(before.y - 40)
  await context.close()
})
