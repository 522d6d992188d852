import { describe, expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { writeNote } from '../../../src/core/commands/write-note'
import type { Place } from '../../../src/core/records/place'
import { TopicRecord } from '../../../src/core/records/topic'
import { WeblinkRecord } from '../../../src/core/records/weblink'
import { Garden } from '../gardens'

function planted(): Garden {
  const garden = new Garden()
  garden.grow('Garden\nSpring\n  Sow peas\nSummer')
  return garden
}

describe('records', () => {
  test('answer with nothing, or with words, where a record is not here', () => {
    const { records } = planted()
    expect(records.get('topic', null)).toBeUndefined()
    expect(records.get('topic', 'nowhere')).toBeUndefined()
    expect(() => records.need('map', 'nowhere')).toThrow('There is no map nowhere here.')
  })

  test('look up backwards what refers to a topic, without what is in the trash', () => {
    const garden = planted()
    const { records } = garden
    const [peas, summer] = [garden.topic('Sow peas'), garden.topic('Summer')]
    garden.do((r, m) => addCrosslink(r, { from: peas, to: { kind: 'topic', id: summer }, drawn: 'quiet' }, m))
    garden.do((r, m) => addWeblink(r, { topic: peas, url: 'https://example.org', title: 'Peas' }, m))
    expect(records.crosslinksFrom(peas)).toHaveLength(1)
    expect(records.crosslinksTo('topic', summer)).toEqual(records.crosslinksFrom(peas))
    expect(records.crosslinksTo('topic', peas)).toEqual([])
    const [link] = records.weblinks(peas)
    records.put('weblink', { ...link!, trashed: true })
    expect(records.weblinks(peas)).toEqual([])
    records.remove('crosslink', records.crosslinksFrom(peas)[0]!.id)
    expect(records.crosslinksTo('topic', summer)).toEqual([])
  })

  test('keep children in the order of their ranks, by code unit and never by locale', () => {
    const garden = planted()
    const { records } = garden
    const [spring, summer] = ['Spring', 'Summer'].map((text) => records.need('topic', garden.topic(text)))
    records.put('topic', { ...spring!, place: { ...spring!.place, rank: 'aa' } as Place })
    records.put('topic', { ...summer!, place: { ...summer!.place, rank: 'aZ' } as Place })
    expect(records.children(garden.topic('Garden')).map(({ text }) => text)).toEqual(['Summer', 'Spring'])
    expect(records.childrenWithTrashed('nowhere')).toEqual([])
  })
})

describe('stamps', () => {
  test('grow on the way to the root when something in a branch changes, and nowhere else', () => {
    const garden = planted()
    const { records } = garden
    const ids = ['Garden', 'Spring', 'Sow peas', 'Summer'].map((text) => garden.topic(text))
    const stamps = () => ids.map((id) => records.stampOf(id))
    const before = stamps()
    garden.do((r, m) => writeNote(r, { topic: garden.topic('Sow peas'), base: '', text: 'Early.' }, m))
    const after = stamps()
    expect(after.map((stamp, i) => stamp > before[i]!)).toEqual([true, true, true, false])
  })

  test('grow at both ends of a cross-link, and where a topic leaves and arrives', () => {
    const garden = planted()
    const { records } = garden
    const [peas, spring, summer] = ['Sow peas', 'Spring', 'Summer'].map((text) => garden.topic(text))
    const old = records.stampOf(summer!)
    garden.do((r, m) => addCrosslink(r, { from: peas!, to: { kind: 'topic', id: summer! }, drawn: 'line' }, m))
    expect(records.stampOf(summer!)).toBeGreaterThan(old)
    const left = records.stampOf(spring!)
    const topic = records.need('topic', peas!)
    records.put('topic', { ...topic, place: { ...topic.place, parent: summer! } as Place })
    expect(records.stampOf(spring!)).toBeGreaterThan(left)
    expect(records.stampOf('nowhere')).toBe(0)
  })
})

describe('what a record may hold', () => {
  const garden = planted()
  const topic = garden.records.need('topic', garden.topic('Spring'))
  const fits = (change: Partial<Record<keyof TopicRecord, unknown>>) =>
    TopicRecord.safeParse({ ...topic, ...change }).success

  test('a topic: texts that can be stored, coordinates in pairs, spans that end after they begin', () => {
    expect(fits({})).toBe(true)
    expect(fits({ text: 'x'.repeat(5_001) })).toBe(false)
    expect(fits({ text: 'nul \u0000' })).toBe(false)
    expect(fits({ text: 'half \ud800' })).toBe(false)
    expect(fits({ place: { ...topic.place, x: 4, y: 5 } })).toBe(false)
    expect(fits({ place: { ...topic.place, kind: 'by hand', x: 4 } })).toBe(false)
    expect(fits({ place: { ...topic.place, kind: 'by hand', x: 4, y: 5 } })).toBe(true)
    expect(fits({ place: { kind: 'loose', map: topic.place.map, x: 4, y: 5 } })).toBe(true)
    expect(fits({ place: { kind: 'root', map: topic.place.map, rank: 'a0' } })).toBe(false)
    expect(fits({ id: '01A215A2-9F5B-7440-9703-21188DD7DF7F' })).toBe(false)
    expect(fits({ place: { ...topic.place, rank: 'not a rank!' } })).toBe(false)
    expect(fits({ dates: { start: '2026-03-01', end: '2026-02-01' } })).toBe(false)
    expect(fits({ dates: { start: '2026-02-30', end: null } })).toBe(false)
    expect(fits({ width: 5 })).toBe(false)
    expect(fits({ layout: 'sideways' })).toBe(false)
    expect(fits({ unheardOf: 1 } as never)).toBe(false)
  })

  test('a web link: only addresses that can be followed and run nothing', () => {
    const link = { id: topic.id, topic: topic.id, title: '', rank: 'a0', trashed: false }
    const followable = (url: string) => WeblinkRecord.safeParse({ ...link, url }).success
    for (const url of ['https://example.org', 'http://example.org/a?b#c', 'mailto:ines@vennmoor.example'])
      expect([url, followable(url)]).toEqual([url, true])
    for (const url of ['javascript:alert(1)', 'data:text/html,x', 'https://', '/path', 'ftp://example.org', 'mailto:'])
      expect([url, followable(url)]).toEqual([url, false])
  })
})
