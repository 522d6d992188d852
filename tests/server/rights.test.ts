import { readdirSync, statSync } from 'node:fs'
import { join, relative } from 'node:path'
import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { PLAIN_SETTINGS } from '../../src/core/personal/settings'
import { Caller } from './people'

const NOT_THERE = '00000000-0000-7000-8000-000000000000'

/** Who may do what: the status that each answers with. "." stands for any success, a list for any of several. */
const CALLERS = ['nobody', 'stranger', 'mapReader', 'mapEditor', 'reader', 'commenter', 'editor', 'owner'] as const
type Row = Record<(typeof CALLERS)[number], number | '.' | readonly number[]>
const all = (status: Row['nobody']): Row => ({
  nobody: status,
  stranger: status,
  mapReader: status,
  mapEditor: status,
  reader: status,
  commenter: status,
  editor: status,
  owner: status,
})
const anyone = all('.')
/** Anyone may look at the demo where it is loaded; whether another file of tests has done so by then is open. */
const demoOrNone = all([201, 404])
const signedIn: Row = { ...anyone, nobody: 401 }
const readers: Row = { ...signedIn, stranger: 404 }
const editors: Row = { ...readers, mapReader: 403, reader: 403, commenter: 403 }
/** Who has a role in all of the collection. */
const readersOfAll: Row = { ...readers, mapReader: 403, mapEditor: 403 }
const editorsOfAll: Row = { ...editors, mapEditor: 403 }
const owners: Row = { ...editorsOfAll, editor: 403 }
const missing = { reader: 404, commenter: 404, editor: 404, owner: 404 } as const
const missingToSome = { mapReader: 404, mapEditor: 404 } as const

