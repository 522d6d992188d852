import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { changeEnclosure, encloseTopics } from '../../../src/core/commands/enclosures'
import { numberMap } from '../../../src/core/commands/numbering'
import { setDates } from '../../../src/core/commands/set-dates'
import { splitOff } from '../../../src/core/commands/split-off'
import { tagTopics } from '../../../src/core/commands/tags'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import { type DocumentTopic, MapTeller } from '../../../src/core/document/map-document'
import { namedDays } from '../../../src/core/text/days'
import { Garden } from '../gardens'

/** A map of seasons and one of tools, with a link from the first to each end of the second. */
function told(tells: (map: string) => boolean = () => true) {
  const garden = new Garden()
  const [map, tools] = [garden.grow('Garden\nSpring\n  Sow peas\nSummer'), garden.grow('Tools\nSpade')]
  const link = (from: string, to: string) =>
    garden.do((r, m) =>
      addCrosslink(r, { from: garden.topic(from), to: { kind: 'topic', id: garden.topic(to) }, drawn: 'quiet' }, m),
    )
  link('Sow peas', 'Spade')
  link('Spade', 'Summer')
  const teller = new MapTeller(garden.records, (id) => tells(id === map ? 'map' : 'tools'))
  const document = () => teller.document(garden.records.need('map', map))
  const part = (text: string) => {
    const waiting: DocumentTopic[] = [document().root]
    for (let at = waiting.pop(); at; at = waiting.pop()) {
      if (at.text === text) return at
      waiting.push(...at.below)
    }
    throw new Error(`Nothing says ${text}.`)
  }
  return { garden, map, tools, teller, document, part }
}

describe('a map as a document', () => {
  test('holds what each topic says, in reading order, with what belongs to it', () => {
    const { garden, map, document, part } = told()
    const topic = garden.topic('Sow peas')
    garden.do((r, m) => numberMap(r, { map, scheme: 'sections' }, m))
    garden.do((r, m) => writeNote(r, { topic, base: '', text: 'Before **April**.' }, m))
    garden.do((r, m) => tagTopics(r, { topics: [topic], name: 'early' }, m))
    garden.do((r, m) => setDates(r, { topics: [topic], dates: { start: '2026-03-01', end: '2026-04-10' } }, m))
    garden.do((r, m) => addWeblink(r, { topic, url: 'https://example.org/peas', title: '' }, m))
    expect(document().root.below.map(({ text, below }) => [text, below.map((child) => child.text)])).toEqual([
      ['Spring', ['Sow peas']],
      ['Summer', []],
    ])
    expect(part('Sow peas')).toMatchObject({
      number: '1.1',
      note: 'Before **April**.',
      tags: ['early'],
      links: [
        { kind: 'leads to', target: { kind: 'topic', text: 'Spade', map: { title: 'Tools' } } },
        { kind: 'web', address: 'https://example.org/peas', title: 'https://example.org/peas' },
      ],
    })
    expect(namedDays(part('Sow peas').dates!).map(({ words }) => words)).toEqual(['1 Mar 2026', '10 Apr 2026'])
    expect(part('Summer').links).toMatchObject([{ kind: 'comes from', target: { text: 'Spade' } }])
  })

  test('leads to nothing that lies in the trash, and to no map that is not told', () => {
    const { garden, part, teller } = told()
    const spade = garden.topic('Spade')
    expect(teller.noteTarget(`folvet:topic/${spade}`)).toMatchObject({ text: 'Spade' })
    garden.do((r, m) => deleteTopics(r, { topics: [spade] }, m))
    expect([part('Sow peas').links, part('Summer').links]).toEqual([[], []])
    expect(teller.noteTarget(`folvet:topic/${spade}`)).toBeNull()
    const alone = told((map) => map === 'map')
    expect([alone.part('Sow peas').links, alone.part('Summer').links]).toEqual([[], []])
    expect(alone.teller.noteTarget(`folvet:map/${alone.tools}`)).toBeNull()
    expect(alone.teller.noteTarget('https://example.org')).toBeNull()
  })

  test('names doorways at both ends, and enclosures that say something with what is inside', () => {
    const { garden, document, part, teller } = told()
    const topics = [garden.topic('Spring'), garden.topic('Summer')]
    garden.do((r, m) => encloseTopics(r, { topics, title: 'Warm' }, m))
    expect(document().enclosures).toEqual([])
    const [enclosure] = garden.records.enclosuresOf(topics[0]!)
    const said = { enclosure: enclosure!.id, title: 'Warm', note: 'No frost.', tone: null, look: null }
    garden.do((r, m) => changeEnclosure(r, said, m))
    expect(document().enclosures).toMatchObject([{ title: 'Warm', topics: [{ text: 'Spring' }, { text: 'Summer' }] }])
    garden.do((r, m) => splitOff(r, { topic: topics[0]! }, m))
    const child = part('Spring').opens!
    const inside = teller.document(garden.records.need('map', child))
    expect(inside.arriving).toMatchObject([{ text: 'Spring', map: { title: 'Garden' } }])
    expect(inside.root.below.map(({ text }) => text)).toEqual(['Sow peas'])
  })

  test('is as deep as the map, without running out of stack', () => {
    const garden = new Garden()
    const lines = Array.from({ length: 5_000 }, (_, i) => `${'  '.repeat(i)}- Level ${i}`)
    const map = garden.grow(`Garden\n${lines.join('\n')}`)
    let at = new MapTeller(garden.records, () => true).document(garden.records.need('map', map)).root
    let depth = 0
    for (; at.below[0]; at = at.below[0]) depth++
    expect(depth).toBe(5_000)
  })
})
