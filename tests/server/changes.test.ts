import { setTimeout as wait } from 'node:timers/promises'
import { generateKeyBetween } from 'fractional-indexing'
import pg from 'pg'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import type { Edit } from '../../src/core/changes/edit'
import { isPacked, packEdits } from '../../src/core/changes/packed'
import { blankTopic } from '../../src/core/commands/blank-topic'
import { MapId, NoteId, TopicId } from '../../src/core/records/ids'
import { hangs, type Place, parentOf } from '../../src/core/records/place'
import type { TopicRecord } from '../../src/core/records/topic'
import { Caller, onlyResult } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => database.end())

let owner: Caller
let map = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Spring\n  - Sow peas\n- Summer\n  - Pick beans')
})

const topicNamed = async (text: string, caller = owner, on = map) =>
  (await caller.map(on)).topics.find((topic) => topic.text === text)!
const textEdit = (topic: TopicRecord, text: string): Edit => ({
  kind: 'topic',
  id: topic.id,
  before: { text: topic.text },
  after: { text },
})
const child = (parent: TopicRecord, text: string, rank = 'a5'): Edit => {
  const id = TopicId.parse(uuid())
  const place = { kind: 'arranged' as const, map: parent.place.map, parent: parent.id, rank, side: null }
  return {
    kind: 'topic',
    id,
    before: null,
    after: blankTopic(id, place, text),
  }
}

