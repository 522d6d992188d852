import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { splitOff } from '../../../src/core/commands/split-off'
import { offersFrom } from '../../../src/views/dialogs/offers'
import { Garden } from '../../core/gardens'

test('before a letter is typed, what is offered is where one was lately, the doorways here, and what is cross-linked', () => {
  const garden = new Garden()
  const here = garden.grow('Garden\nSpring\n  Sow peas\nSummer')
  const shed = garden.grow('Shed\nTools\nPots')
  const far = garden.grow('Far away\nNothing')
  garden.do((r, m) => splitOff(r, { topic: garden.topic('Spring') }, m))
  garden.do((r, m) =>
    addCrosslink(
      r,
      { from: garden.topic('Tools'), to: { kind: 'topic', id: garden.topic('Summer') }, drawn: 'line' },
      m,
    ),
  )
  const titles = new Map([...garden.records.all('map')].map(({ id, title }) => [id, title]))
  const offered = (visits: Parameters<typeof offersFrom>[3]) =>
    offersFrom(garden.records, here, titles, visits).map(({ text, why }) => `${text}: ${why}`)
  expect(offered([])).toEqual(['Spring: doorway here', 'Tools: cross-linked'])
  const [pots, tools] = [garden.topic('Pots'), garden.topic('Tools')]
  expect(
    offered([
      { map: shed, topic: pots },
      { map: here, topic: null },
      { map: far, topic: null },
      { map: shed, topic: tools },
    ]),
  ).toEqual(['Pots: lately', 'Far away: lately', 'Tools: lately', 'Spring: doorway here'])
  // What is not open to the person any more is not offered.
  titles.delete(far)
  expect(offered([{ map: far, topic: null }])).toEqual(['Spring: doorway here', 'Tools: cross-linked'])
})
