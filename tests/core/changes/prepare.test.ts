import { generateNKeysBetween } from 'fractional-indexing'
import { describe, expect, test } from 'vitest'
import { applyEdits, type Edit } from '../../../src/core/changes/edit'
import { prepareChange } from '../../../src/core/changes/prepare'
import { isSeenOn, undoChange, undoLists } from '../../../src/core/changes/undo'
import { addTopic } from '../../../src/core/commands/add-topic'
import { blankTopic } from '../../../src/core/commands/blank-topic'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { writeNote } from '../../../src/core/commands/write-note'
import { ChangeId, MapId, TopicId } from '../../../src/core/records/ids'
import { parentOf } from '../../../src/core/records/place'
import { TopicRecord } from '../../../src/core/records/topic'
import { mergeText } from '../../../src/core/text/merge-text'
import { contents, Garden } from '../gardens'

const grown = () => {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\nSummer')
  return { garden, map }
}
const otherId = () => TopicId.parse(crypto.randomUUID())

describe('preparing a change', () => {
  test('gives equal ranks a place of their own', () => {
    const { garden } = grown()
    const spring = garden.records.need('topic', garden.topic('Spring'))
    const twin: Edit = { kind: 'topic', id: otherId(), before: null, after: { ...spring, text: 'Twin', note: null } }
    const prepared = prepareChange(garden.records, [{ ...twin, after: { ...twin.after, id: twin.id } } as Edit], true)
    expect(prepared.ok).toBe(true)
    const ranks = garden.records
      .children(parentOf(spring)!)
      .map(({ place, text }) => ['rank' in place ? place.rank : '', text])
    expect(new Set(ranks.map(([rank]) => rank)).size).toBe(ranks.length)
    expect(ranks.map(([, text]) => text)).toEqual(['Spring', 'Twin', 'Summer'])
  })

  test.each([
    ['one and the same rank', Array<string>(1_000).fill('a0')],
    ['the ranks that somebody else gave at the same moment', generateNKeysBetween(null, null, 4_000)],
  ])('gives thousands of topics with %s places of their own, soon', (_, ranks) => {
    const garden = new Garden()
    const map = garden.grow('Root')
    const parent = garden.topic('Root')
    const added = (): Edit[] =>
      ranks.map((rank) => {
        const id = otherId()
        const place = { kind: 'arranged' as const, map, parent, rank, side: null }
        return { kind: 'topic', id, before: null, after: blankTopic(id, place, 'x') }
      })
    const start = performance.now()
    for (const edits of [added(), added()]) expect(prepareChange(garden.records, edits, true).ok).toBe(true)
    expect(performance.now() - start).toBeLessThan(3_000)
    const topics = garden.records.children(parent)
    const found = topics.map(({ place }) => ('rank' in place ? place.rank : ''))
    expect(new Set(found).size).toBe(2 * ranks.length)
    // All of them can be stored and written anew.
    for (const topic of topics) expect(TopicRecord.safeParse(topic).success).toBe(true)
  })

  test('refuses so many topics with one rank that it would become too long, soon and whole', () => {
    const { garden, map } = grown()
    const parent = garden.topic('Spring')
    const before = contents(garden.records)
    const edits = Array.from({ length: 20_000 }, (): Edit => {
      const id = otherId()
      const place = { kind: 'arranged' as const, map, parent, rank: 'a0', side: null }
      return { kind: 'topic', id, before: null, after: blankTopic(id, place, 'x') }
    })
    const start = performance.now()
    expect(prepareChange(garden.records, edits, true)).toMatchObject({
      ok: false,
      problem: { message: 'Too many topics would stand at one and the same place.' },
    })
    expect(performance.now() - start).toBeLessThan(3_000)
    expect(contents(garden.records)).toEqual(before)
  })

  test('refuses to join what is larger than could be stored, soon', () => {
    const { garden } = grown()
    const id = garden.topic('Spring')
    const many = Array.from({ length: 200_000 }, (_, i) => `${i}`)
    const edit = { kind: 'topic', id, before: { badges: many }, after: { badges: [...many].reverse() } } as Edit
    const start = performance.now()
    expect(prepareChange(garden.records, [edit], true)).toMatchObject({ ok: false, problem: { code: 'invalid' } })
    expect(performance.now() - start).toBeLessThan(1_000)
  })

  test('takes back all of a change of which one edit fails', () => {
    const { garden } = grown()
    const before = contents(garden.records)
    const good: Edit = {
      kind: 'topic',
      id: garden.topic('Spring'),
      before: { text: 'Spring' },
      after: { text: 'Changed' },
    }
    const bad = {
      kind: 'topic',
      id: garden.topic('Summer'),
      before: { note: null },
      after: { note: otherId() },
    } as unknown as Edit
    const prepared = prepareChange(garden.records, [good, bad], true)
    expect(prepared).toMatchObject({ ok: false, problem: { code: 'reference' } })
    expect(contents(garden.records)).toEqual(before)
  })

  test.each([
    ['an unknown field', { colour: 'red' }],
    ['a text that cannot be stored', { text: 'a\u0000b' }],
    ['a text that is too long', { text: 'x'.repeat(5_001) }],
    ['another id', { folded: 'yes' }],
  ])('refuses %s', (_, after) => {
    const { garden } = grown()
    const edit = { kind: 'topic', id: garden.topic('Spring'), before: {}, after } as unknown as Edit
    expect(prepareChange(garden.records, [edit], true)).toMatchObject({ ok: false, problem: { code: 'invalid' } })
  })

  test('refuses what is gone and what exists already', () => {
    const { garden } = grown()
    const root = garden.records.need('topic', garden.topic('Spring'))
    expect(
      prepareChange(
        garden.records,
        [{ kind: 'topic', id: otherId(), before: { text: '' }, after: { text: 'x' } }],
        true,
      ),
    ).toMatchObject({ problem: { code: 'gone' } })
    expect(
      prepareChange(garden.records, [{ kind: 'topic', id: root.id, before: null, after: root }], true),
    ).toMatchObject({ problem: { code: 'exists' } })
  })

  test('joins what two people wrote into one note', () => {
    const { garden } = grown()
    const spring = garden.topic('Spring')
    const base = 'One\nTwo\nThree\nFour'
    garden.do((records, newIds) => writeNote(records, { topic: spring, base: '', text: base }, newIds))
    garden.do((records, newIds) => writeNote(records, { topic: spring, base, text: 'One!\nTwo\nThree\nFour' }, newIds))
    garden.do((records, newIds) => writeNote(records, { topic: spring, base, text: 'One\nTwo\nThree\nFour!' }, newIds))
    expect(garden.records.need('note', garden.records.need('topic', spring).note).text).toBe('One!\nTwo\nThree\nFour!')
    expect(mergeText('a\nb', 'a\nmine', 'a\nyours')).toEqual({ text: 'a\nmine\n\nyours', overlapping: true })
  })
})

