import { expect, test } from 'vitest'
import { gatherList } from '../../../src/core/commands/searches'
import { setText } from '../../../src/core/commands/set-text'
import { gatheredChildren } from '../../../src/core/layout/gathered'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { ownChildren } from '../../../src/core/layout/occurrence'
import { NOTHING_ASKED } from '../../../src/core/records/search'
import type { TopicRecord } from '../../../src/core/records/topic'
import { buildScene } from '../../../src/core/scene/scene'
import { CONTEXT, Garden } from '../gardens'

test('a list shows what it found once, without what hangs on it, marked as gathered, and follows what is found', () => {
  const garden = new Garden()
  const board = garden.grow('Board\nSoon\n  Call the mill\nLater')
  garden.grow('Permits\nDipwells\n  Pipes\nMowing')
  const list = garden.topic('Soon')
  const asked = { ...NOTHING_ASKED, words: 'permit' }
  garden.do((r, m) => gatherList(r, { topic: list, asked }, m))
  let found: string[] = ['Dipwells', 'Mowing', 'Soon', 'Call the mill', 'Board']
  let stamp = 1
  const gathered = {
    of: ({ id }: TopicRecord) =>
      id === list ? found.map((text) => garden.records.need('topic', garden.topic(text))) : [],
    get stamp() {
      return stamp
    },
  }
  const shown = gatheredChildren(garden.records, gathered, ownChildren(garden.records))
  const layouter = new MapLayouter(garden.records, board, CONTEXT, undefined, shown)
  const told = () =>
    layouter.layout(null).boxes.map(({ topic, level, face }) => `${level} ${topic.text}${face.gathered ? ' *' : ''}`)
  // What hangs on the list stands there as it is; what is above it is gathered as anything else, and shows nothing below.
  expect(told().sort()).toEqual(
    ['0 Board', '1 Soon', '1 Later', '2 Call the mill', '2 Dipwells *', '2 Mowing *', '2 Board *'].sort(),
  )
  const boxes = layouter.layout(null).boxes
  for (const [i, a] of boxes.entries())
    for (const b of boxes.slice(i + 1))
      expect(a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height).toBe(false)
  const scene = buildScene(garden.records, board, CONTEXT, shown)
  expect(JSON.stringify(scene.connectors.map(({ drawing }) => drawing))).toContain('to-gathered')
  expect(layouter.layout(null).byKey.of(list)?.signs).toEqual([{ sign: 'gathers', count: 1 }])

  found = ['Mowing']
  stamp++
  expect(told()).not.toContain('2 Dipwells *')
  garden.do((r, m) => setText(r, { topic: garden.topic('Mowing'), text: 'Mowing the edge' }, m))
  found = ['Mowing the edge']
  stamp++
  expect(told()).toContain('2 Mowing the edge *')
})