/** One row for each method of each route. `body` is well formed, so that rights alone decide. */
const TABLE: Record<string, { rights: Row; body?: unknown; path?: string; query?: string }> = {
  'GET /healthz': { rights: anyone },
  'POST /api/guests': { rights: { ...all(409), nobody: '.' } },
  'POST /api/sessions': {
    rights: all(401),
    body: { address: 'nobody@folvet.example', password: 'wrong' },
  },
  'DELETE /api/sessions': { rights: signedIn },
  'POST /api/demo-session': { rights: demoOrNone },
  'GET /api/me': { rights: anyone },
  'POST /api/me': {
    rights: { ...all(400), nobody: 401 },
    body: {},
  },
  'DELETE /api/me': { rights: signedIn },
  'GET /api/me/settings': { rights: signedIn },
  'PUT /api/me/settings': { rights: signedIn, body: PLAIN_SETTINGS },
  'GET /api/collections': { rights: signedIn },
  'POST /api/collections': { rights: signedIn, body: { title: 'Another' } },
  'GET /api/collections/[collection]': { rights: readers },
  'GET /api/collections/[collection]/maps': { rights: readers },
  'GET /api/collections/[collection]/maps/[map]': { rights: readers },
  'GET /api/collections/[collection]/maps/[map]/thumbnail': { rights: readers },
  'GET /api/collections/[collection]/changes': { rights: readers },
  'POST /api/collections/[collection]/changes': {
    rights: editors,
    body: {
      changes: [
        {
          id: NOT_THERE,
          label: 'x',
          undoes: null,
          edits: [{ kind: 'note', id: NOT_THERE, before: {}, after: { text: 'x' } }],
        },
      ],
    },
  },
  'POST /api/collections/[collection]/imports': {
    rights: editorsOfAll,
    body: { pages: [{ path: 'a.md', text: '- a' }] },
  },
  'GET /api/collections/[collection]/jobs': { rights: readersOfAll },
  'GET /api/collections/[collection]/jobs/[job]': { rights: { ...readersOfAll, ...missing } },
  // There is none to cancel.
  'DELETE /api/collections/[collection]/jobs/[job]': {
    rights: { ...readersOfAll, reader: 409, commenter: 409, editor: 409, owner: 409 },
  },
  'POST /api/collections/[collection]/commands/[command]': {
    rights: { ...editors, mapEditor: 404, editor: 409, owner: 409 },
    body: { args: { maps: [NOT_THERE] } },
    path: 'trash-maps',
  },
  'POST /api/collections/[collection]/merge-plan': {
    rights: { ...readers, ...missing, ...missingToSome },
    body: { target: NOT_THERE, sources: [NOT_THERE], way: 'beside' },
  },
  'POST /api/collections/[collection]/adopted': {
    rights: { ...editorsOfAll, editor: 404, owner: 404 },
    body: { id: NOT_THERE, from: '00000000-0000-7000-8000-000000000001', map: NOT_THERE },
  },
  'POST /api/collections/[collection]/draft': { rights: editors, body: { wish: 'A plan', text: '' } },
  'GET /api/collections/[collection]/templates': { rights: readersOfAll },
  'GET /api/collections/[collection]/find': { rights: readers, query: 'words=spring' },
  'GET /api/collections/[collection]/dates': { rights: readers },
  'GET /api/collections/[collection]/dates.ics': { rights: readers },
  'GET /api/collections/[collection]/waiting': { rights: readers, query: 'today=2026-03-14' },
  'GET /api/collections/[collection]/tags': { rights: readers },
  'GET /api/collections/[collection]/search': { rights: readers, query: 'words=spring' },
  'GET /api/collections/[collection]/gathered': { rights: readers, query: 'words=spring' },
  'GET /api/collections/[collection]/maps/[map]/gathered': { rights: readers },
  'GET /api/collections/[collection]/topics/[topic]/around': {
    rights: { ...readers, ...missing, ...missingToSome },
  },
  'GET /api/collections/[collection]/pages': { rights: readersOfAll },
  'POST /api/collections/[collection]/pages': {
    rights: editorsOfAll,
    body: { pages: [{ path: 'a.md', text: '- a' }] },
  },
  'GET /api/collections/[collection]/searches': { rights: readersOfAll },
  'GET /api/collections/[collection]/links': { rights: readers },
  // The owner asks while the check of the editor may still be going on.
  'POST /api/collections/[collection]/links': {
    rights: { ...editorsOfAll, owner: [202, 409] },
    body: { id: NOT_THERE },
  },
  'GET /api/collections/[collection]/way': { rights: readers, query: `from=${NOT_THERE}&to=${NOT_THERE}` },
  'GET /api/collections/[collection]/reports/[change]': {
    rights: { ...readers, ...missing, ...missingToSome },
    path: NOT_THERE,
  },
  'GET /api/collections/[collection]/crowding': { rights: readers },
  'POST /api/collections/[collection]/crowding': {
    rights: { ...readers, ...missing, ...missingToSome },
    body: { map: NOT_THERE, parts: [] },
  },
  'POST /api/collections/[collection]/bands': { rights: readers, body: { items: [], bands: [] } },
  'GET /api/collections/[collection]/stream': { rights: readers },
  'GET /api/collections/[collection]/files': { rights: readers },
  'POST /api/collections/[collection]/files': {
    query: `topic=${NOT_THERE}&name=a.txt`,
    rights: { ...editors, mapEditor: 404, editor: 404, owner: 404 },
  },
  'GET /api/collections/[collection]/files/[file]': {
    rights: { ...readers, ...missing, ...missingToSome },
  },
  'GET /api/collections/[collection]/files.zip': {
    query: `topic=${NOT_THERE}`,
    rights: { ...readers, ...missing, ...missingToSome },
  },
  'GET /api/collections/[collection]/files/[file]/text': {
    rights: { ...readers, ...missing, ...missingToSome },
  },
  'GET /api/collections/[collection]/dates-feed': { rights: readers },
  'POST /api/collections/[collection]/dates-feed': { rights: readers },
  'DELETE /api/collections/[collection]/dates-feed': { rights: readers },
  'GET /api/collections/[collection]/calendars': { rights: editorsOfAll },
  // Looked for is nothing that is there: what is asked about it is in calendars.test.ts.
  'POST /api/collections/[collection]/calendars/found': {
    rights: { ...editorsOfAll, editor: 409, owner: 409 },
    body: { address: 'http://127.0.0.1:9/' },
  },
  'POST /api/collections/[collection]/calendars': {
    rights: { ...editorsOfAll, editor: 404, owner: 404 },
    body: { address: 'http://127.0.0.1:9/', name: '', zone: 'UTC', gives: 'all', takes: 'all', intoMap: NOT_THERE },
  },
  'GET /api/collections/[collection]/calendars/waiting': { rights: editorsOfAll },
  'POST /api/collections/[collection]/calendars/[calendar]': {
    rights: { ...editorsOfAll, editor: 404, owner: 404 },
    body: { act: 'look' },
  },
  'PUT /api/collections/[collection]/calendars/[calendar]': {
    rights: { ...editorsOfAll, editor: 404, owner: 404 },
    body: { gives: 'all', takes: 'all', intoMap: NOT_THERE },
  },
  'DELETE /api/collections/[collection]/calendars/[calendar]': { rights: { ...editorsOfAll, editor: 404, owner: 404 } },
  'GET /feeds/[secret]/dates.ics': { rights: all(404) },
  'GET /api/collections/[collection]/comments': { rights: readers },
  'POST /api/collections/[collection]/comments/seen': { rights: readers, body: { comments: [NOT_THERE] } },
  'GET /api/collections/[collection]/people': { rights: readers },
  'GET /api/collections/[collection]/publication': { rights: readersOfAll },
  'GET /api/collections/[collection]/publication.zip': {
    rights: { ...readersOfAll, ...missing },
  },
  // The owner asks while the publication that the editor started may still be running.
  'POST /api/collections/[collection]/publication': { rights: { ...editorsOfAll, owner: [202, 409] } },
  'PUT /api/collections/[collection]/publication': {
    rights: { ...editorsOfAll, editor: 409, owner: 409 },
    body: { maps: [NOT_THERE] },
  },
  'DELETE /api/collections/[collection]/publication': {
    rights: { ...editorsOfAll, editor: [200, 409], owner: [200, 409] },
  },
  // Nothing lies in it.
  'DELETE /api/collections/[collection]/trash': { rights: { ...editorsOfAll, editor: 404, owner: 404 } },
  'GET /api/collections/[collection]/grants': { rights: owners },
  'POST /api/collections/[collection]/grants': {
    rights: owners,
    body: { to: 'link', role: 'reader', maps: null, withChildMaps: false, endsAt: null },
  },
  'DELETE /api/collections/[collection]/grants/[grant]': { rights: { ...owners, owner: 404 } },
  'POST /api/links': { rights: { ...all(404), nobody: 401 }, body: { secret: 'no such link' } },
  'GET /site/[address]/[...path]': {
    rights: all(404),
  },
}

