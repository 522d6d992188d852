import { v7 as uuid } from 'uuid'
import { inject } from 'vitest'
import type { Change, CommittedChange, Edit, ToldChange } from '../../src/core/changes/edit'
import { ChangeId } from '../../src/core/records/ids'
import type { MapSnapshot, ToldJob } from '../../src/core/records/snapshot'

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
    // Claiming an account renews the session; other cookies are meant for whoever takes them.
    if (this.cookie && renewed && path === '/api/me') this.cookie = renewed
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

  command = (name: string, args: unknown, collection = this.collection, id = uuid()): Promise<Answer> =>
    this.send('POST', `/api/collections/${collection}/commands/${name}`, { id, args })

  /** Somebody new to whom an owner gives a role by a link: in all of their collection, or on some maps. */
  async invite(role: string, only: { maps?: readonly string[]; withChildMaps?: boolean } = {}): Promise<Guest> {
    const guest = await Caller.begin()
    const asked = {
      to: 'link',
      role,
      maps: only.maps ?? null,
      withChildMaps: only.withChildMaps ?? false,
      endsAt: null,
    }
    const given = await this.send('POST', `/api/collections/${this.collection}/grants`, asked)
    const { id, secret } = given.json as { id: string; secret: string }
    await guest.send('POST', '/api/links', { secret })
    return Object.assign(new Caller(guest.cookie, this.collection), { grant: id })
  }

  withdraw = (grant: string): Promise<Answer> =>
    this.call('DELETE', `/api/collections/${this.collection}/grants/${grant}`)

  /** Listens to the change stream after `since`, with the edits of some maps, and digest rows known up to `rows`. */
  async listen(
    since: number,
    maps: readonly string[] = [],
    address = inject('address'),
    rows = since,
  ): Promise<Listening> {
    const path = `/api/collections/${this.collection}/stream?since=${since}&rows=${rows}&maps=${maps.join('.')}`
    const response = await fetch(address + path, { headers: { cookie: this.cookie ?? '' } })
    return new Listening(response)
  }

  /** Asks for an import and waits for what comes of it. */
  async import(pages: { path: string; text: string }[], id = uuid()): Promise<EndedJob> {
    const asked = await this.send('POST', `/api/collections/${this.collection}/imports`, { id, pages })
    if (asked.status !== 202) throw new Error(asked.text)
    return this.ended(id)
  }

  /** A job once it has ended. */
  async ended(job: string): Promise<EndedJob> {
    for (;;) {
      const answer = await this.call('GET', `/api/collections/${this.collection}/jobs/${job}`)
      const told = answer.json as EndedJob
      if (!['waiting', 'running', 'ending'].includes(told.state)) return told
      await new Promise((resolve) => setTimeout(resolve, 20))
    }
  }

  /** Imports one page as a map; returns the map's id. */
  async grow(text: string): Promise<string> {
    const { result } = await this.import([{ path: 'page.md', text }])
    return result.maps[0]!
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
      attachments: records.attachment ?? [],
      comments: records.comment ?? [],
      tags: records.tag ?? [],
      enclosures: records.enclosure ?? [],
      farTopics,
    }
  }
}

/** Somebody who was let in, by which grant. */
export type Guest = Caller & { grant: string }

export interface EndedJob extends ToldJob {
  result: { maps: string[]; select: string[]; unread: unknown[] }
}

export interface Heard {
  kind: string
  id: number
  data: unknown
}

/** A change stream that is read event by event. */
export class Listening {
  private readonly reader: ReadableStreamDefaultReader<string>
  private text = ''
  private readonly heard: Heard[] = []

  constructor(readonly response: Response) {
    this.reader = response.body!.pipeThrough(new TextDecoderStream()).getReader()
  }

  /** The next event of a kind, those of other kinds left out; null where the stream ends before. */
  async next(kind: string): Promise<Heard | null> {
    for (;;) {
      const at = this.heard.findIndex((heard) => heard.kind === kind)
      if (at >= 0) return this.heard.splice(0, at + 1).at(-1)!
      const { value, done } = await this.reader.read()
      if (done) return null
      this.text += value
      for (let end = this.text.indexOf('\n\n'); end >= 0; end = this.text.indexOf('\n\n')) {
        const field = (name: string) => new RegExp(`^${name}: (.*)$`, 'm').exec(this.text.slice(0, end))?.[1]
        const told = field('event')
        if (told) this.heard.push({ kind: told, id: Number(field('id')), data: JSON.parse(field('data')!) })
        this.text = this.text.slice(end + 2)
      }
    }
  }

  /** The changes that come next, until there are `count`. */
  async changes(count: number): Promise<ToldChange[]> {
    const changes: ToldChange[] = []
    while (changes.length < count) {
      const heard = await this.next('changes')
      if (!heard) break
      changes.push(...(heard.data as ToldChange[]))
    }
    return changes
  }

  close = (): Promise<void> => this.reader.cancel()
}

/** The only result of a change that was sent alone. */
export const onlyResult = (answer: Answer) =>
  (
    answer.json as {
      results: ({ ok: true; change: CommittedChange } | { ok: false; problem: { code: string; message: string } })[]
    }
  ).results[0]!
