import { describe, expect, test } from 'vitest'
import { attachFiles, removeAttachment } from '../../../src/core/commands/attachments'
import { addCrosslink, drawCrosslink, removeCrosslink } from '../../../src/core/commands/crosslinks'
import { importPages } from '../../../src/core/commands/import-pages'
import {
  chooseHomeMap,
  makeMap,
  renameCollection,
  renameMap,
  restoreMap,
  trashMap,
} from '../../../src/core/commands/maps'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { addWeblink, changeWeblink, removeWeblink } from '../../../src/core/commands/weblinks'
import { FileId } from '../../../src/core/records/ids'
import { joinTexts } from '../../../src/core/text/join-texts'
import { mergeText } from '../../../src/core/text/merge-text'
import { titleOf } from '../../../src/core/text/title'
import { COLLECTION, Garden } from '../gardens'

const refusal = (act: () => unknown): string => {
  try {
    act()
  } catch (error) {
    return error instanceof Error ? error.message : ''
  }
  return ''
}

describe('cross-links', () => {
  test('are made once, lead from one topic to another, and change how they are drawn', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring\nSummer')
    const [spring, summer] = [garden.topic('Spring'), garden.topic('Summer')]
    const link = () =>
      garden.do((r, m) => addCrosslink(r, { from: spring, to: { kind: 'topic', id: summer }, drawn: 'line' }, m))
    link()
    expect(refusal(link)).toBe('These two are linked already.')
    expect(
      refusal(() =>
        garden.do((r, m) => addCrosslink(r, { from: spring, to: { kind: 'topic', id: spring }, drawn: 'line' }, m)),
      ),
    ).toBe('A link leads from one topic to another.')
    const { id } = garden.records.crosslinksFrom(spring)[0]!
    const { change } = garden.do((r, m) => drawCrosslink(r, { crosslink: id, drawn: 'selected' }, m))
    expect(change.edits).toEqual([{ kind: 'crosslink', id, before: { drawn: 'line' }, after: { drawn: 'selected' } }])
    garden.do((r, m) => removeCrosslink(r, { crosslink: id }, m))
    expect(garden.records.crosslinksTo('topic', summer)).toEqual([])
    link()
    expect(garden.records.crosslinksTo('topic', summer)).toHaveLength(1)
  })
})

describe('web links', () => {
  test('are made whole, changed, and refused in words where they can be no address', () => {
    const garden = new Garden()
    garden.grow('Garden')
    const topic = garden.topic('Garden')
    garden.do((r, m) => addWeblink(r, { topic, url: ' example.org/peas ', title: ' Peas ' }, m))
    const [link] = garden.records.weblinks(topic)
    expect(link).toMatchObject({ url: 'https://example.org/peas', title: 'Peas' })
    garden.do((r, m) => changeWeblink(r, { weblink: link!.id, url: 'http://example.org', title: '' }, m))
    expect(garden.records.weblinks(topic)[0]).toMatchObject({ url: 'http://example.org', title: '' })
    for (const url of ['not an address', 'javascript:alert(1)', ''])
      expect(refusal(() => garden.do((r, m) => addWeblink(r, { topic, url, title: '' }, m)))).toContain(
        'This is not a web address.',
      )
    garden.do((r, m) => removeWeblink(r, { weblink: link!.id }, m))
    expect(garden.records.weblinks(topic)).toEqual([])
  })
})

describe('a text that is nothing but an address', () => {
  test('becomes a web link, and what is left to read of it the text', () => {
    const garden = new Garden()
    garden.grow('Garden\nSpring')
    const topic = garden.topic('Spring')
    const write = (text: string) => garden.do((r, m) => setText(r, { topic, text }, m))
    write(' https://www.example.org/peas/ ')
    expect(garden.records.need('topic', topic).text).toBe('example.org/peas')
    expect(garden.records.weblinks(topic).map(({ url }) => url)).toEqual(['https://www.example.org/peas/'])
    write('https://www.example.org/peas/')
    expect(garden.records.weblinks(topic)).toHaveLength(1)
    write('see https://example.org')
    expect(garden.records.need('topic', topic).text).toBe('see https://example.org')
    expect(garden.records.weblinks(topic)).toHaveLength(1)
  })
})

describe('files', () => {
  test('hang on topics in the order given, and are named when they are taken off', () => {
    const garden = new Garden()
    garden.grow('Garden')
    const topic = garden.topic('Garden')
    const files = ['plan.csv', 'map.svg'].map((name, i) => {
      const id = FileId.parse(`00000000-0000-7000-a000-00000000000${i + 1}`)
      garden.records.put('file', {
        id,
        sha256: 'a'.repeat(64),
        name,
        type: 'text/plain',
        size: 3,
        picture: null,
        trashed: false,
      })
      return id
    })
    garden.do((r, m) => attachFiles(r, { topic, files }, m))
    const attached = garden.records.attachments(topic)
    expect(attached.map(({ file }) => file)).toEqual(files)
    const { change } = garden.do((r, m) => removeAttachment(r, { attachment: attached[0]!.id }, m))
    expect(change.label).toBe('Remove plan.csv')
    expect(garden.records.attachments(topic)).toHaveLength(1)
  })
})

