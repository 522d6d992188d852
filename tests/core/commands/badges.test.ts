import { expect, test } from 'vitest'
import { ALL_ICONS, ICON_NAMES } from '../../../src/core/badges/all-icons'
import { badgeName, iconBadge } from '../../../src/core/badges/badges'
import { addBadge, changeBadge, moveBadge } from '../../../src/core/commands/badges'
import { Badge } from '../../../src/core/records/topic'
import { drawnPlot } from '../drawn-plot'

test('badges stand before the text in their order, can be changed, moved and taken off, each once on a topic', () => {
  const { garden, box, markup } = drawnPlot()
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

test('badges are icons of the set or emoji, and nothing that could be markup', () => {
  for (const badge of ['icon:star', '🌱', '👩🏽‍🌾', '3️⃣', '🇺🇳', '★']) expect(Badge.safeParse(badge).success).toBe(true)
  for (const badge of ['', 'star', 'icon:', '<b>', 'icon:<b>', '🌱<svg>', 'x'.repeat(50), '🌱'.repeat(30)])
    expect(Badge.safeParse(badge).success).toBe(false)
  expect(ICON_NAMES.length).toBeGreaterThan(200)
  expect(ICON_NAMES.every((name) => ALL_ICONS.path(iconBadge(name)) !== null)).toBe(true)
  expect(badgeName('icon:alert-triangle')).toBe('alert triangle')
  expect(ALL_ICONS.path('icon:nothing-like-it')).toBeNull()
})
