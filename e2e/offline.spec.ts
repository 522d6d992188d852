import { addAt, allSaved, beginOnMap, selectTopic, topic, write } from './person'
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
  allow,
}) => {
  allow(/^404 GET .*\/maps\//)
  // Begun from the list of collections, in place: the page itself was loaded elsewhere.
  const fetched = page.waitForResponse(/\/MarksSection\.[^/]*\.js$/)
  await beginOnMap(page)
  for (const name of ['Garden', 'Peas', 'Beans']) {
    await write(page, name)
    if (name === 'Garden') await page.keyboard.press('Tab')
  }
  await page.keyboard.press('Escape')
  await expect(topic(page, 'Beans')).toBeVisible()
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
  await expect(page.getByText(/^The server was not reached: shown as this browser had it/)).toBeVisible()
  await addAt(page, 'Beans', 'Enter', 'Leeks')
  await expect(page.getByText('No connection: 1 change is kept here and will be sent')).toBeVisible()
  // Once more: what was written without a connection is there too.
  await page.reload()
  await expect(topic(page, 'Leeks')).toBeVisible()
  await context.setOffline(false)
  await allSaved(page)
  await expect(topic(page, 'Leeks')).toBeVisible()
  await page.reload()
  await expect(topic(page, 'Leeks')).toBeVisible()
  // What was never opened here is not said to be gone, until the server says so.
  const address = page.url()
  await context.setOffline(true)
  await page.goto(address.replace(/[^/]+$/, crypto.randomUUID()))
  await expect(page.getByText('This map was not opened in this browser before.')).toBeVisible()
  await context.setOffline(false)
  await expect(page.getByText('This map is not open to you, or it is gone.')).toBeVisible()
  await page.goto(address)
  await expect(topic(page, 'Leeks')).toBeVisible()
  // Who goes leaves nothing of it in the browser.
  await page.getByRole('button', { name: 'Guest' }).click()
  await page.getByRole('menuitem', { name: 'End and leave nothing here' }).click()
  await page.getByRole('button', { name: 'Remove everything' }).click()
  await expect(page.getByRole('button', { name: 'Start without an account' })).toBeVisible()
})
