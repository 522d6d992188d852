import { importAndWait } from '../scripts/setup/imports.mjs'
import { beginWithoutAccount, cardOf, importFiles, openSheet } from './person'
import { expect, type Page, test } from './watched'

const asker = (page: Page, base: string) => async (method: 'GET' | 'POST', path: string, body?: object) =>
  (await page.request.fetch(base + path, { method, ...(body ? { data: body } : {}) })).json()

test('somebody to whom one map is open reads it as it grows, and learns nothing of the others', async ({
  page,
  browser,
  allow,
}) => {
  // What is not open answers so, to whoever asks for it by its address.
  allow(/^(403|404) GET .*\/api\/collections/)
  await beginWithoutAccount(page)
  const collection = /\/c\/([^/]+)/.exec(page.url())![1]!
  const ask = asker(page, `/api/collections/${collection}`)
  const [garden, pond] = await importAndWait(ask, [
    { path: 'garden.md', text: '# Garden\n\n- [Pond](pond.md)\n- Bed\n\n  See [the nest](pond.md#nest).' },
    { path: 'pond.md', text: '# Hidden pond\n\n- Nest' },
  ])
  const asked = { to: 'link', role: 'reader', maps: [garden], withChildMaps: false, endsAt: null }
  const { id, secret } = (await ask('POST', '/grants', asked)) as { id: string; secret: string }

  const guest = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await beginWithoutAccount(guest)
  expect((await guest.request.post('/api/links', { data: { secret } })).status()).toBe(200)
  await guest.goto(`/c/${collection}`)
  await expect(cardOf(guest, 'Garden')).toBeVisible()
  await expect(guest.getByText('Hidden')).toBeHidden()
  await expect(guest.getByRole('button', { name: 'New map' })).toBeHidden()
  await cardOf(guest, 'Garden').click()
  const bed = guest.getByRole('treeitem', { name: 'Bed' })
  await bed.click()
  await openSheet(guest)
  await expect(guest.getByText('something that is not open to you').first()).toBeVisible()
  await guest.keyboard.press('F2')
  await expect(guest.getByRole('textbox', { name: /Text of/ })).toBeHidden()

  await page.goto(`/c/${collection}/m/${garden}`)
  await page.getByRole('treeitem', { name: 'Bed' }).click()
  await page.keyboard.press('Tab')
  await page.keyboard.type('Rose')
  await page.keyboard.press('Enter')
  await expect(guest.getByRole('treeitem', { name: 'Rose' })).toBeVisible()

  await guest.goto(`/c/${collection}/m/${pond}`)
  await expect(guest.getByText('This map is not open to you, or it is gone.')).toBeVisible()
  await guest.getByRole('main').getByRole('link', { name: 'All maps' }).click()
  await expect(cardOf(guest, 'Garden')).toBeVisible()

  await page.request.delete(`/api/collections/${collection}/grants/${id}`)
  await guest.reload()
  await expect(guest.getByText('There is no such collection, or it is not open to you.')).toBeVisible()
  await guest.context().close()
})

test('what was written in a collection that was taken away meanwhile is found in the list of collections', async ({
  page,
  browser,
  allow,
}) => {
  allow(/^(403|404) (GET|POST) .*\/api\/collections/)
  await beginWithoutAccount(page)
  const collection = /\/c\/([^/]+)/.exec(page.url())![1]!
  const ask = asker(page, `/api/collections/${collection}`)
  const [garden] = await importAndWait(ask, [{ path: 'garden.md', text: '# Garden\n\n- Bed' }])
  const asked = { to: 'link', role: 'editor', maps: null, withChildMaps: false, endsAt: null }
  const { id, secret } = (await ask('POST', '/grants', asked)) as { id: string; secret: string }

  const guest = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  await beginWithoutAccount(guest)
  expect((await guest.request.post('/api/links', { data: { secret } })).status()).toBe(200)
  await guest.goto(`/c/${collection}/m/${garden}`)
  await guest.getByRole('treeitem', { name: 'Bed' }).click()
  await guest.context().setOffline(true)
  await guest.keyboard.press('Enter')
  await guest.keyboard.type('A rose by the gate')
  await guest.keyboard.press('Enter')
  await guest.keyboard.press('Escape')
  await expect(guest.getByText('No connection: 1 change is kept here and will be sent')).toBeVisible()
  await page.request.delete(`/api/collections/${collection}/grants/${id}`)
  await guest.context().setOffline(false)
  await guest.goto('/')
  const words = guest.getByRole('textbox', { name: /^Words of: / })
  await expect(words).toHaveValue('A rose by the gate')
  await guest.reload()
  await expect(words).toHaveValue('A rose by the gate')
  await guest.getByRole('button', { name: 'Throw away' }).click()
  await expect(words).toHaveCount(0)
  await guest.context().close()
})

test('a large import is seen as it goes, from the map too, and is cancelled there', async ({ page, context }) => {
  await beginWithoutAccount(page)
  const collection = /\/c\/([^/]+)/.exec(page.url())![1]!
  const [garden] = await importAndWait(asker(page, `/api/collections/${collection}`), [
    { path: 'garden.md', text: '# Garden\n\n- Bed' },
  ])
  const topics = Array.from({ length: 300 }, (_, i) => `- Topic ${i}\n\n  Words about topic ${i}.`).join('\n')
  const files = Array.from({ length: 80 }, (_, i) => ({
    name: `page-${i}.md`,
    mimeType: 'text/markdown',
    buffer: Buffer.from(`# Page ${i}\n\n${topics}`),
  }))
  await page.goto(`/c/${collection}`)
  await importFiles(page, files)
  await expect(page.getByText(/Import 80 pages: \d+ of \d+/)).toBeVisible({ timeout: 30_000 })

  const other = await context.newPage()
  await other.goto(`/c/${collection}/m/${garden}`)
  await expect(other.getByText(/Import 80 pages: [1-9]\d* of \d+/)).toBeVisible({ timeout: 30_000 })
  await other.getByRole('button', { name: 'Cancel: Import 80 pages' }).click()
  await expect(other.getByText(/Import 80 pages: \d/)).toBeHidden({ timeout: 30_000 })
  await expect(page.getByText('The import was cancelled.')).toBeVisible({ timeout: 30_000 })
  await expect(cardOf(page, 'Garden')).toBeVisible()
  await expect(page.getByRole('link', { name: 'Page 1', exact: true })).toBeHidden()
  await other.close()
})
