import { allSaved, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test.use({ serviceWorkers: 'allow' })

test('without a connection opened maps open again, as they were last heard of, are written on, and all is sent later', async ({
  page,
  context,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  await allSaved(page)
  // The page, its parts and the map are kept while nothing else is to be done.
  await page.reload()
  await expect(topic(page, 'Peas')).toBeVisible()
  await selectTopic(page, 'Peas')
  await page.keyboard.press('F2')
  await page.keyboard.press('End')
  await page.keyboard.type(' and mint')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await expect
    .poll(() => page.evaluate(async () => (await caches.match('/c/page')) !== undefined), { timeout: 30_000 })
    .toBe(true)
  await page.waitForTimeout(2_000)
  await context.setOffline(true)
  await page.reload()
  await expect(topic(page, 'Peas and mint')).toBeVisible()
  await expect(page.getByText(/^No connection: shown as this browser had it today/)).toBeVisible()
  await selectTopic(page, 'Beans')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Leeks')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Escape')
  await expect(page.getByText('No connection: 1 change is kept here and will be sent')).toBeVisible()
  // Once more: what was written without a connection is there too.
  await page.reload()
  await expect(topic(page, 'Leeks')).toBeVisible()
  await context.setOffline(false)
  await allSaved(page)
  await expect(topic(page, 'Leeks')).toBeVisible()
  await page.reload()
  await expect(topic(page, 'Leeks')).toBeVisible()
  // Who goes leaves nothing of it in the browser.
  await page.getByRole('button', { name: 'Guest' }).click()
  await page.getByRole('menuitem', { name: 'End and leave nothing here' }).click()
  await page.getByRole('button', { name: 'Remove everything' }).click()
  await expect(page.getByRole('button', { name: 'Start without an account' })).toBeVisible()
})
