import { expect, test } from 'vitest'
import { outlineItem } from '../../../src/core/formats/outline'
import { chosenOf, linesOf } from '../../../src/views/draft/lines'

const PROPOSED = [
  {
    ...outlineItem('Prepare'),
    children: [{ ...outlineItem('Tools'), children: [outlineItem('Spades')] }, outlineItem('Food')],
  },
  { ...outlineItem('The day'), note: 'A Saturday.' },
]

test('a proposal that is left as it is comes out as it went in', () => {
  const lines = linesOf(PROPOSED)
  expect(lines.map(({ level, text }) => `${level} ${text}`)).toEqual([
    '0 Prepare',
    '1 Tools',
    '2 Spades',
    '1 Food',
    '0 The day',
  ])
  expect(chosenOf(lines)).toEqual(PROPOSED)
})

test('what is left out, or has no words any more, leaves with all below it, and nothing else does', () => {
  const without = (text: string, change: object) =>
    chosenOf(linesOf(PROPOSED).map((line) => (line.text === text ? { ...line, ...change } : line)))
  const texts = (items: ReturnType<typeof chosenOf>): unknown[] =>
    items.map(({ text, children }) => [text, texts(children)])
  expect(texts(without('Tools', { taken: false }))).toEqual([
    ['Prepare', [['Food', []]]],
    ['The day', []],
  ])
  expect(texts(without('Prepare', { text: '  ' }))).toEqual([['The day', []]])
  const [, day] = without('The day', { text: ' A day out ' })
  expect(day).toMatchObject({ text: 'A day out', note: 'A Saturday.' })
})
