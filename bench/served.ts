import { chmodSync, mkdtempSync, rmSync } from 'node:fs'
import { type Browser, type BrowserContext, chromium, type Page } from '@playwright/test'
import { CHROMIUM_LAUNCH } from '../scripts/setup/chromium.mjs'
import { importAndWait } from '../scripts/setup/imports.mjs'
import { freePort, migrate, startPostgres } from '../scripts/setup/postgres.mjs'
import { serve } from '../scripts/setup/serve.mjs'
import type { Measurement } from './measure'

/** A browser with a person and a collection of theirs, on a server of its own. */
export interface Served {
  browser: Browser
  context: BrowserContext
  address: string
  collection: string
  databaseUrl: string
  /** Of the server. */
  pid: number
}

/** Opens a map until a press on its root selects it; returns the time in ms. */
export async function openMap(
  page: Page,
  { address, collection }: Pick<Served, 'address' | 'collection'>,
  map: string,
  root: RegExp,
): Promise<number> {
  const start = performance.now()
  await page.goto(`${address}/c/${collection}/m/${map}`)
  await page.getByRole('treeitem', { name: root }).waitFor()
  await page.getByRole('treeitem', { name: root }).click()
  await page.locator('[aria-selected="true"]').first().waitFor()
  return performance.now() - start
}

/** Begins without an account and imports maps; the browser keeps the session. */
export async function withServer(
  work: (served: Served, grow: (text: string) => Promise<string>) => Promise<Measurement[]>,
): Promise<Measurement[]> {
  const data = mkdtempSync('/tmp/folvet-bench-')
  chmodSync(data, 0o755)
  const postgres = await startPostgres(data)
  try {
    await migrate(postgres.url)
    const app = await serve({ databaseUrl: postgres.url, port: await freePort() })
    const browser = await chromium.launch(CHROMIUM_LAUNCH)
    try {
      const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' })
      const begun = await context.request.post(`${app.address}/api/guests`)
      const { collection } = (await begun.json()) as { collection: string }
      const grow = async (text: string) => {
        const [map] = await importInto(context, app.address, collection, [{ path: 'bench.txt', text }])
        return map!
      }
      return await work(
        { browser, context, address: app.address, collection, databaseUrl: postgres.url, pid: app.child.pid! },
        grow,
      )
    } finally {
      await browser.close()
      await app.stop()
    }
  } finally {
    await postgres.stop()
    rmSync(data, { recursive: true, force: true })
  }
}

/** Imports pages as somebody who is signed in, and waits until they are there. */
export const importInto = (
  { request }: BrowserContext,
  address: string,
  collection: string,
  pages: { path: string; text: string }[],
): Promise<string[]> =>
  importAndWait(async (method, path, body) => {
    const options = { method, timeout: 120_000, ...(body ? { data: body } : {}) }
    return (await request.fetch(`${address}/api/collections/${collection}${path}`, options)).json()
  }, pages)

export const plain = (
  measured: Pick<Measurement, 'name' | 'value' | 'unit' | 'limit'> & { note: string },
): Measurement => ({
  ...measured,
  peer: null,
  peerValue: null,
  ratio: null,
  ok: measured.limit !== null && measured.value <= measured.limit,
})
