import { afterEach, beforeEach, expect, test, vi } from 'vitest'
import type { ApiError } from '../../../src/views/app/api'
import { ChangeFeed } from '../../../src/views/sync/change-feed'

/** Connections to the server, as the browser opens them; each is answered by the test. */
class Source {
  static readonly CLOSED = 2
  static opened: { source: Source; at: number }[] = []
  readyState = 0
  onopen = () => {}
  onerror = () => {}
  constructor() {
    Source.opened.push({ source: this, at: Date.now() })
  }
  addEventListener(): void {}
  close(): void {}
  /** An answer that says no: a browser does not try again by itself. */
  refuse(): void {
    this.readyState = Source.CLOSED
    this.onerror()
  }
}

let answer = () => Response.json({ changes: [], more: false, resync: false, rows: [] })
beforeEach(() => {
  vi.useFakeTimers()
  Source.opened = []
  vi.stubGlobal('EventSource', Source)
  vi.stubGlobal(
    'BroadcastChannel',
    class {
      postMessage(): void {}
      close(): void {}
    },
  )
  vi.stubGlobal('navigator', {
    locks: { request: (_: string, __: object, lead: () => unknown) => Promise.resolve(lead()) },
  })
  vi.stubGlobal('fetch', async () => answer())
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

function begin() {
  const refused: ApiError[] = []
  const nothing = () => {}
  const feed = new ChangeFeed('collection', 0, {
    take: nothing,
    takeRows: nothing,
    takeJobs: nothing,
    resync: nothing,
    connected: nothing,
    refused: (error) => refused.push(error),
  })
  return { feed, refused }
}

test('a stream that is refused is opened again with growing pauses, and with short ones after it stood', async () => {
  const { feed } = begin()
  await vi.advanceTimersByTimeAsync(0)
  const pauses: number[] = []
  for (let i = 0; i < 7; i++) {
    const { source, at } = Source.opened.at(-1)!
    source.refuse()
    await vi.advanceTimersByTimeAsync(40_000)
    pauses.push(Source.opened.at(-1)!.at - at)
    vi.setSystemTime(Source.opened.at(-1)!.at)
  }
  expect(pauses.every((pause, i) => i === 0 || pause > pauses[i - 1]! || pause > 20_000)).toBe(true)
  expect(pauses[0]).toBeLessThan(1_500)
  expect(Math.max(...pauses)).toBeLessThan(37_000)
  Source.opened.at(-1)!.source.onopen()
  const before = Date.now()
  Source.opened.at(-1)!.source.refuse()
  await vi.advanceTimersByTimeAsync(40_000)
  expect(Source.opened.at(-1)!.at - before).toBeLessThan(1_500)
  feed.close()
})

test('whoever may not read any more is told so, and not asked for again', async () => {
  const { feed, refused } = begin()
  await vi.advanceTimersByTimeAsync(0)
  answer = () => Response.json({ error: 'Please sign in.' }, { status: 401 })
  Source.opened.at(-1)!.source.refuse()
  await vi.advanceTimersByTimeAsync(300_000)
  expect(refused.map(({ status }) => status)).toEqual([401])
  expect(Source.opened).toHaveLength(1)
  feed.close()
})
