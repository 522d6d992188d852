import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { tagTopics } from '../../../src/core/commands/tags'
import { writeNote } from '../../../src/core/commands/write-note'
import { affectedMaps } from '../../../src/core/records/affected-maps'
import { kinds, RECORD_KINDS } from '../../../src/core/records/kinds'
import { endsOf, fieldOf, withEnds } from '../../../src/core/records/reference-path'
import { Garden } from '../gardens'

describe.each(RECORD_KINDS)('the kind %s', (kind) => {
  const { schema, references, joins } = kinds[kind]

  test('has an id and can lie in the trash', () => {
    expect(Object.keys(schema.shape)).toEqual(expect.arrayContaining(['id', 'trashed']))
  })

  test('refers by fields that it has, to kinds that there are, and says what it means in words', () => {
    for (const reference of references) {
      expect(Object.keys(schema.shape)).toContain(fieldOf(reference))
      if (reference.to !== null) expect(RECORD_KINDS).toContain(reference.to)
      expect(reference.called).toMatch(/^[A-Z]/)
    }
    expect(new Set(references.map(({ path }) => path)).size).toBe(references.length)
  })

  test('joins fields that it has', () => {
    for (const field of Object.keys(joins)) expect(Object.keys(schema.shape)).toContain(field)
  })
})

describe('references', () => {
  const topic = kinds.topic.references
  const by = (path: string) => topic.find((reference) => reference.path === path)!

  test('are found in records and in whatever else stands in their place', () => {
    const record = { place: { map: 'm', parent: 'p' }, tags: ['a', 'b'], picture: { file: 'f' } }
    expect(topic.flatMap((reference) => endsOf(record, reference))).toEqual([
      { kind: 'map', id: 'm' },
      { kind: 'topic', id: 'p' },
      { kind: 'file', id: 'f' },
      { kind: 'tag', id: 'a' },
      { kind: 'tag', id: 'b' },
    ])
    for (const wrong of [{}, { tags: 'a' }, { tags: [1, null] }, { place: null }, { picture: [] }])
      expect(topic.flatMap((reference) => endsOf(wrong, reference))).toEqual([])
  })

  test('lead elsewhere in a copy, and the record stays as it was', () => {
    const record = { place: { map: 'm', parent: null }, tags: ['a', 'b'], note: null }
    const copy = withEnds(record, topic, ({ kind, id }) => (kind === 'tag' ? `${id}2` : id))
    expect(copy).toEqual({ place: { map: 'm', parent: null }, tags: ['a2', 'b2'], note: null })
    expect(record.tags).toEqual(['a', 'b'])
    expect(by('tags.*').hold).toBe('names')
  })
})

test('what is touched on which maps is what the references say', () => {
  const garden = new Garden()
  const here = garden.grow('Garden\nPeas\nBeans')
  const there = garden.grow('Shed\nTools')
  const [peas, beans, tools] = ['Peas', 'Beans', 'Tools'].map((text) => garden.topic(text)) as [never, never, never]
  const { records } = garden
  const maps = (kind: Parameters<typeof affectedMaps>[1], record: Parameters<typeof affectedMaps>[2]) => {
    const found = affectedMaps(records, kind, record)
    return found === 'all' ? found : [...found].sort()
  }
  garden.do((r, m) => writeNote(r, { topic: peas, base: '', text: 'Early.' }, m))
  garden.do((r, m) => tagTopics(r, { topics: [tools], name: 'old' }, m))
  garden.do((r, m) => encloseTopics(r, { topics: [peas, beans], title: 'Legumes' }, m))
  const enclosure = records.enclosuresOf(peas)[0]!
  garden.do((r, m) => addCrosslink(r, { from: tools, to: { kind: 'enclosure', id: enclosure.id }, drawn: 'quiet' }, m))
  expect(maps('topic', records.need('topic', beans))).toEqual([here, there].sort())
  expect(maps('note', records.need('note', records.need('topic', peas).note))).toEqual([here])
  expect(maps('enclosure', enclosure)).toEqual([here, there].sort())
  expect(maps('crosslink', records.crosslinksFrom(tools)[0]!)).toEqual([here, there].sort())
  expect(maps('map', records.need('map', there))).toEqual([there])
  for (const kind of ['tag', 'collection'] as const) expect(maps(kind, [...records.all(kind)][0]!)).toBe('all')
})