describe('maps of a collection', () => {
  test('the first is the home map; it cannot go into the trash before another takes its place', () => {
    const garden = new Garden()
    const [first, second] = [garden.grow('First'), garden.grow('Second')]
    const home = () => garden.records.need('collection', COLLECTION).homeMap
    expect(home()).toBe(first)
    expect(refusal(() => garden.do((r, m) => trashMap(r, { map: first }, m)))).toContain(
      'This is the home map of the collection.',
    )
    garden.do((r, m) => chooseHomeMap(r, { collection: COLLECTION, map: second }, m))
    garden.do((r, m) => trashMap(r, { map: first }, m))
    garden.do((r, m) => restoreMap(r, { map: first }, m))
    expect(garden.records.need('map', first).trashed).toBe(false)
  })

  test('a map that was reached through one in the trash gets another doorway, and back with it', () => {
    const garden = new Garden()
    garden.grow('Home')
    const map = garden.grow('Garden\nSpring\n  Sow')
    garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
    const doorway = garden.records.need('topic', garden.records.children(garden.topic('Garden'))[0]!.id)
    garden.do((r, m) => trashMap(r, { map }, m))
    expect(garden.records.need('map', doorway.opensMap).homeDoorway).toBeNull()
  })

  test('need a name', () => {
    const garden = new Garden()
    const map = garden.grow('Garden')
    expect(refusal(() => garden.do((r, m) => renameMap(r, { map, title: '  ' }, m)))).toBe('A map needs a name.')
    expect(refusal(() => garden.do((r, m) => renameCollection(r, { collection: COLLECTION, title: '\n' }, m)))).toBe(
      'A collection needs a name.',
    )
    garden.do((r, m) => renameCollection(r, { collection: COLLECTION, title: ' Bog ' }, m))
    expect(garden.records.need('collection', COLLECTION).title).toBe('Bog')
    expect(
      garden.do((r, m) => makeMap(r, { collection: COLLECTION, title: 'x'.repeat(80) }, m)).change.label.length,
    ).toBeLessThan(60)
  })
})

describe('importing pages', () => {
  test('links them as doorways, cross-links and attachments, and lists what leads nowhere', () => {
    const garden = new Garden()
    const plan = FileId.parse('00000000-0000-7000-a000-000000000009')
    garden.records.put('file', {
      id: plan,
      sha256: 'b'.repeat(64),
      name: 'plan.csv',
      type: 'text/csv',
      size: 3,
      picture: null,
      trashed: false,
    })
    const pages = [
      {
        path: 'a.md',
        text: '# Garden\n\n- [Spring](b.md)\n- See [peas](b.md#sow-peas)\n- [Plan](files/plan.csv)\n- [Out](../x.md)\n',
      },
      { path: 'b.md', text: '# Spring\n\nEarly.\n\n- Sow peas\n- [Back](a.md)\n' },
    ]
    const outcome = garden.do((r, m) =>
      importPages(r, { collection: COLLECTION, pages, files: new Map([['files/plan.csv', plan]]) }, m),
    )
    const { records } = garden
    expect(outcome.unread).toEqual([{ page: 'a.md', address: '../x.md', reason: expect.any(String) }])
    const doorway = records.need(
      'topic',
      records.children(garden.topic('Garden')).find(({ text }) => text === 'Spring')!.id,
    )
    expect(records.need('map', doorway.opensMap).homeDoorway).toBe(doorway.id)
    expect(
      records.crosslinksTo('topic', garden.topic('Sow peas')).map(({ from }) => records.need('topic', from).text),
    ).toEqual(['See peas'])
    expect(records.attachments(garden.topic('Plan')).map(({ file }) => file)).toEqual([plan])
    expect(records.need('topic', garden.topic('Back')).opensMap).toBe(records.need('collection', COLLECTION).homeMap)
  })

  test('refuses what holds no text', () => {
    const garden = new Garden()
    expect(
      refusal(() =>
        garden.do((r, m) =>
          importPages(r, { collection: COLLECTION, pages: [{ path: 'a.md', text: ' \n' }], files: new Map() }, m),
        ),
      ),
    ).toBe('a.md holds no text.')
  })
})

describe('texts', () => {
  test('of two people are joined by lines, and both stand where they overlap', () => {
    const base = 'one\ntwo\nthree'
    expect(mergeText(base, 'ONE\ntwo\nthree', 'one\ntwo\nTHREE')).toEqual({
      text: 'ONE\ntwo\nTHREE',
      overlapping: false,
    })
    const both = mergeText(base, 'one\nzwei\nthree', 'one\ndeux\nthree')
    expect(both.overlapping).toBe(true)
    expect(both.text).toContain('zwei')
    expect(both.text).toContain('deux')
    expect(mergeText(base, base, 'mine').text).toBe('mine')
    expect(mergeText(base, 'theirs', base).text).toBe('theirs')
  })

  test('give titles and are joined with an empty line between', () => {
    expect(titleOf('  First line \nsecond')).toBe('First line')
    expect(titleOf('x'.repeat(600))).toHaveLength(500)
    expect(joinTexts('a\n\n', '\nb')).toBe('a\n\nb')
    expect(joinTexts(' ', 'b')).toBe('b')
  })
})
