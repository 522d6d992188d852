import { describe, expect, test } from 'vitest'
import { ALL_ICONS, ICON_NAMES } from '../../../src/core/badges/all-icons'
import { badgeName, iconBadge } from '../../../src/core/badges/badges'
import { addTopic } from '../../../src/core/commands/add-topic'
import { addBadge, changeBadge, moveBadge } from '../../../src/core/commands/badges'
import { insertBetween } from '../../../src/core/commands/insert-between'
import { fixNumber, numberBranch } from '../../../src/core/commands/numbering'
import { firstSize, putPicture, removePicture, resizePicture } from '../../../src/core/commands/pictures'
import { scatterItems } from '../../../src/core/commands/scatter-items'
import { setTask } from '../../../src/core/commands/set-task'
import { changeTag, tagNamed, tagTopics, untagTopics } from '../../../src/core/commands/tags'
import { readText } from '../../../src/core/formats/read-text'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { FileId } from '../../../src/core/records/ids'
import { Badge } from '../../../src/core/records/topic'
import { toMarkup } from '../../../src/core/scene/drawing'
import { drawTopic } from '../../../src/core/scene/topic-drawing'
import { CONTEXT, Garden } from '../gardens'
import { overlaps } from '../layout/forests'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\nSummer\n  Pick beans')
  const layout = () => layoutMap(garden.records, map, CONTEXT)
  const box = (text: string) => layout().byKey.get(garden.topic(text))!
  const markup = (text: string) =>
    drawTopic(box(text), { ...CONTEXT, pictureAddress: (file, width) => `/pictures/${file}?${Math.round(width)}` })
      .map(toMarkup)
      .join('')
  return { garden, map, layout, box, markup }
}

describe('badges', () => {
  test('stand before the text in their order, can be changed, moved and taken off, each once on a topic', () => {
    const { garden, box, markup } = planted()
    const topics = [garden.topic('Prune')]
    const plain = box('Prune').width
    for (const badge of ['icon:star', '🌱', 'icon:star', 'icon:flag'])
      garden.do((r, m) => addBadge(r, { topics, badge }, m))
    const badges = () => garden.records.need('topic', topics[0]!).badges
    expect(badges()).toEqual(['icon:star', '🌱', 'icon:flag'])
    expect(box('Prune').width).toBeCloseTo(plain + 3 * 21, 5)
    expect(markup('Prune')).toMatch(/<title>star<\/title>.*<path d="M[^"]+" class="badge-outline spruce-0"/)
    expect(markup('Prune')).toContain('>🌱</text>')
    garden.do((r, m) => moveBadge(r, { topic: topics[0]!, from: 2, to: 0 }, m))
    garden.do((r, m) => changeBadge(r, { topic: topics[0]!, index: 1, badge: 'icon:leaf' }, m))
    garden.do((r, m) => changeBadge(r, { topic: topics[0]!, index: 2, badge: null }, m))
    expect(badges()).toEqual(['icon:flag', 'icon:leaf'])
    expect(() => garden.do((r, m) => changeBadge(r, { topic: topics[0]!, index: 7, badge: null }, m))).toThrow('gone')
  })

  test('are icons of the set or emoji, and nothing that could be markup', () => {
    for (const badge of ['icon:star', '🌱', '👩🏽‍🌾', '3️⃣', '🇺🇳', '★']) expect(Badge.safeParse(badge).success).toBe(true)
    for (const badge of ['', 'star', 'icon:', '<b>', 'icon:<b>', '🌱<svg>', 'x'.repeat(50), '🌱'.repeat(30)])
      expect(Badge.safeParse(badge).success).toBe(false)
    expect(ICON_NAMES.length).toBeGreaterThan(200)
    expect(ICON_NAMES.every((name) => ALL_ICONS.path(iconBadge(name)) !== null)).toBe(true)
    expect(badgeName('icon:alert-triangle')).toBe('alert triangle')
    expect(ALL_ICONS.path('icon:nothing-like-it')).toBeNull()
  })
})

