import { expect, test } from 'vitest'
import { mergeMaps } from '../../../src/core/commands/merge-maps'
import { writeNote } from '../../../src/core/commands/write-note'
import { planMerge } from '../../../src/core/matching/merge-plan'
import type { MapId } from '../../../src/core/records/ids'
import { Garden } from '../gardens'

test('two sources that join the same topic with different notes bring each passage once', () => {
  const garden = new Garden()
  const maps = ['Garden', 'First', 'Second'].map((title) => garden.grow(`${title}\nPeas`)) as [MapId, MapId, MapId]
  const peas = maps.map((map) => [...garden.records.topicsOf(map)].find(({ text }) => text === 'Peas')!.id)
  for (const [i, text] of ['Ours.', 'Of the first.', 'Of the second.'].entries())
    garden.do((r, m) => writeNote(r, { topic: peas[i]!, base: '', text }, m))
  const [target, ...sources] = maps
  const { report } = garden.do((r, m) => mergeMaps(r, { plan: planMerge(r, target, sources, 'combined') }, m))
  const { text } = garden.records.need('note', garden.records.need('topic', peas[0]!).note)
  expect(text).toBe('Ours.\n\n*From First:*\n\nOf the first.\n\n*From Second:*\n\nOf the second.')
  expect(report.notesCombined).toBe(2)
})

test('many topics that are added below one keep their order', () => {
  const garden = new Garden()
  const target = garden.grow('Garden\nOld')
  const lines = Array.from({ length: 300 }, (_, i) => `t${i}`)
  const source = garden.grow(`Other\n${lines.join('\n')}`)
  garden.do((r, m) => mergeMaps(r, { plan: planMerge(r, target, [source], 'combined') }, m))
  const children = garden.records.children(garden.records.root(target)!.id).map(({ text }) => text)
  expect(children).toEqual(['Old', ...lines])
})