const pages = join(import.meta.dirname, '../../src/pages')

/** Every endpoint that the application has, read from its files. */
function routes(): { file: string; address: string }[] {
  const found: { file: string; address: string }[] = []
  const visit = (folder: string) => {
    for (const name of readdirSync(folder)) {
      const path = join(folder, name)
      if (statSync(path).isDirectory()) visit(path)
      else if (name.endsWith('.ts'))
        found.push({
          file: path,
          address: `/${relative(pages, path)
            .replace(/\.ts$/, '')
            .replace(/\/index$/, '')}`,
        })
    }
  }
  visit(pages)
  return found
}

async function methodsOf(file: string): Promise<string[]> {
  const text = await import('node:fs/promises').then((fs) => fs.readFile(file, 'utf8'))
  return [...text.matchAll(/export const (GET|POST|PUT|PATCH|DELETE) =/g)].map((match) => match[1]!)
}

const callers = {} as Record<keyof Row, Caller>
let collection = ''
let map = ''
const database = new pg.Client({ connectionString: inject('databaseUrl') })

afterAll(() => database.end())
beforeAll(async () => {
  await database.connect()
  callers.owner = await Caller.begin()
  collection = callers.owner.collection
  map = await callers.owner.grow('# Garden\n\n- Spring')
  callers.nobody = Caller.nobody
  callers.stranger = await Caller.begin()
  for (const role of ['reader', 'commenter', 'editor'] as const) callers[role] = await callers.owner.invite(role)
  callers.mapReader = await callers.owner.invite('reader', { maps: [map] })
  callers.mapEditor = await callers.owner.invite('editor', { maps: [map] })
})