describe('committing', () => {
  test('numbers changes without gaps and answers a repeated one with what was stored', async () => {
    const spring = await topicNamed('Spring')
    const id = uuid()
    const first = onlyResult(await owner.change([child(spring, 'Dig')], id))
    const again = onlyResult(await owner.change([child(spring, 'Something else')], id))
    expect(first.ok && again.ok && again.change).toEqual(first.ok && first.change)
    expect((await owner.map(map)).topics.filter(({ text }) => text === 'Something else')).toEqual([])
    const after = onlyResult(await owner.change([textEdit(await topicNamed('Dig'), 'Dig over')]))
    expect(after.ok && first.ok && after.change.number - first.change.number).toBe(1)
  })

  test('believes nothing that a browser says about what was there before', async () => {
    const spring = await topicNamed('Spring')
    const lie: Edit = { kind: 'topic', id: spring.id, before: { task: 'done' }, after: { task: 'open' } }
    const result = onlyResult(await owner.change([lie]))
    expect(result.ok && result.change.edits[0]!.before).toEqual({ task: null })
  })

  test('refuses in words what could not be stored, and ids that are the same only for the database', async () => {
    const spring = await topicNamed('Spring')
    const bad = (after: Record<string, unknown>) =>
      owner.change([{ kind: 'topic', id: spring.id, before: {}, after } as Edit])
    const badMap = (after: Record<string, unknown>) =>
      owner.change([{ kind: 'map', id: map, before: {}, after } as unknown as Edit])
    const again = { ...spring, id: spring.id.toUpperCase(), text: 'In capitals' } as TopicRecord
    const answers = [
      ...['half \ud800', 'nul \u0000'].flatMap((text) => [
        bad({ text }),
        bad({ number: text }),
        bad({ place: { ...spring.place, rank: text } }),
        badMap({ title: text }),
      ]),
      owner.change([{ kind: 'topic', id: again.id, before: null, after: again } as Edit]),
      owner.send('POST', `/api/collections/${owner.collection}/changes`, {
        changes: [{ id: uuid(), label: 'nul \u0000', edits: [textEdit(spring, 'Labelled')], undoes: null }],
      }),
    ]
    for (const [i, answer] of (await Promise.all(answers)).entries()) {
      expect([i, answer.status < 500]).toEqual([i, true])
      const refused = answer.status >= 400 ? answer.json : !onlyResult(answer).ok && onlyResult(answer)
      expect([i, refused]).toEqual([i, expect.anything()])
      expect(JSON.stringify(refused)).toMatch(/[a-z]{3,}/)
    }
    expect((await topicNamed('Spring')).text).toBe('Spring')
  })

  test('gives children that two people add at once a rank each', async () => {
    const summer = await topicNamed('Summer')
    await Promise.all(Array.from({ length: 20 }, (_, i) => owner.change([child(summer, `Twin ${i}`, 'a9')])))
    const ranks = (await owner.map(map)).topics
      .filter((topic) => parentOf(topic) === summer.id)
      .map(({ place }) => hangs(place) && place.rank)
    expect(ranks.length).toBe(21)
    expect(new Set(ranks).size).toBe(21)
  })

  test('takes what is built on a change that needed a second try after it', async () => {
    const summer = await topicNamed('Summer')
    for (let i = 0; i < 24; i++) {
      // Its rank is taken, which the database finds; what hangs below it is on its way meanwhile.
      const parent = child(summer, `Parent ${i}`, 'a9')
      const first = owner.change([parent])
      await wait(i % 4)
      const second = owner.change([child(parent.after as TopicRecord, 'Below')])
      expect([i, onlyResult(await first).ok, onlyResult(await second).ok]).toEqual([i, true, true])
    }
  })

  test('lets a failing change fall out alone', async () => {
    const spring = await topicNamed('Spring')
    const good = child(spring, 'Good', generateKeyBetween('a5', null))
    const bad = child({ ...spring, id: TopicId.parse(uuid()) }, 'Bad')
    const changes = [bad, good].map((edit) => ({ id: uuid(), label: 'Test', undoes: null, edits: [edit] }))
    const { results } = (await owner.send('POST', `/api/collections/${owner.collection}/changes`, { changes }))
      .json as { results: { ok: boolean }[] }
    expect(results.map(({ ok }) => ok)).toEqual([false, true])
  })

  test('refuses what would close a loop, with words', async () => {
    const [spring, peas] = [await topicNamed('Spring'), await topicNamed('Sow peas')]
    const result = onlyResult(
      await owner.change([
        {
          kind: 'topic',
          id: spring.id,
          before: {},
          after: { place: { ...spring.place, parent: peas.id, side: null } as Place },
        },
      ]),
    )
    expect(result).toMatchObject({ ok: false, problem: { code: 'loop', message: 'A topic cannot hang below itself.' } })
  })

  test('takes everything below along when a branch moves to another map', async () => {
    const other = await owner.grow('# Other')
    const summer = await topicNamed('Summer')
    const root = await topicNamed('Other', owner, other)
    const place = { ...summer.place, map: MapId.parse(other), parent: root.id, rank: 'a1' } as Place
    const result = onlyResult(
      await owner.change([{ kind: 'topic', id: summer.id, before: { place: summer.place }, after: { place } }]),
    )
    expect(result.ok).toBe(true)
    expect((await owner.map(other)).topics.map(({ text }) => text)).toContain('Pick beans')
    expect((await owner.map(map)).topics.map(({ text }) => text)).not.toContain('Pick beans')
  })

  test('keeps collections apart, even for ids that another one uses', async () => {
    const stranger = await Caller.begin()
    const spring = await topicNamed('Spring')
    const theirMap = await stranger.grow('# Theirs')
    const theirRoot = await topicNamed('Theirs', stranger, theirMap)
    expect(onlyResult(await stranger.change([textEdit(spring, 'Mine now')]))).toMatchObject({
      ok: false,
      problem: { code: 'gone' },
    })
    const copied = { ...child(theirRoot, 'Same id'), id: spring.id } as Edit
    expect(
      onlyResult(await stranger.change([{ ...copied, after: { ...copied.after, id: spring.id } } as Edit])).ok,
    ).toBe(true)
    expect((await topicNamed('Spring')).text).toBe('Spring')
    const link: Edit = { kind: 'topic', id: theirRoot.id, before: {}, after: { opensMap: MapId.parse(map) } }
    expect(onlyResult(await stranger.change([link]))).toMatchObject({ ok: false, problem: { code: 'reference' } })
  })

  test('adds no file but by upload', async () => {
    const id = uuid()
    const file = {
      kind: 'file',
      id,
      before: null,
      after: { id, sha256: '0'.repeat(64), name: 'a', type: 'text/plain', size: 1, trashed: false },
    } as unknown as Edit
    expect((await owner.change([file])).status).toBe(403)
  })

  test('undoes on the server what a browser does not hold', async () => {
    const spring = await topicNamed('Spring')
    const done = onlyResult(await owner.change([textEdit(spring, 'Vernal')]))
    await owner.command('undo', { change: done.ok && done.change.id })
    expect((await owner.map(map)).topics.some(({ text }) => text === 'Vernal')).toBe(false)
  })
})

