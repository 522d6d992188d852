import { describe, expect, test } from 'vitest'
import { addCrosslink, drawCrosslinks, removeCrosslinks, tieTopics } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { encloseTopics, removeEnclosure } from '../../../src/core/commands/enclosures'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { splitOff } from '../../../src/core/commands/split-off'
import { planMerge } from '../../../src/core/matching/merge-plan'
import { crosslinkProblems } from '../../../src/core/network/check-links'
import { enclosureAtEnd, enclosureName, incomingAt, mapAtEnd, topicsAtEnd } from '../../../src/core/network/crosslinks'
import { buildScene } from '../../../src/core/scene/scene'
import { COLLECTION, CONTEXT, Garden, refusal } from '../gardens'

test('cross-links are made once, lead from one topic to another, and change how they are drawn', () => {
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
  const { change } = garden.do((r, m) => drawCrosslinks(r, { crosslinks: [id], drawn: 'selected' }, m))
  expect(change.edits).toEqual([{ kind: 'crosslink', id, before: { drawn: 'line' }, after: { drawn: 'selected' } }])
  garden.do((r, m) => removeCrosslinks(r, { crosslinks: [id] }, m))
  expect(garden.records.crosslinksTo('topic', summer)).toEqual([])
  link()
  expect(garden.records.crosslinksTo('topic', summer)).toHaveLength(1)
})

test('several topics are tied to one another in one step, quietly, and none of them twice', () => {
  const garden = new Garden()
  garden.grow('Garden\nSpring\nSummer\nAutumn\nWinter')
  const topics = ['Spring', 'Summer', 'Autumn', 'Winter'].map((text) => garden.topic(text))
  garden.do((r, m) => addCrosslink(r, { from: topics[2]!, to: { kind: 'topic', id: topics[0]! }, drawn: 'line' }, m))
  garden.do((r, m) => tieTopics(r, { topics }, m))
  const links = [...garden.records.all('crosslink')]
  expect(links).toHaveLength(6)
  expect(links.filter(({ drawn }) => drawn === 'quiet')).toHaveLength(5)
  for (const topic of topics)
    expect(garden.records.crosslinksFrom(topic).length + garden.records.crosslinksTo('topic', topic).length).toBe(3)
  const tie = (some: typeof topics) => refusal(() => garden.do((r, m) => tieTopics(r, { topics: some }, m)))
  expect(tie(topics)).toBe('These topics are tied to one another already.')
  expect(tie([topics[0]!, topics[0]!])).toMatch(/two topics or more/)
})

/** A map with an enclosure around peas and beans, to which the shed leads. */
function linked() {
  const garden = new Garden()
  const map = garden.grow('Garden\nBeds\n  Peas\n  Beans\n  Leeks\nShed')
  const [peas, beans, shed] = ['Peas', 'Beans', 'Shed'].map((text) => garden.topic(text)) as [never, never, never]
  garden.do((r, m) => encloseTopics(r, { topics: [peas, beans], title: 'Legumes' }, m))
  const [enclosure] = garden.records.enclosuresOf(peas)
  const link = (from = shed) =>
    garden.do((r, m) => addCrosslink(r, { from, to: { kind: 'enclosure', id: enclosure!.id }, drawn: 'line' }, m))
  link()
  return { garden, map, peas, beans, shed, enclosure: enclosure!, link }
}

describe('a cross-link to an enclosure', () => {
  test('is known at both ends, named by the title, and made once', () => {
    const { garden, peas, shed, enclosure, link } = linked()
    const [found] = garden.records.crosslinksTo('enclosure', enclosure.id)
    expect(found).toMatchObject({ from: shed, to: { kind: 'enclosure', id: enclosure.id } })
    expect(incomingAt(garden.records, garden.records.need('topic', peas))).toEqual([found])
    expect(topicsAtEnd(garden.records, found!).map(({ text }) => text)).toEqual(['Peas', 'Beans'])
    expect(enclosureName(garden.records, enclosureAtEnd(garden.records, found!)!)).toBe('Legumes')
    expect(link).toThrow('These two are linked already.')
    link(peas)
    expect(garden.records.crosslinksFrom(peas)[0]?.to.id).toBe(enclosure.id)
  })

  test('without a title is named after what it is around', () => {
    const garden = new Garden()
    garden.grow('Garden\nPeas')
    garden.do((r, m) => encloseTopics(r, { topics: [garden.topic('Peas')], title: '' }, m))
    const [enclosure] = garden.records.enclosuresOf(garden.topic('Peas'))
    expect(enclosureName(garden.records, enclosure!)).toBe('the enclosure around Peas')
    expect(() =>
      garden.do((r, m) =>
        addCrosslink(r, { from: garden.topic('Peas'), to: { kind: 'enclosure', id: enclosure!.id }, drawn: 'line' }, m),
      ),
    ).toThrow('nothing but itself')
  })

  test('is drawn to the frame, not to a topic inside', () => {
    const { garden, map, shed } = linked()
    const { layout, lineOf } = buildScene(garden.records, map, CONTEXT)
    const [frame] = layout.enclosures
    const { bounds } = lineOf(garden.records.crosslinksFrom(shed)[0]!, layout.byKey.of(shed)!)!
    const end = frame!.y + frame!.height / 2
    expect(bounds.y).toBeLessThanOrEqual(end)
    expect(bounds.y + bounds.height).toBeGreaterThanOrEqual(end)
  })

  test('outlives the topic that told its place, and the enclosure itself', () => {
    const { garden, peas, beans, shed, enclosure } = linked()
    garden.do((r, m) => deleteTopics(r, { topics: [peas] }, m))
    const end = () => garden.records.crosslinksFrom(shed)[0]!
    expect(topicsAtEnd(garden.records, end()).map(({ id }) => id)).toEqual([beans])
    expect(crosslinkProblems(garden.records, COLLECTION).brokenLinks).toEqual([])
    garden.do((r, m) => removeEnclosure(r, { enclosure: enclosure.id }, m))
    expect(enclosureAtEnd(garden.records, end())).toBeUndefined()
    expect(topicsAtEnd(garden.records, end()).map(({ id }) => id)).toEqual([beans])
    expect(() =>
      garden.do((r, m) =>
        addCrosslink(r, { from: beans, to: { kind: 'enclosure', id: enclosure.id }, drawn: 'line' }, m),
      ),
    ).toThrow('This enclosure is gone.')
  })

  test('becomes a link between maps when its branch is split off, and follows a merge to the copy', () => {
    const { garden, map, shed, enclosure } = linked()
    garden.do((r, m) => splitOff(r, { topic: garden.topic('Beds') }, m))
    expect(mapAtEnd(garden.records, garden.records.crosslinksFrom(shed)[0]!)).not.toBe(map)

    const merged = linked()
    const target = merged.garden.grow('All gardens')
    merged.garden.do((r, m) => mergeMaps(r, { plan: planMerge(r, target, [merged.map], 'combined') }, m))
    const copy = [...merged.garden.records.topicsOf(target)].find(({ text }) => text === 'Shed')!
    const [carried] = merged.garden.records.crosslinksFrom(copy.id)
    expect(carried!.to.id).not.toBe(enclosure.id)
    expect(mapAtEnd(merged.garden.records, carried!)).toBe(target)
  })
})