test('tags stand under the text, are found by their name, case aside, and renamed everywhere at once', () => {
  const { garden, box, markup } = planted()
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

test('a task shows its state as a sign', () => {
  const { garden, markup } = planted()
  const topics = [garden.topic('Prune')]
  for (const [task, words] of [
    ['open', 'Task to do'],
    ['done', 'Task done'],
  ] as const) {
    garden.do((r, m) => setTask(r, { topics, task }, m))
    expect(markup('Prune')).toContain(`<title>${words}</title>`)
  }
  garden.do((r, m) => setTask(r, { topics, task: null }, m))
  expect(markup('Prune')).not.toContain('Task')
})

describe('a picture', () => {
  test('stands above the text, sized so that the map stays readable, and keeps its form when it is resized', () => {
    const { garden, box, layout, markup } = planted()
    const topic = garden.topic('Sow peas')
    const file = FileId.parse('00000000-0000-7000-a000-000000000001')
    const natural = { width: 4_000, height: 1_000 }
    const record = { id: file, sha256: 'a'.repeat(64), name: 'peas.png', type: 'image/png', size: 3, trashed: false }
    garden.records.put('file', { ...record, picture: natural })
    const height = box('Sow peas').height
    garden.do((r, m) => putPicture(r, { topic, file, natural }, m))
    expect(garden.records.need('topic', topic).picture).toEqual({ file, width: 240, height: 60 })
    expect(box('Sow peas').height).toBe(height + 60 + 6)
    expect(markup('Sow peas')).toMatch(/<image [^>]*width="240" height="60" href="\/pictures\/[^"]*\?480"/)
    garden.do((r, m) => resizePicture(r, { topic, width: 400 }, m))
    expect(garden.records.need('topic', topic).picture).toMatchObject({ width: 400, height: 100 })
    expect(overlaps(layout())).toEqual([])
    garden.do((r, m) => removePicture(r, { topic }, m))
    expect(box('Sow peas').height).toBe(height)
  })

  test('is neither blown up at first nor drawn too small to see', () => {
    expect(firstSize({ width: 40, height: 30 })).toEqual({ width: 40, height: 30 })
    expect(firstSize({ width: 10, height: 5_000 })).toEqual({ width: 16, height: 200 })
  })

  test('must be a file of the collection', () => {
    const { garden } = planted()
    const picture = { topic: garden.topic('Prune'), file: FileId.parse('00000000-0000-7000-a000-00000000000f') }
    expect(() => garden.do((r, m) => putPicture(r, { ...picture, natural: { width: 9, height: 9 } }, m))).toThrow(
      'The picture is no longer there.',
    )
  })
})

test('a topic is put between branches and the one on which they hang', () => {
  const { garden, map } = planted()
  const topics = [garden.topic('Sow peas'), garden.topic('Prune')]
  garden.do((r, m) => insertBetween(r, { topics, text: 'March' }, m))
  expect(garden.text(map)).toContain('  - Spring\n    - March\n      - Sow peas\n      - Prune\n')
  const crossing = { topics: [garden.topic('Prune'), garden.topic('Summer')], text: '' }
  expect(() => garden.do((r, m) => insertBetween(r, crossing, m))).toThrow('hang on the same topic')
  expect(() => garden.do((r, m) => insertBetween(r, { topics: [garden.topic('Garden')], text: '' }, m))).toThrow('Only')
})

test('text from elsewhere is laid down as loose branches that do not overlap', () => {
  const { garden, map, layout } = planted()
  const { items } = readText('Tools\n  Spade\n  Fork\nPots')
  const { select } = garden.do((r, m) => scatterItems(r, { map, x: 10, y: 20, items }, m))
  expect(garden.records.looseBranches(map).map(({ text }) => text)).toEqual(['Tools', 'Pots'])
  expect(select).toHaveLength(2)
  expect(garden.records.children(select[0]!).map(({ text }) => text)).toEqual(['Spade', 'Fork'])
  expect(overlaps(layout())).toEqual([])
  expect(() => garden.do((r, m) => scatterItems(r, { map, x: 0, y: 0, items: [] }, m))).toThrow('no text')
})

test('beside fixed numbers the next free one is proposed, and beneath one its first', () => {
  const { garden } = planted()
  const [spring, peas, prune] = ['Spring', 'Sow peas', 'Prune'].map((text) => garden.topic(text))
  garden.do((r, m) => fixNumber(r, { topic: peas!, number: '1' }, m))
  garden.do((r, m) => fixNumber(r, { topic: prune!, number: '2' }, m))
  const add = (parent: typeof spring, after: typeof spring | 'last') => {
    const { select } = garden.do((r, m) => addTopic(r, { parent: parent!, after: after!, text: 'x' }, m))
    return garden.records.need('topic', select[0]!)
  }
  const between = add(spring, peas)
  expect(between.number).toBe('1a')
  expect(add(between.id, 'last').number).toBe('1a1')
  expect(add(spring, 'last').number).toBe('3')
  expect(add(garden.topic('Summer'), 'last').number).toBeNull()
  garden.do((r, m) => numberBranch(r, { topics: [spring!], scheme: 'decimal' }, m))
  expect(add(spring, peas).number).toBeNull()
})
