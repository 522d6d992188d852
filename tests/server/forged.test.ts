import { v7 as uuid } from 'uuid'
import { expect, test } from 'vitest'
import { kinds, RECORD_KINDS } from '../../src/core/records/kinds'
import { endsOf } from '../../src/core/records/reference-path'
import { NOTHING_ASKED } from '../../src/core/records/search'
import { wholeCollection } from '../../src/server/collections'
import { Caller } from './people'

/** Whether everything in a collection leads to what is there. */
async function isWhole(collection: string): Promise<boolean> {
  const { records } = await wholeCollection(collection)
  return RECORD_KINDS.every((kind) =>
    [...records.all(kind)].every((record) =>
      kinds[kind].references.every((reference) =>
        endsOf(record, reference).every((end) => records.get(end.kind as 'topic', end.id) !== undefined),
      ),
    ),
  )
}

test('commands and questions that nobody would send are refused in words, and leave everything as it was', async () => {
  const owner = await Caller.begin()
  const stranger = await Caller.begin()
  const [garden, pond] = [
    await owner.grow('# Garden\n\n- Spring\n  - Peas\n- Summer'),
    await owner.grow('# Pond\n\n- Reed'),
  ]
  const elsewhere = await stranger.grow('# Elsewhere\n\n- Theirs')
  const { topics } = await owner.map(garden)
  const [root, spring] = ['Garden', 'Spring'].map((text) => topics.find((topic) => topic.text === text)!.id)
  const theirs = (await stranger.map(elsewhere)).topics[0]!.id
  const nobody = uuid()
  const before = JSON.stringify((await owner.map(garden)).topics)

  const decision = { act: 'join', source: spring, into: spring, sure: 1, why: '' }
  const plan = { target: garden, sources: [garden], way: 'combined', decisions: [decision] }
  const commands: [string, unknown][] = [
    ['bring-back', { topic: root }],
    ['bring-back', { topic: theirs }],
    ['split-off', { parts: [{ topic: root, name: 'x', how: 'moves' }] }],
    ['split-off', { parts: [{ row: [root, spring, spring], name: 'x', parent: root }] }],
    ['put-into-folder', { maps: [garden], folder: nobody }],
    ['put-into-folder', { maps: Array(1_001).fill(garden), folder: null }],
    ['duplicate-map', { map: elsewhere, withChildren: true }],
    ['make-doorway', { topic: root, map: garden }],
    ['make-doorway', { topic: spring, map: elsewhere }],
    ['choose-home-doorway', { topic: spring }],
    ['close-doorway', { topic: theirs }],
    ['trash-maps', { maps: [elsewhere] }],
    ['trash-maps', { maps: [] }],
    ['restore-map', { map: nobody }],
    ['restore-topic', { topic: nobody }],
    ['merge', { plan }],
    ['merge', { plan: { ...plan, sources: Array(50).fill(pond) } }],
    ['merge', { plan: { ...plan, sources: [pond] } }],
    ['merge', { plan: { ...plan, sources: [elsewhere], decisions: [{ ...decision, source: theirs }] } }],
    ['merge', { plan: { ...plan, decisions: [{ act: 'add', source: spring, below: { copyOf: spring } }] } }],
    ['send-to-map', { topics: [root], map: pond, copies: false }],
    ['send-to-map', { topics: [theirs], map: garden, copies: true }],
    ['send-to-map', { topics: [spring], map: elsewhere, copies: false }],
    ['gather-topics', { topics: [theirs], into: { branch: spring }, copies: true }],
    ['gather-topics', { topics: [spring], into: { drawer: elsewhere }, copies: false }],
    ['gather-topics', { topics: [root], into: { branch: spring }, copies: false }],
    ['draw-links', { crosslinks: [nobody], drawn: 'line' }],
    ['draw-links', { crosslinks: [nobody], drawn: '__proto__' }],
    ['remove-links', { crosslinks: [spring] }],
    ['link', { from: spring, to: { kind: 'topic', id: spring }, drawn: 'quiet' }],
    ['link', { from: spring, to: { kind: 'topic', id: theirs }, drawn: 'quiet' }],
    ['link', { from: spring, to: { kind: 'enclosure', id: theirs }, drawn: 'line' }],
    ['tell-apart', { a: spring, b: theirs }],
    ['set-dates', { topics: [theirs], dates: null }],
    ['set-dates', { topics: [spring], dates: { start: '2026-02-30', end: null } }],
    ['set-task', { topics: [theirs], task: 'done', today: '2026-05-04' }],
    ['keep-clipping', { at: { drawer: elsewhere }, text: 'x', note: '', quote: '', address: '' }],
    ['keep-clipping', { at: { topic: theirs }, text: 'x', note: '', quote: '', address: '' }],
    ['bring-calendar', { map: elsewhere, name: 'x', text: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR' }],
    ['bring-calendar', { map: garden, name: 'x', text: 'BEGIN:VCALENDAR\r\nEND:VCALENDAR' }],
    ['bring-calendar', { map: garden, name: 'x', text: '# no calendar' }],
    ['rename-file', { file: nobody, name: 'x' }],
    ['trash-files', { files: [nobody] }],
    ['change-tag', { tag: nobody, name: 'x', tone: 1 }],
    ['change-tag', { tag: spring, name: '', tone: 9 }],
    ['bring-again', { pages: [], files: [], gone: [] }],
    ['bring-again', { pages: [{ path: 'a.md', text: '' }], files: [], gone: [nobody] }],
    ['carry-note', { of: nobody, also: nobody }],
    ['carry-note', { of: spring }],
    ['change-search', { search: nobody, name: 'x', asked: { ...NOTHING_ASKED, words: 'x' } }],
    ['change-search', { search: spring, name: 'x', asked: { words: 'x' } }],
    ['remove-search', { search: nobody }],
    ['merge-tags', { into: nobody, tags: [nobody] }],
    ['merge-tags', { into: spring, tags: [] }],
    ['remove-tag', { tag: nobody }],
    ['undo', { change: nobody }],
    ['__proto__', {}],
    ['constructor', {}],
    ['undo', { change: { toString: 'x' } }],
    ['link', JSON.parse('{"__proto__": {"from": 1}, "from": null, "to": []}')],
  ]
  for (const [name, args] of commands) {
    const { status, text } = await owner.command(name, args)
    expect([name, JSON.stringify(args).slice(0, 80), status]).toEqual([
      name,
      JSON.stringify(args).slice(0, 80),
      expect.toSatisfy((code: number) => code >= 400 && code < 500),
    ])
    expect(JSON.parse(text).error.length).toBeGreaterThan(10)
  }

  const at = `/api/collections/${owner.collection}`
  const deep = JSON.parse(`${'['.repeat(4_000)}${']'.repeat(4_000)}`)
  const questions: [string, unknown][] = [
    ['/bands', { items: Array(5_001).fill({ id: spring, text: 'x' }), bands: [] }],
    ['/bands', { items: [{ id: spring, text: 'x'.repeat(1_000_000) }], bands: [] }],
    ['/bands', deep],
    ['/crowding', { map: elsewhere, parts: [] }],
    ['/crowding', { map: garden, parts: [{ topic: theirs, name: 'x' }] }],
    ['/merge-plan', { target: garden, sources: [garden], way: 'combined' }],
    ['/merge-plan', { target: garden, sources: [elsewhere], way: 'combined' }],
    [
      '/merge-plan',
      { target: garden, sources: [pond], way: 'combined', said: [[theirs, spring]], parts: [[pond, theirs]] },
    ],
    ['/imports', { id: uuid(), pages: deep }],
    ['/draft', { wish: 7, text: null }],
    ['/changes', { changes: [{ id: uuid(), label: 'x', undoes: null, edits: deep }] }],
  ]
  for (const [path, body] of questions) {
    const { status } = await owner.send('POST', at + path, body)
    expect([path, status]).toEqual([path, expect.toSatisfy((code: number) => code >= 200 && code < 500)])
  }
  for (const query of ['trash?map=x', `trash?map=${garden}`, `trash?map=${elsewhere}`]) {
    const { status } = await owner.call('DELETE', `${at}/${query}`)
    expect([query, status]).toEqual([query, expect.toSatisfy((code: number) => code === 400 || code === 404)])
  }
  for (const query of ['stream?since=-1&rows=x', 'changes?after=1e400&rows=-5', 'changes?after=0&rows=99999&maps=..'])
    expect((await owner.call('GET', `${at}/${query}`)).status).toBeLessThan(500)
  expect(JSON.stringify((await owner.map(garden)).topics)).toBe(before)
  expect(await isWhole(owner.collection)).toBe(true)
  expect(await isWhole(stranger.collection)).toBe(true)
}, 60_000)
