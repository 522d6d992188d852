import { expect, test } from 'vitest'
import { changeTag, mergeTags, removeTag, tagNamed, tagTopics, untagTopics } from '../../../src/core/commands/tags'
import type { TopicId } from '../../../src/core/records/ids'
import { drawnPlot } from '../drawn-plot'
import { plot } from '../gardens'

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

test('several tags become one, and one is removed from all that carries it; undone, all is as it was', () => {
  const { garden } = plot()
  const [peas, beans] = [garden.topic('Sow peas'), garden.topic('Pick beans')]
  const tag = (topics: TopicId[], name: string) => garden.do((r, m) => tagTopics(r, { topics, name }, m))
  tag([peas, beans], 'urgent')
  tag([peas], 'at once')
  const named = (name: string) => tagNamed(garden.records, name)!.id
  const [urgent, atOnce] = [named('urgent'), named('at once')]
  const tagsOf = () => [peas, beans].map((id) => garden.records.need('topic', id).tags)
  garden.do((r, m) => mergeTags(r, { into: atOnce, tags: [urgent] }, m))
  expect(tagsOf()).toEqual([[atOnce], [atOnce]])
  expect(tagNamed(garden.records, 'urgent')).toBeUndefined()
  expect(() => garden.do((r, m) => mergeTags(r, { into: atOnce, tags: [urgent] }, m))).toThrow('This tag is gone.')
  expect(() => garden.do((r, m) => mergeTags(r, { into: atOnce, tags: [atOnce] }, m))).toThrow('into itself')
  garden.do((r, m) => removeTag(r, { tag: atOnce }, m))
  expect(tagsOf()).toEqual([[], []])
})
