import { v7 as uuid } from 'uuid'
import { inject } from 'vitest'
import type { Change, CommittedChange, Edit } from '../../src/core/changes/edit'
import { ChangeId } from '../../src/core/records/ids'
import type { MapSnapshot } from '../../src/core/records/snapshot'

export interface Answer {
  status: number
  headers: Headers
  text: string
  json: unknown
}

/** Somebody with a session of their own who talks to the server. */
export class Caller {
  private constructor(
    public cookie: string | null,
    /** The collection that they began with. */
    readonly collection: string,
  ) {}

  static nobody = new Caller(null, '')

  static async begin(): Promise<Caller> {
    const response = await fetch(`${inject('address')}/api/guests`, { method: 'POST' })
    const cookie = response.headers.get('set-cookie')?.split(';')[0] ?? ''
    const { collection } = (await response.json()) as { collection: string }
    return new Caller(cookie, collection)
  }

  /** The response as it comes; `address` is that of the server unless another process is meant. */
  async raw(
    method: string,
    path: string,
    body?: BodyInit | null,
    headers: Record<string, string> = {},
    address = inject('address'),
  ): Promise<Response> {
    const response = await fetch(address + path, {
      method,
      headers: { ...(this.cookie ? { cookie: this.cookie } : {}), ...headers },
      body: body ?? null,
      redirect: 'manual',
      signal: AbortSignal.timeout(20_000),
    })
    const renewed = response.headers.get('set-cookie')?.split(';')[0]
    if (this.cookie && renewed) this.cookie = renewed
    return response
  }

  async call(
    method: string,
    path: string,
    body?: BodyInit | null,
    headers: Record<string, string> = {},
  ): Promise<Answer> {
    const response = await this.raw(method, path, body, headers)
    const isStream = response.headers.get('content-type') === 'text/event-stream'
    if (isStream) await response.body?.cancel()
    const text = isStream ? '' : await response.text()
    return {
      status: response.status,
      headers: response.headers,
      text,
      json: text.startsWith('{') || text.startsWith('[') ? JSON.parse(text) : null,
    }
  }

  send = (method: string, path: string, value: unknown): Promise<Answer> =>
    this.call(method, path, JSON.stringify(value), { 'Content-Type': 'application/json' })

  change = (edits: Edit[], id = uuid(), collection = this.collection): Promise<Answer> => {
    const change: Change = { id: ChangeId.parse(id), label: 'Test', edits, undoes: null }
    return this.send('POST', `/api/collections/${collection}/changes`, { changes: [change] })
  }

  command = (name: string, args: unknown, collection = this.collection): Promise<Answer> =>
    this.send('POST', `/api/collections/${collection}/commands/${name}`, args)

  /** Imports one page as a map; returns the map's id. */
  async grow(text: string): Promise<string> {
    const answer = await this.command('import', { pages: [{ path: 'page.md', text }] })
    return (answer.json as { report: { maps: string[] } }).report.maps[0]!
  }

  /** A map as a browser holds it, by the plural of each kind. */
  async map(id: string) {
    const held = (await this.call('GET', `/api/collections/${this.collection}/maps/${id}`)).json as MapSnapshot
    const { number, records, farTopics } = held
    return {
      number,
      map: records.map![0]!,
      topics: records.topic ?? [],
      notes: records.note ?? [],
      crosslinks: records.crosslink ?? [],
      files: records.file ?? [],
      tags: records.tag ?? [],
      enclosures: records.enclosure ?? [],
      farTopics,
    }
  }
}

/** The only result of a change that was sent alone. */
export const onlyResult = (answer: Answer) =>
  (
    answer.json as {
      results: ({ ok: true; change: CommittedChange } | { ok: false; problem: { code: string; message: string } })[]
    }
  ).results[0]!
