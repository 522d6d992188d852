import type { APIRequestContext, Page } from '@playwright/test'
import { v7 as uuid } from 'uuid'
import { freePort } from '../scripts/setup/postgres.mjs'
import { serve } from '../scripts/setup/serve.mjs'
import type { MapSnapshot } from '../src/core/records/snapshot'
import type { Measurement } from './measure'
import { openMap, plain, type Served, withServer } from './served'
import { keysToPaint, outline, percentile } from './stage'

const CLIENTS = 20
const SECONDS = 12

interface Client {
  headers: Record<string, string>
  address: string
}

/** Somebody with a role in the collection, at one of the two processes, who listens to its changes. */
async function join(request: APIRequestContext, served: Served, map: string, address: string): Promise<Client> {
  const base = `${served.address}/api/collections/${served.collection}`
  const asked = { to: 'link', role: 'editor', maps: null, withChildMaps: false, endsAt: null }
  const { secret } = (await (await request.post(`${base}/grants`, { data: asked })).json()) as { secret: string }
  const begun = await fetch(`${address}/api/guests`, { method: 'POST' })
  const headers = { cookie: begun.headers.get('set-cookie')!.split(';')[0]!, 'Content-Type': 'application/json' }
  await fetch(`${address}/api/links`, { method: 'POST', headers, body: JSON.stringify({ secret }) })
  const stream = await fetch(`${address}/api/collections/${served.collection}/stream?since=0&maps=${map}`, { headers })
  void stream.body!.pipeTo(new WritableStream()).catch(() => {})
  return { headers, address }
}

/** Words with the time at which they were sent: whoever sees them knows how long they took. */
const stamped = (client: number) => `said at ${Date.now()} by ${client}`

/** Each client rewords a topic of its own once a second, until told to stop. */
function writeAlong(clients: readonly Client[], collection: string, topics: readonly string[]): () => Promise<void> {
  let isOver = false
  const writing = clients.map(async ({ headers, address }, i) => {
    await new Promise((resolve) => setTimeout(resolve, (i * 1_000) / clients.length))
    while (!isOver) {
      const edit = { kind: 'topic', id: topics[i], before: {}, after: { text: stamped(i) } }
      const changes = [{ id: uuid(), label: 'Reword', edits: [edit], undoes: null }]
      const path = `${address}/api/collections/${collection}/changes`
      await fetch(path, { method: 'POST', headers, body: JSON.stringify({ changes }) })
      await new Promise((resolve) => setTimeout(resolve, 1_000))
    }
  })
  return async () => {
    isOver = true
    await Promise.all(writing)
  }
}

/** How long what is said takes to the painted frame of this page, in ms. */
async function watch(page: Page): Promise<() => Promise<number[]>> {
  await page.evaluate(() => {
    const lags: number[] = []
    const seen = new Set<string>()
    Object.assign(window, { lags })
    new MutationObserver((records) => {
      for (const { target } of records) {
        const said = /said at (\d+)/.exec((target as Element).getAttribute('aria-label') ?? '')?.[1]
        if (!said || seen.has(said)) continue
        seen.add(said)
        requestAnimationFrame(() => requestAnimationFrame(() => lags.push(Date.now() - Number(said))))
      }
    }).observe(document.body, { subtree: true, attributes: true, attributeFilter: ['aria-label'] })
  })
  return () => page.evaluate(() => (window as unknown as { lags: number[] }).lags)
}

/** Twenty people at two processes write into one map: how soon it is on another screen, and how keys are answered there. */
export const measureLive = (): Promise<Measurement[]> =>
  withServer(async (served, grow) => {
    const other = await serve({ databaseUrl: served.databaseUrl, port: await freePort() })
    try {
      const { context } = served
      const map = await grow(outline(400))
      const held = await context.request.get(`${served.address}/api/collections/${served.collection}/maps/${map}`)
      const topics = ((await held.json()) as MapSnapshot).records.topic!.map(({ id }) => id as string)
      const clients: Client[] = []
      for (let i = 0; i < CLIENTS; i++)
        clients.push(await join(context.request, served, map, i % 2 ? other.address : served.address))
      const page = await context.newPage()
      await openMap(page, served, map, /^Bench/)
      const lags = await watch(page)
      // Topics near the root, in view all of the time.
      const stop = writeAlong(clients, served.collection, topics.slice(1))
      await page.waitForTimeout(SECONDS * 1_000)
      const seen = await lags()
      const keys = await keysToPaint(page)
      await stop()
      await page.close()
      return [
        plain({
          name: 'live-lag',
          value: percentile(seen, 0.95),
          unit: 'ms',
          limit: 150,
          note: `p95 of ${seen.length} changes, median ${percentile(seen, 0.5).toFixed(0)} ms, from sending to the painted frame`,
        }),
        plain({
          name: 'key-to-paint-20',
          value: percentile(keys, 0.95),
          unit: 'ms',
          limit: 60,
          note: `p95 of ${keys.length} keys in a map of 400, median ${percentile(keys, 0.5).toFixed(0)} ms`,
        }),
      ]
    } finally {
      await other.stop()
    }
  })
