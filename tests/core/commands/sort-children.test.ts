import { expect, test } from 'vitest'
import { setDates } from '../../../src/core/commands/set-dates'
import { type SortBy, sortChildren } from '../../../src/core/commands/sort-children'
import { Garden } from '../gardens'

test.each<[SortBy, string[]]>([
  ['text', ['äpfel 3', 'Birnen 20', 'Birnen 100', 'Zwiebeln']],
  ['number', ['äpfel 3', 'Birnen 20', 'Birnen 100', 'Zwiebeln']],
  ['date', ['Zwiebeln', 'Birnen 20', 'Birnen 100', 'äpfel 3']],
])('sorted by %s', (by, expected) => {
  const garden = new Garden()
  garden.grow('Harvest\nBirnen 20\nBirnen 100\nZwiebeln\näpfel 3')
  const date = (text: string, start: string) =>
    garden.do((r, m) => setDates(r, { topics: [garden.topic(text)], dates: { start, end: null } }, m))
  date('Zwiebeln', '2026-03-01')
  date('Birnen 20', '2026-09-01')
  const root = garden.topic('Harvest')
  garden.do((records, newIds) => sortChildren(records, { topic: root, by }, newIds))
  expect(garden.records.children(root).map(({ text }) => text)).toEqual(expected)
})
