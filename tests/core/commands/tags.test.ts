import { expect, test } from 'vitest'
import { changeTag, tagNamed, tagTopics, untagTopics } from '../../../src/core/commands/tags'
import { drawnPlot } from '../drawn-plot'

test('tags stand under the text, are found by their name, case aside, and renamed everywhere at once', () => {
  const { garden, box, markup } = drawnPlot()
  const topics = [garden.topic('Prune'), garden.topic('Pick beans')]
  const height = box('Prune').height
  garden.do((r, m) => tagTopics(r, { topics, name: ' Dry work ' }, m))
  garden.do((r, m) => tagTopics(r, { topics: [topics[0]!], name: 'dry WORK' }, m))
  const tag = tagNamed(garden.records, 'dry work')!
  expect([...garden.records.all('tag')]).toHaveLength(1)
  expect(box('Prune').height).toBe(height + 4 + 17)
  garden.do((r, m) => changeTag(r, { tag: tag.id, name: 'Any weather', tone: 2 }, m))
  for (const text of ['Prune', 'Pick beans']) expect(markup(text)).toContain('>Any weather</text>')
  expect(markup('Prune')).toContain('class="tag spruce-2"')
  garden.do((r, m) => tagTopics(r, { topics, name: 'Other' }, m))
  expect(() => garden.do((r, m) => changeTag(r, { tag: tag.id, name: 'other', tone: null }, m))).toThrow('Another tag')
  garden.do((r, m) => untagTopics(r, { topics, tag: tag.id }, m))
  expect(markup('Prune')).not.toContain('Any weather')
})
