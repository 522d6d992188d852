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
  private readonly heard = new Map<string, (event: object) => void>()
  constructor(readonly address: string) {
    Source.opened.push({ source: this, at: Date.now() })
  }
  addEventListener(kind: string, listener: (event: object) => void): void {
    this.heard.set(kind, listener)
  }
  tell(kind: string, data: unknown, number: number): void {
    this.heard.get(kind)!({ data: JSON.stringify(data), lastEventId: String(number) })
  }
  close(): void {}
  /** An answer that says no: a browser does not try again by itself. */
  refuse(): void {
    this.readyState = Source.CLOSED
    this.onerror()
  }
}

let asked: string[] = []
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
  asked = []
  vi.stubGlobal('fetch', async (address: string) => {
    asked.push(address)
    return answer()
  })
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

const ID = '01a21ba8-52c9-71de-a991-ed3dc5c41247'
const AT = '2031-05-01T08:00:00.000Z'

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

test('what is asked after a command is asked after it, with the rows that were not told yet', async () => {
  const { feed } = begin()
  await vi.advanceTimersByTimeAsync(0)
  const { source } = Source.opened.at(-1)!
  const change = { id: ID, number: 1, label: 'Write', undoes: null, person: ID, personName: 'Ada', at: AT, edits: null }
  source.tell('changes', [{ ...change, maps: [], step: null }], 1)
  asked = []
  source.refuse()
  await vi.advanceTimersByTimeAsync(2_000)
  expect(asked[0]).toContain('after=1&rows=0')
  expect(Source.opened.at(-1)!.source.address).toContain('since=1&rows=1')
  asked = []
  const [first, second, third] = [feed.catchUp(), feed.catchUp(), feed.catchUp()]
  expect(second).toBe(third)
  await Promise.all([first, second])
  expect(asked.map((address) => address.split('?')[1])).toEqual(Array(2).fill('after=1&rows=1&maps='))
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
