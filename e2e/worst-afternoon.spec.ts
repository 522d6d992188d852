import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { importAndWait } from '../scripts/setup/imports.mjs'
import { freePort, migrate, startPostgres } from '../scripts/setup/postgres.mjs'
import { serve } from '../scripts/setup/serve.mjs'
import { addAt, beginWithoutAccount, openSheet, selectTopic, topic } from './person'
import { expect, type Page, test } from './watched'

/** A server of this story's own, as its database is stopped. */
const port = 4187
test.use({ baseURL: `http://127.0.0.1:${port}` })
const data = mkdtempSync(join(tmpdir(), 'folvet-afternoon-'))
let postgres: Awaited<ReturnType<typeof startPostgres>>
let app: Awaited<ReturnType<typeof serve>>
let databasePort = 0
test.beforeAll(async () => {
  chmodSync(data, 0o755)
  databasePort = await freePort()
  postgres = await startPostgres(data, { port: databasePort })
  await migrate(postgres.url)
  app = await serve({ databaseUrl: postgres.url, port, env: { LOG_LEVEL: 'silent' } })
})
test.afterAll(async () => {
  await app.stop()
  await postgres.stop()
  rmSync(data, { recursive: true, force: true })
})

/** Types a note at the topic that is selected, and leaves the field. */
async function note(page: Page, name: string, words: string): Promise<void> {
  await selectTopic(page, name)
  await page.keyboard.press('Alt+n')
  await page.keyboard.type(words)
  await page.keyboard.press('Escape')
}

test('the worst afternoon: a slow line that breaks, a trash emptied, a right taken back, a tab killed, the database stopped, and every sentence is somewhere', async ({
  page: anna,
  browser,
  allow,
}) => {
  allow(/^(401|403|404|5\d\d) /)
  allow(/net::ERR_|Failed to fetch/)
  await beginWithoutAccount(anna)
  const collection = /\/c\/([^/]+)/.exec(anna.url())![1]!
  const base = `/api/collections/${collection}`
  const ask = async (method: 'GET' | 'POST' | 'DELETE', path: string, body?: object) =>
    (await anna.request.fetch(base + path, { method, ...(body ? { data: body } : {}) })).json()
  const [garden, pond] = await importAndWait(ask, [
    { path: 'garden.md', text: '# Garden\n\n- Peas\n- Beans\n- Leeks' },
    { path: 'pond.md', text: '# Pond\n\n- Heron' },
  ])
  const invite = async () =>
    (await ask('POST', '/grants', { to: 'link', role: 'editor', maps: null, withChildMaps: false, endsAt: null })) as {
      id: string
      secret: string
    }
  const ben = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage()
  const come = async (secret: string) =>
    expect((await ben.request.post(`${app.address}/api/links`, { data: { secret } })).status()).toBe(200)
  await beginWithoutAccount(ben)
  const first = await invite()
  await come(first.secret)

  // Ben's line is slow, and then there is none.
  await ben.goto(`/c/${collection}/m/${garden}`)
  await openSheet(ben)
  const line = await ben.context().newCDPSession(ben)
  await line.send('Network.enable')
  const slow = { offline: false, latency: 400, downloadThroughput: 12_000, uploadThroughput: 12_000 }
  await line.send('Network.emulateNetworkConditions', slow)
  await note(ben, 'Peas', 'Peas need a net against the pigeons.')
  await addAt(ben, 'Beans', 'Tab', 'Poles of hazel')
  const written = () => anna.request.get(`${base}/maps/${garden}`).then((answer) => answer.text())
  await expect.poll(written, { timeout: 60_000 }).toMatch(/pigeons[\s\S]*hazel|hazel[\s\S]*pigeons/)
  await line.send('Network.emulateNetworkConditions', {
    ...slow,
    latency: 0,
    downloadThroughput: -1,
    uploadThroughput: -1,
  })
  await ben.goto(`/c/${collection}/m/${pond}`)
  await expect(topic(ben, 'Heron')).toBeVisible()
  await ben.context().setOffline(true)
  await note(ben, 'Heron', 'The heron came at dawn.')
  await addAt(ben, 'Heron', 'Enter', 'Two newts below the jetty')
  await expect(ben.getByText(/No connection: \d changes? (is|are) kept here and will be sent/)).toBeVisible()

  // Meanwhile Anna lets nobody in any more, and removes what he writes on for good.
  await ask('DELETE', `/grants/${first.id}`)
  await ask('POST', '/commands/trash-maps', { id: crypto.randomUUID(), args: { maps: [pond] } })
  expect(await ask('DELETE', '/trash')).toMatchObject({ maps: 1 })

  // Her tab is killed in the middle of a sentence.
  await anna.goto(`/c/${collection}/m/${garden}`)
  await selectTopic(anna, 'Leeks')
  await anna.keyboard.press('Alt+n')
  await expect(anna.getByRole('textbox', { name: 'Note', exact: true })).toBeFocused()
  await anna.keyboard.type('Leeks like ash in the bed', { delay: 20 })
  // It is kept in the browser, where it was not saved before.
  const drafts = () => JSON.stringify({ ...localStorage })
  await expect.poll(async () => (await anna.evaluate(drafts)) + (await written())).toContain('ash in the bed')
  const tab = await anna.context().newCDPSession(anna)
  void tab.send('Page.crash').catch(() => {})
  const again = await anna.context().newPage()
  await again.goto(`/c/${collection}/m/${garden}`)
  await expect(topic(again, 'Leeks')).toBeVisible()
  await expect.poll(written).toContain('Leeks like ash in the bed')

  // The database goes away while she writes on.
  await postgres.stop('SIGQUIT')
  await addAt(again, 'Leeks', 'Enter', 'Onions keep until spring')
  await expect(again.getByText('Everything is saved')).toBeHidden()
  postgres = await startPostgres(data, { port: databasePort })
  await expect.poll(written, { timeout: 60_000 }).toContain('Onions keep until spring')
  await expect(again.getByText('Everything is saved')).toBeVisible({ timeout: 60_000 })

  // Ben is let in again, and has his line back: what he wrote is on no map, and in front of him.
  await come((await invite()).secret)
  await ben.context().setOffline(false)
  await ben.goto(`/c/${collection}/m/${garden}`)
  await ben.getByRole('button', { name: /not saved: look/ }).click()
  const kept = ben.getByRole('dialog', { name: 'What could not be saved' })
  const words = async () =>
    (
      await kept
        .getByRole('textbox')
        .evaluateAll((fields) => fields.map((field) => (field as HTMLTextAreaElement).value))
    ).join('\n')
  await expect.poll(words).toContain('The heron came at dawn.')
  expect(await words()).toContain('Two newts below the jetty')
  const all = await written()
  for (const sentence of ['pigeons', 'hazel', 'ash in the bed', 'Onions keep']) expect(all).toContain(sentence)
  await ben.context().close()
})
