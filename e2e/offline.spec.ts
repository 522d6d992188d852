import { allSaved, plantGarden, selectTopic, topic } from './person'
import { expect, test } from './watched'

test.use({ serviceWorkers: 'allow' })

/** How many maps the browser keeps, and whether it keeps what was told since. */
async function keptHere(): Promise<{ maps: number; told: boolean }> {
  const done = <Result>(request: IDBRequest<Result>) =>
    new Promise<Result>((resolve, reject) => {
      request.onsuccess = () => resolve(request.result)
      request.onerror = () => reject(request.error)
    })
  const database = await done(indexedDB.open('folvet-kept-maps'))
  const count = (store: string) => done(database.transaction(store).objectStore(store).count())
  const [maps, told] = await Promise.all([count('maps'), count('told')])
  database.close()
  return { maps, told: told > 0 }
}

test('without a connection opened maps open again, as they were last heard of, are written on, and all is sent later', async ({
  page,
  context,
}) => {
  await plantGarden(page, '- Peas\n- Beans')
  await allSaved(page)
  // The page, its parts and the map are kept while nothing else is to be done.
  const fetched = page.waitForResponse(/\/MarksSection\.[^/]*\.js$/)
  await page.reload()
  await expect(topic(page, 'Peas')).toBeVisible()
  // Parts are fetched one after the other: with this one, those of the dialogs are here.
  await fetched
  await selectTopic(page, 'Peas')
  await page.keyboard.press('F2')
  await page.keyboard.press('End')
  await page.keyboard.type(' and mint')
  await page.keyboard.press('Enter')
  await allSaved(page)
  await expect
    .poll(() => page.evaluate(async () => (await caches.match('/c/page')) !== undefined), { timeout: 30_000 })
    .toBe(true)
  await expect.poll(() => page.evaluate(keptHere)).toEqual({ maps: 1, told: true })
  await context.setOffline(true)
  await page.reload()
  await expect(topic(page, 'Peas and mint')).toBeVisible()
  await expect(page.getByText(/^The server was not reached: shown as this browser had it today/)).toBeVisible()
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
