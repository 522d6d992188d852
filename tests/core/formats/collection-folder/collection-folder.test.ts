import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { applyEdits, type Edit } from '../../../../src/core/changes/edit'
import { prepareChange } from '../../../../src/core/changes/prepare'
import { setText } from '../../../../src/core/commands/set-text'
import { addWeblink } from '../../../../src/core/commands/weblinks'
import { writeNote } from '../../../../src/core/commands/write-note'
import { readPage, writePage } from '../../../../src/core/formats/collection-folder/page'
import { readFolder } from '../../../../src/core/formats/collection-folder/read-folder'
import { type Folder, writeFolder } from '../../../../src/core/formats/collection-folder/write-folder'
import { Records } from '../../../../src/core/records/records'
import { BARE_TOPIC } from '../../../../src/core/records/topic'
import { act, perform } from '../../acts'
import { COLLECTION, contents, Garden } from '../../gardens'

const newId = () => crypto.randomUUID()
const sourceOf = ({ texts }: Folder) => {
  const byPath = new Map(texts.map(({ path, text }) => [path, text]))
  return { byPath, text: (path: string) => byPath.get(path) }
}
/** A folder read into an empty Folvet, as the server does it. */
function readInto(source: Parameters<typeof readFolder>[0]): Records {
  const records = new Records()
  const edits = readFolder(source, newId).records.map(
    ({ kind, record }) => ({ kind, id: record.id, before: null, after: record }) as Edit,
  )
  applyEdits(
    records,
    edits.filter(({ kind }) => kind === 'file'),
  )
  const prepared = prepareChange(
    records,
    edits.filter(({ kind }) => kind !== 'file'),
    true,
  )
  if (!prepared.ok) throw new Error(prepared.problem.message)
  return records
}

const WORDS = [
  '',
  'Peas',
  '# x',
  '- y',
  '1. z',
  '> q',
  'a\nb',
  '*s* _t_ `c`',
  'see https://example.org/x_y.',
  '⏎',
  '---',
  '[l](m)',
  'x\n\n\ny\n',
  '\tt',
  '| a |\n|---|\n| b |',
  '```\n# no\n```',
  '> a\n\nb',
  '- i\n  - j',
  'é 水 👍🏽',
  '[a](https://example.org)',
  '<b>',
  '&amp;',
  '    code',
  'ends \\',
]

