import { expect, test } from 'vitest'
import { gatherTopics } from '../../../src/core/commands/gather-topics'
import { toPlaceOn } from '../../../src/core/tree/to-place'
import { Garden, refusal } from '../gardens'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nPond\n  Frogs\nBed')
  const shed = garden.grow('Shed\nPond pump\nTools')
  return { garden, map, shed }
}

test('what is gathered from several maps moves into a branch, or its copies do', () => {
  const copied = planted()
  const gather = ({ garden }: ReturnType<typeof planted>, copies: boolean) => {
    const topics = ['Pond', 'Frogs', 'Pond pump'].map((text) => garden.topic(text))
    return garden.do((r, ids) => gatherTopics(r, { topics, into: { branch: garden.topic('Bed') }, copies }, ids))
  }
  gather(copied, true)
  expect(copied.garden.text(copied.map)).toBe(
    '- Garden\n  - Pond\n    - Frogs\n  - Bed\n    - Pond\n      - Frogs\n    - Pond pump',
  )
  expect(copied.garden.text(copied.shed)).toBe('- Shed\n  - Pond pump\n  - Tools')
  const moved = planted()
  expect(gather(moved, false).change.label).toBe('Gather 2 branches to be sorted')
  expect(moved.garden.text(moved.map)).toBe('- Garden\n  - Bed\n    - Pond\n      - Frogs\n    - Pond pump')
  expect(moved.garden.text(moved.shed)).toBe('- Shed\n  - Tools')
})

test('what is gathered into a drawer is to be placed', () => {
  const { garden, map, shed } = planted()
  const topics = [garden.topic('Pond'), garden.topic('Pond pump')]
  garden.do((r, ids) => gatherTopics(r, { topics, into: { drawer: shed }, copies: false }, ids))
  expect(garden.text(map)).toBe('- Garden\n  - Bed')
  expect(toPlaceOn(garden.records, shed).map(({ text }) => text)).toEqual(['Pond', 'Pond pump'])
})

test('a root stays where it is, and a branch cannot hang on itself', () => {
  const { garden } = planted()
  const gather = (topic: string, branch: string) =>
    refusal(() =>
      gatherTopics(
        garden.records,
        { topics: [garden.topic(topic)], into: { branch: garden.topic(branch) }, copies: false },
        garden.newIds,
      ),
    )
  expect(gather('Shed', 'Bed')).toMatch(/root/)
  expect(gather('Pond', 'Frogs')).not.toBe('')
})