describe('a long note', () => {
  const PAGE = 'Sow the peas early, and water them late in the day.\n\n'.repeat(400)
  const rowsOf = async () => {
    const text = 'SELECT pg_column_size(edits) AS bytes FROM change WHERE collection = $1 ORDER BY number DESC LIMIT 20'
    return (await database.query<{ bytes: number }>(text, [owner.collection])).rows
  }
  const reword = (note: string, before: string, after: string): Edit => ({
    kind: 'note',
    id: note,
    before: { text: before },
    after: { text: after },
  })
  const begun = async (): Promise<string> => {
    const id = NoteId.parse(uuid())
    const peas = await topicNamed('Sow peas')
    const note = { id, text: PAGE, joinedInto: null, trashed: false }
    const edits: Edit[] = [
      { kind: 'note', id, before: null, after: note },
      { kind: 'topic', id: peas.id, before: { note: peas.note }, after: { note: id } },
    ]
    expect(onlyResult(await owner.change(edits)).ok).toBe(true)
    return id
  }
  const textOf = async (note: string) => (await owner.map(map)).notes.find(({ id }) => id === note)!.text

  test('costs the history what was written, and not the note, whether it comes whole or not', async () => {
    const note = await begun()
    for (let i = 0; i < 20; i++) {
      const edit = reword(note, `${PAGE}${'a'.repeat(i)}`, `${PAGE}${'a'.repeat(i + 1)}`)
      const sent = i % 2 === 0 ? edit : packEdits([edit])[0]!
      const result = onlyResult(await owner.change([sent as Edit]))
      expect([i, result.ok && isPacked(result.change.edits)]).toEqual([i, true])
    }
    expect(await textOf(note)).toBe(`${PAGE}${'a'.repeat(20)}`)
    for (const { bytes } of await rowsOf()) expect(bytes).toBeLessThan(500)
  })

  test('is asked for whole where others have written there, and then joined', async () => {
    const note = await begun()
    const [mine, theirs] = [`${PAGE}Mine.`, `Theirs.\n\n${PAGE}`]
    expect(onlyResult(await owner.change([reword(note, PAGE, theirs)])).ok).toBe(true)
    const packed = packEdits([reword(note, PAGE, mine)])
    expect(onlyResult(await owner.change(packed as Edit[]))).toMatchObject({ ok: false, problem: { code: 'unread' } })
    const whole = onlyResult(await owner.change([reword(note, PAGE, mine)]))
    // What the others wrote is told, as it was not seen.
    expect(whole.ok && whole.change.edits[0]!.before).toEqual({ text: theirs })
    expect(await textOf(note)).toBe(`Theirs.\n\n${PAGE}Mine.`)
  })

  test('is as it was after an undo, also where others have written into it since', async () => {
    const note = await begun()
    const done = onlyResult(await owner.change([reword(note, PAGE, `First.\n\n${PAGE}`)]))
    await owner.change([reword(note, `First.\n\n${PAGE}`, `First.\n\n${PAGE}Last.`)])
    expect((await owner.command('undo', { change: done.ok && done.change.id })).status).toBe(200)
    expect(await textOf(note)).toBe(`${PAGE}Last.`)
  })
})

describe('bad input', () => {
  test.each([
    ['no JSON', 'nonsense', 400],
    ['another shape', '{"changes":"all"}', 400],
    ['invalid UTF-8', new Uint8Array([0x7b, 0xff, 0xfe, 0x7d]), 400],
    [
      'an unknown kind',
      JSON.stringify({
        changes: [
          { id: uuid(), label: 'x', undoes: null, edits: [{ kind: 'person', id: uuid(), before: null, after: {} }] },
        ],
      }),
      400,
    ],
    ['too much at once', 'x'.repeat(21 * 1024 * 1024), 413],
  ])('%s is answered clearly and changes nothing', async (_, body, status) => {
    const { number } = await owner.map(map)
    const answer = await owner.call('POST', `/api/collections/${owner.collection}/changes`, body, {
      'Content-Type': 'application/json',
    })
    expect(answer.status).toBe(status)
    expect((answer.json as { error: string }).error).toMatch(/\w+ \w+/)
    expect((await owner.map(map)).number).toBe(number)
  })

  test('a window of somebody who has signed out does nothing as whoever has signed in since', async () => {
    const at = `/api/collections/${owner.collection}`
    const asFor = (person: string) =>
      owner.call('POST', `${at}/changes`, JSON.stringify({ changes: [] }), {
        'Content-Type': 'application/json',
        'X-Folvet-Person': person,
      })
    const { json } = await owner.call('GET', '/api/me')
    // Let in, and told that there is nothing in it.
    expect((await asFor((json as { id: string }).id)).status).toBe(400)
    const refused = await asFor(uuid())
    expect(refused.status).toBe(401)
    expect(refused.json).toEqual({ error: 'Somebody else is signed in here now.' })
  })

  test('unknown ids and commands are not found', async () => {
    const base = `/api/collections/${owner.collection}`
    expect((await owner.call('GET', `${base}/maps/${uuid()}`)).status).toBe(404)
    expect((await owner.call('GET', `${base}/maps/nonsense`)).status).toBe(404)
    expect((await owner.call('GET', `/api/collections/nonsense`)).status).toBe(404)
    expect((await owner.command('explode', {})).status).toBe(404)
    expect((await owner.command('bring-back', { topic: uuid() })).status).toBe(409)
    expect(await owner.import([{ path: 'a.md', text: '   ' }])).toMatchObject({
      state: 'failed',
      message: 'a.md holds no text.',
    })
  })

  test('a text nested 100,000 levels deep is read or refused, and the server lives', async () => {
    for (const text of [
      '>'.repeat(100_000),
      '- '.repeat(100_000),
      '['.repeat(100_000),
      `# a\n\n${'*'.repeat(100_000)}`,
    ]) {
      expect((await owner.import([{ path: 'deep.md', text }])).message).not.toMatch(/The import failed/)
    }
    expect((await owner.call('GET', '/healthz')).status).toBe(200)
  }, 120_000)
})
