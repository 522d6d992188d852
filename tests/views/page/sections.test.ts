import { expect, test } from 'vitest'
import { foldTopics } from '../../../src/core/commands/fold-topics'
import { contentsOf, sectionsOf } from '../../../src/views/page/sections'
import { Garden } from '../../core/gardens'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Peas\n    Early\n    Late\n  Beans\nSummer\n  Water')
  const sections = () => sectionsOf(garden.records, map, null)
  return { garden, map, sections }
}

test('a page tells everything on the map in reading order, folded or not, each in the hue of its first-level branch', () => {
  const { garden, map, sections } = planted()
  garden.do((r, ids) => foldTopics(r, { topics: [garden.topic('Spring')], folded: true }, ids))
  expect(sections().map(({ topic, level, branch }) => `${level} ${topic.text} ${branch}`)).toEqual([
    '0 Garden 0',
    '1 Spring 0',
    '2 Peas 0',
    '3 Early 0',
    '3 Late 0',
    '2 Beans 0',
    '1 Summer 1',
    '2 Water 1',
  ])
  const alone = sectionsOf(garden.records, map, garden.topic('Peas'))
  expect(alone.map(({ topic, level }) => `${level} ${topic.text}`)).toEqual(['0 Peas', '1 Early', '1 Late'])
})

test('the contents show the first level, and what lies around the section in view', () => {
  const { sections } = planted()
  const contents = (inView: string) => {
    const all = sections()
    const at = all.findIndex(({ topic }) => topic.text === inView)
    return contentsOf(all, at).map((i) => all[i]!.topic.text)
  }
  expect(contents('Garden')).toEqual(['Garden', 'Spring', 'Summer'])
  expect(contents('Late')).toEqual(['Garden', 'Spring', 'Peas', 'Early', 'Late', 'Beans', 'Summer'])
  expect(contents('Summer')).toEqual(['Garden', 'Spring', 'Summer', 'Water'])
})