describe('undo', () => {
  test('reverts only what nobody has changed since, and names the rest', () => {
    const { garden } = grown()
    const spring = garden.topic('Spring')
    const { change } = garden.do((records, newIds) => setText(records, { topic: spring, text: 'Early spring' }, newIds))
    garden.do((records, newIds) => setText(records, { topic: spring, text: 'Late winter' }, newIds))
    const undo = undoChange(garden.records, change, ChangeId.parse(crypto.randomUUID()))
    expect(undo.change).toBeNull()
    expect(undo.leftAlone).toEqual([{ kind: 'topic', id: spring, field: 'text' }])
  })

  test('of a split gives the map of before, and redo the split again', () => {
    const { garden, map } = grown()
    const before = garden.text(map)
    const { change } = garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Spring') }, newIds))
    const undone = undoChange(garden.records, change, ChangeId.parse(crypto.randomUUID())).change!
    const prepared = prepareChange(garden.records, undone.edits, true)
    expect(prepared.ok && garden.text(map)).toBe(before)
    const redone = undoChange(
      garden.records,
      { ...undone, edits: prepared.ok ? prepared.edits : [] },
      ChangeId.parse(crypto.randomUUID()),
    ).change!
    expect(prepareChange(garden.records, redone.edits, true).ok).toBe(true)
    expect(garden.text(map)).toBe('- Garden\n  - Spring\n  - Summer')
    expect(redone.label).toBe('Split off Spring')
  })

  test('of an addition trashes the outermost record only', () => {
    const { garden } = grown()
    const { change } = garden.do((records, newIds) =>
      addTopic(records, { parent: garden.topic('Summer'), after: 'last', text: 'Hay' }, newIds),
    )
    expect(undoChange(garden.records, change, ChangeId.parse(crypto.randomUUID())).change!.edits).toEqual([
      {
        kind: 'topic',
        id: change.edits[0]!.id,
        before: { text: 'Hay', note: null, trashed: false },
        after: { trashed: true },
      },
    ])
  })

  test('lists follow what was undone and redone', () => {
    const id = () => ChangeId.parse(crypto.randomUUID())
    const make = (label: string, undoes: ChangeId | null = null) => ({ id: id(), label, edits: [], undoes, maps: null })
    const [a, b] = [make('a'), make('b')]
    const undoB = make('Undo: b', b.id)
    const redoB = make('b', undoB.id)
    expect(undoLists([a, b, undoB])).toEqual({ undo: [a], redo: [undoB] })
    expect(undoLists([a, b, undoB, redoB])).toEqual({ undo: [a, redoB], redo: [] })
    expect(undoLists([a, b, undoB, make('c')]).redo).toEqual([])
  })

  test('lists keep what was done on other maps', () => {
    const on = (map: string | null, undoes: ChangeId | null = null) => ({
      id: ChangeId.parse(crypto.randomUUID()),
      undoes,
      maps: map === null ? null : [MapId.parse(`00000000-0000-7000-8000-00000000000${map}`)],
    })
    const [onA, onB, laterOnB] = [on('a'), on('b'), on('b')]
    // The step on A is undone while that on B came later.
    const undoA = on('a', onA.id)
    expect(undoLists([onA, onB, undoA])).toEqual({ undo: [onB], redo: [undoA] })
    // What is done on B leaves what can be redone on A; what is done on A, or everywhere, does not.
    expect(undoLists([onA, onB, undoA, laterOnB])).toEqual({ undo: [onB, laterOnB], redo: [undoA] })
    expect(undoLists([onA, onB, undoA, on('a')]).redo).toEqual([])
    expect(undoLists([onA, onB, undoA, on(null)]).redo).toEqual([])
    const redoA = on('a', undoA.id)
    expect(undoLists([onA, onB, undoA, laterOnB, redoA])).toEqual({ undo: [onB, laterOnB, redoA], redo: [] })
    expect([onA, onB, on(null)].map((change) => isSeenOn(change, [onA.maps![0]!]))).toEqual([true, false, true])
  })
})

test('edits applied to a copy of the records give the same records', () => {
  const { garden } = grown()
  const copy = new Garden()
  for (const kind of ['map', 'topic', 'note', 'collection'] as const)
    for (const record of garden.records.all(kind)) copy.records.put(kind, record as never)
  const { change } = garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Spring') }, newIds))
  applyEdits(copy.records, change.edits)
  expect(contents(copy.records)).toEqual(contents(garden.records))
})