describe('a collection as a folder', () => {
  test('comes back as it was, whatever people did to it', () => {
    fc.assert(
      fc.property(
        fc.array(act, { maxLength: 25 }),
        fc.array(fc.tuple(fc.nat(99), fc.constantFrom(...WORDS), fc.constantFrom(...WORDS)), { maxLength: 12 }),
        (acts, texts) => {
          const garden = new Garden()
          garden.grow('Garden\nSpring\n  Sow peas\nSummer\n  Pick beans\n    Dwarf')
          garden.grow('Neighbour\nSpring\n  Prune')
          const attempt = (work: () => unknown) => {
            try {
              work()
            } catch {
              // Refused acts are no matter here.
            }
          }
          for (const chosen of acts) attempt(() => garden.do((r, m) => perform(r, m, chosen)))
          for (const [at, text, note] of texts) {
            const topics = [...garden.records.all('topic')]
            const topic = topics[at % topics.length]!.id
            attempt(() => garden.do((r, m) => setText(r, { topic, text }, m)))
            attempt(() => garden.do((r, m) => writeNote(r, { topic, base: '', text: note }, m)))
          }
          const folder = writeFolder(garden.records, COLLECTION)
          expect(contents(readInto(sourceOf(folder)))).toEqual(contents(garden.records))
          expect(writeFolder(readInto(sourceOf(folder)), COLLECTION)).toEqual(folder)
        },
      ),
      { numRuns: 1200 },
    )
  }, 120_000)

  function planted() {
    const garden = new Garden()
    garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans\n    Dwarf')
    garden.do((r, m) =>
      writeNote(r, { topic: garden.topic('Sow peas'), base: '', text: 'Early.\n\nAnd **often**.' }, m),
    )
    garden.do((r, m) => writeNote(r, { topic: garden.topic('Prune'), base: '', text: '# A heading\n\n- a list' }, m))
    garden.do((r, m) => addWeblink(r, { topic: garden.topic('Summer'), url: 'https://example.org', title: 'Sun' }, m))
    const source = sourceOf(writeFolder(garden.records, COLLECTION))
    const path = [...source.byPath.keys()].find((one) => one.endsWith('.md'))!
    const edit = (change: (page: string) => string) => {
      source.byPath.set(path, change(source.byPath.get(path)!))
      return readInto(source)
    }
    return { garden, source, path, edit }
  }
  const byText = (records: Records, text: string) => [...records.all('topic')].find((topic) => topic.text === text)!

  test('is a page that anyone can read', () => {
    const { source, path } = planted()
    expect(path).toBe('maps/01-garden.md')
    expect(source.byPath.get(path)).toBe(
      '# Garden\n\n## Spring\n\n- Sow peas\n\n  Early.\n\n  And **often**.\n\n- Prune\n\n  > # A heading\n  >\n  > - a list\n\n## Summer\n\n### Pick beans\n\n- Dwarf\n',
    )
  })

  test('that was edited by hand is read by its text, and what did not change stays what it was', () => {
    const { garden, edit } = planted()
    const records = edit((page) =>
      page
        .replace('- Sow peas', '- Sow peas and beans')
        .replace('Early.', 'Very early.')
        .replace('- Dwarf', '- Dwarf\n- [Climbing](https://example.org/climbing)')
        .replace(/- Prune[\s\S]*?(?=## Summer)/, ''),
    )
    const peas = records.need('topic', garden.topic('Sow peas'))
    expect(peas.text).toBe('Sow peas and beans')
    expect(records.need('note', peas.note).text).toBe('Very early.\n\nAnd **often**.')
    expect(records.need('topic', garden.topic('Prune')).trashed).toBe(true)
    expect(records.weblinks(garden.topic('Summer'))).toHaveLength(1)
    const climbing = byText(records, 'Climbing')
    expect(records.weblinks(climbing.id)).toMatchObject([{ url: 'https://example.org/climbing' }])
    expect(records.children(garden.topic('Pick beans')).map(({ text }) => text)).toEqual(['Dwarf', 'Climbing'])
  })

  test.each([
    ['no index', (files: Map<string, string>) => files.delete('collection.json'), 'collection.json is missing'],
    ['an index that is no JSON', (files: Map<string, string>) => files.set('collection.json', '{'), 'is no JSON'],
    [
      'another form',
      (files: Map<string, string>) => files.set('collection.json', '{"format":"other"}'),
      'collection.json cannot be read',
    ],
    [
      'a newer form',
      (files: Map<string, string>) =>
        files.set('collection.json', files.get('collection.json')!.replace('"version": 1', '"version": 2')),
      'written by a newer Folvet',
    ],
    [
      'a page that is missing',
      (files: Map<string, string>) => files.delete('maps/01-garden.md'),
      'maps/01-garden.md is missing',
    ],
    [
      'a map of a path elsewhere',
      (files: Map<string, string>) =>
        files.set('collection.json', files.get('collection.json')!.replace('"01-garden"', '"../01-garden"')),
      'collection.json cannot be read: maps.0',
    ],
    [
      'a file of a path elsewhere',
      (files: Map<string, string>) =>
        files.set(
          'collection.json',
          files.get('collection.json')!.replace('"files": []', '"files": [{"path":"files/../../x","record":{}}]'),
        ),
      'a file outside of files',
    ],
    [
      'two topics of one id',
      (files: Map<string, string>) => {
        const text = files.get('maps/01-garden.json')!
        const ids = [...text.matchAll(/"id": "([0-9a-f-]{36})",\s+"level"/g)].map(([, id]) => id!)
        files.set('maps/01-garden.json', text.replace(ids[2]!, ids[1]!))
      },
      'a second time',
    ],
    [
      'a link to nowhere',
      (files: Map<string, string>) => {
        const text = files.get('maps/01-garden.json')!
        files.set(
          'maps/01-garden.json',
          text.replace(/("topic": ")[0-9a-f-]{36}/, '$100000000-0000-7000-8000-00000000dead'),
        )
      },
      'no longer there',
    ],
    [
      'a topic below itself',
      (files: Map<string, string>) => {
        const text = files.get('maps/01-garden.json')!
        const id = /"id": "([0-9a-f-]{36})",\s+"level": 1/.exec(text)![1]!
        const map = /"map": \{\s+"id": "([0-9a-f-]{36})"/.exec(text)![1]!
        const [a, b] = ['00000000-0000-7000-8000-0000000000a1', '00000000-0000-7000-8000-0000000000a2']
        const topic = (one: string, parent: string) =>
          JSON.stringify({
            ...BARE_TOPIC,
            id: one,
            place: { kind: 'arranged', map, parent, rank: 'a9', side: null },
            text: id,
            trashed: true,
          })
        files.set('maps/01-garden.json', text.replace('"topic": []', `"topic": [${topic(a, b)},${topic(b, a)}]`))
      },
      'cannot hang below itself',
    ],
  ])('with %s is refused in words', (_, spoil, words) => {
    const { source } = planted()
    spoil(source.byPath)
    expect(() => readInto(source)).toThrow(words)
  })
})

test('a page reads back as it was written, for plain texts', () => {
  const word = fc.stringMatching(/^[A-Za-z][a-z]{0,6}( [a-z.*_#-]{1,5}){0,2}$/)
  const rows = fc.array(fc.tuple(fc.nat(5), word, fc.option(word, { nil: '' })), { minLength: 1, maxLength: 30 })
  fc.assert(
    fc.property(rows, (chosen) => {
      let last = 0
      const lines = chosen.map(([level, text, note], i) => ({
        level: (last = i === 0 ? 0 : Math.max(1, Math.min(level, last + 1))),
        text: text.trim(),
        note: note.trim(),
        links: [],
      }))
      const read = readPage(writePage(lines), '')
      expect(read.map(({ level, text }) => ({ level, text }))).toEqual(
        lines.map(({ level, text }) => ({ level, text })),
      )
    }),
    { numRuns: 300 },
  )
})