describe('every endpoint asks who is calling', () => {
  test('and has a row in this table', async () => {
    const found = (
      await Promise.all(
        routes().map(async ({ file, address }) => (await methodsOf(file)).map((method) => `${method} ${address}`)),
      )
    ).flat()
    expect(found.sort()).toEqual(Object.keys(TABLE).sort())
  })

  // What ends a session or a person stands last.
  const ends = (route: string) => ['DELETE /api/me', 'DELETE /api/sessions'].indexOf(route)
  const order = Object.keys(TABLE).sort((a, b) => ends(a) - ends(b))
  test.each(order)('%s', async (route) => {
    const { rights, body, path: last, query: asked } = TABLE[route]!
    const [method, pattern] = route.split(' ') as [string, string]
    const address = pattern
      .replace('[collection]', collection)
      .replace('[map]', map)
      .replace('[command]', last ?? '')
      .replace('[file]', NOT_THERE)
      .replace('[grant]', NOT_THERE)
      .replace('[job]', NOT_THERE)
      .replace('[address]', 'no-such-site')
      .replace('[...path]', '')
    for (const who of CALLERS) {
      if (route === 'DELETE /api/sessions' && who !== 'nobody') continue
      const query = asked === undefined ? '' : `?${asked}`
      const answer =
        body === undefined
          ? await callers[who].call(method, address + query)
          : await callers[who].send(
              method,
              address,
              'args' in (body as object) || route.endsWith('/imports') ? { id: uuid(), ...(body as object) } : body,
            )
      const expected = rights[who]
      if (expected === '.') expect([who, answer.status < 300], answer.text).toEqual([who, true])
      else expect([expected].flat(), `${who}: ${answer.text}`).toContain(answer.status)
    }
  })
})

test('a write that comes from another site is not carried out', async () => {
  const guest = await Caller.begin()
  const answer = await guest.call('POST', '/api/collections', JSON.stringify({ title: 'Stolen' }), {
    'Content-Type': 'application/json',
    origin: 'https://elsewhere.example',
  })
  expect(answer.status).toBe(403)
  expect((await guest.call('GET', '/api/collections')).text).not.toContain('Stolen')
})

test('every answer carries the headers that keep others out', async () => {
  for (const path of ['/', '/api/me', '/healthz', '/no-such-page']) {
    const { headers } = await Caller.nobody.call('GET', path)
    const policy = headers.get('content-security-policy') ?? ''
    expect(policy).toContain("default-src 'none'")
    expect(/script-src ([^;]*)/.exec(policy)?.[1]).not.toContain('unsafe-inline')
    expect(headers.get('x-content-type-options')).toBe('nosniff')
    expect(headers.get('x-frame-options')).toBe('DENY')
  }
})

test('ten wrong passwords for an address are followed by a wait', async () => {
  const attempt = () =>
    Caller.nobody.send('POST', '/api/sessions', { address: 'guess@folvet.example', password: 'wrong' })
  const answers = []
  for (let i = 0; i < 11; i++) answers.push((await attempt()).status)
  expect(answers.slice(0, 10)).toEqual(Array(10).fill(401))
  expect(answers[10]).toBe(429)
})

test('ending a beginning without an account leaves nothing', async () => {
  const guest = await Caller.begin()
  await guest.grow('# Secret plans\n\n- One')
  expect((await guest.call('DELETE', '/api/me')).status).toBe(200)
  expect((await guest.call('GET', '/api/me')).text).toBe('null')
  const { rows } = await database.query(
    'SELECT 1 FROM collection WHERE id = $1 UNION SELECT 1 FROM change WHERE collection = $1 UNION SELECT 1 FROM topic WHERE collection = $1',
    [guest.collection],
  )
  expect(rows).toEqual([])
})
