import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { joinField } from '../../../src/core/changes/join'
import { prepareChange } from '../../../src/core/changes/prepare'
import { undoChange } from '../../../src/core/changes/undo'
import { addBadge, moveBadge } from '../../../src/core/commands/badges'
import { changeLook } from '../../../src/core/commands/looks'
import { tagTopics, untagTopics } from '../../../src/core/commands/tags'
import { writeNote } from '../../../src/core/commands/write-note'
import { ChangeId } from '../../../src/core/records/ids'
import { Garden } from '../gardens'

describe('a list that two people change', () => {
  const elements = (before: string, current: string, after: string) =>
    (joinField('elements', [...before], [...current], [...after]) as string[]).join('')

  test.each([
    ['both bring something in', 'a', 'ab', 'ac', 'acb'],
    ['one takes out what the other leaves', 'abc', 'abcd', 'ac', 'acd'],
    ['both take out', 'abc', 'ab', 'bc', 'b'],
    ['one changes the order', 'abc', 'abcd', 'cba', 'cdba'],
    ['the other has changed the order', 'abc', 'cab', 'abcx', 'cxab'],
    ['both do the same', 'a', 'ab', 'ab', 'ab'],
  ])('%s', (_, before, current, after, joined) => {
    expect(elements(before, current, after)).toBe(joined)
  })

  test('holds each element once, and all that was brought in', () => {
    const list = fc.uniqueArray(fc.constantFrom(...'abcdefgh'), { maxLength: 6 })
    fc.assert(
      fc.property(list, list, list, (before, current, after) => {
        const joined = joinField('elements', before, current, after) as string[]
        expect(new Set(joined).size).toBe(joined.length)
        for (const one of [...current, ...after]) if (!before.includes(one)) expect(joined).toContain(one)
        for (const one of before)
          if (current.includes(one) && after.includes(one)) expect(joined).toContain(one)
          else expect(joined).not.toContain(one)
      }),
    )
  })
})

describe('values that two people set', () => {
  test.each([
    ['different ones', { a: 1 }, { a: 1, b: 2 }, { a: 1, c: 3 }, { a: 1, b: 2, c: 3 }],
    ['the same one: the last counts', { a: 1 }, { a: 2 }, { a: 3 }, { a: 3 }],
    ['one takes away', { a: 1, b: 1 }, { a: 1, b: 1, c: 1 }, { b: 1 }, { b: 1, c: 1 }],
    ['none before', null, { a: 1 }, { b: 2 }, { a: 1, b: 2 }],
    ['one takes all away', { a: 1 }, { a: 1, b: 2 }, null, { b: 2 }],
    [
      'one inside another',
      { every: { a: 1 }, w: 'x' },
      { every: { a: 1, b: 1 }, w: 'x' },
      { every: { a: 1 }, w: 'y' },
      { every: { a: 1, b: 1 }, w: 'y' },
    ],
    [
      'on levels',
      { levels: [{}, {}] },
      { levels: [{ a: 1 }, {}] },
      { levels: [{}, { b: 1 }] },
      { levels: [{ a: 1 }, { b: 1 }] },
    ],
  ])('%s', (_, before, current, after, joined) => {
    expect(joinField('properties', before, current, after)).toEqual(joined)
  })
})

describe('two people at one topic', () => {
  /** Both make their change from what is there now; the second one's is committed on top of the first one's. */
  function both(
    first: Parameters<Garden['do']>[0],
    second: Parameters<Garden['do']>[0],
    prepare?: (garden: Garden) => void,
  ) {
    const garden = new Garden()
    garden.grow('Garden\nPeas')
    prepare?.(garden)
    const { change } = second(garden.records, garden.newIds)
    garden.do(first)
    const prepared = prepareChange(garden.records, change.edits, true)
    if (!prepared.ok) throw new Error(prepared.problem.message)
    return { garden, peas: garden.records.need('topic', garden.topic('Peas')), edits: prepared.edits, change }
  }
  const peas = (records: Garden['records']) => [...records.all('topic')].find(({ text }) => text === 'Peas')!.id

  test('each tag it, and both tags stay', () => {
    const { garden, peas: topic } = both(
      (r, m) => tagTopics(r, { topics: [peas(r)], name: 'wet' }, m),
      (r, m) => tagTopics(r, { topics: [peas(r)], name: 'early' }, m),
    )
    expect(topic.tags.map((tag) => garden.records.need('tag', tag).name).sort()).toEqual(['early', 'wet'])
  })

  test('one puts a badge on while the other changes their order', () => {
    const { peas: topic } = both(
      (r, m) => addBadge(r, { topics: [peas(r)], badge: 'icon:sun' }, m),
      (r, m) => moveBadge(r, { topic: peas(r), from: 1, to: 0 }, m),
      (garden) => {
        for (const badge of ['icon:star', 'icon:bolt'])
          garden.do((r, m) => addBadge(r, { topics: [peas(r)], badge }, m))
      },
    )
    expect(topic.badges).toEqual(['icon:bolt', 'icon:sun', 'icon:star'])
  })

  test('each dress it, and both values stand', () => {
    const set = (look: object) => (r: Garden['records'], m: Garden['newIds']) =>
      changeLook(r, { target: { kind: 'topics', topics: [peas(r)] }, set: look, clear: [] }, m)
    expect(both(set({ bold: true }), set({ size: 20 })).peas.look).toEqual({ bold: true, size: 20 })
  })

  test('each begin its note: both are kept, and what is still written into the second goes along', () => {
    const write = (text: string) => (r: Garden['records'], m: Garden['newIds']) =>
      writeNote(r, { topic: peas(r), base: '', text }, m)
    const { garden, peas: topic, change } = both(write('Theirs.'), write('Mine.'))
    expect(garden.records.need('note', topic.note).text).toBe('Theirs.\n\nMine.')
    const second = change.edits.find(({ kind }) => kind === 'note')!
    const later = [
      { kind: 'note' as const, id: second.id, before: { text: 'Mine.' }, after: { text: 'Mine.\nAnd more.' } },
    ]
    const prepared = prepareChange(garden.records, later, true)
    expect(prepared).toMatchObject({ ok: true, edits: [{ id: topic.note }] })
    expect(garden.records.need('note', topic.note).text).toBe('Theirs.\n\nMine.\nAnd more.')
  })

  test('one takes a tag of theirs back, and the other keeps theirs', () => {
    const garden = new Garden()
    garden.grow('Garden\nPeas')
    const { change } = garden.do((r, m) => tagTopics(r, { topics: [peas(r)], name: 'wet' }, m))
    garden.do((r, m) => tagTopics(r, { topics: [peas(r)], name: 'early' }, m))
    const undo = undoChange(garden.records, change, ChangeId.parse('00000000-0000-7000-8000-0000000000ff'))
    expect(undo.leftAlone).toEqual([])
    expect(prepareChange(garden.records, undo.change!.edits, true).ok).toBe(true)
    const { tags } = garden.records.need('topic', garden.topic('Peas'))
    expect(tags.map((tag) => garden.records.need('tag', tag).name)).toEqual(['early'])
    garden.do((r, m) => untagTopics(r, { topics: [peas(r)], tag: tags[0]! }, m))
    expect(garden.records.need('topic', garden.topic('Peas')).tags).toEqual([])
  })
})
