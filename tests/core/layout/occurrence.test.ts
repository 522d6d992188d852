import { expect, test } from 'vitest'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { encloseTopics } from '../../../src/core/commands/enclosures'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { MapLayouter } from '../../../src/core/layout/map-layout'
import { ownChildren, type ShownChildren } from '../../../src/core/layout/occurrence'
import type { Records } from '../../../src/core/records/records'
import { SceneMaker } from '../../../src/core/scene/scene'
import { CONTEXT, Garden } from '../gardens'
import { overlaps } from './forests'

/** Child maps unfolded in place, and a list of topics that hang elsewhere below the topic called "Seen to today". */
function unfolding(records: Records, listed: readonly string[]): ShownChildren {
  const own = ownChildren(records)
  const stampOfAll = () =>
    [...records.all('map')].reduce((sum, map) => sum + records.stampOf(records.root(map.id)?.id ?? ''), 0)
  return {
    below(at) {
      const { topic } = at
      if (topic.text === 'Seen to today') return listed.map((id) => records.need('topic', id as typeof topic.id))
      const child = topic.opensMap && records.root(topic.opensMap)
      return child ? records.children(child.id) : own.below(at)
    },
    stamp: stampOfAll,
  }
}

function made() {
  const garden = new Garden()
  const map = garden.grow('Garden\n\tBeds\n\t\tPeas\n\t\t\tSow\n\t\t\tPick\n\t\tBeans\n\tSeen to today\n\tShed')
  garden.do((r, n) => splitOff(r, { topic: garden.topic('Beds') }, n))
  const listed = [garden.topic('Peas'), garden.topic('Sow')]
  garden.do((r, n) =>
    addCrosslink(r, { from: listed[1]!, to: { kind: 'topic', id: garden.topic('Beans') }, drawn: 'line' }, n),
  )
  garden.do((r, n) => encloseTopics(r, { topics: [garden.topic('Sow'), garden.topic('Pick')], title: 'By hand' }, n))
  const layouter = new MapLayouter(garden.records, map, CONTEXT, undefined, unfolding(garden.records, listed))
  return { garden, map, listed, layouter }
}

test('a topic is shown as often as the provider of children says, each time with a key of its own', () => {
  const { garden, listed, layouter } = made()
  const layout = layouter.layout(null)
  const [peas, sow] = [listed[0]!, listed[1]!]
  const [beds, list] = [garden.topic('Beds'), garden.topic('Seen to today')]
  expect(layout.boxes.map(({ topic }) => topic.text)).toEqual([
    'Garden',
    'Beds',
    'Peas',
    'Sow',
    'Pick',
    'Beans',
    'Seen to today',
    'Peas',
    'Sow',
    'Pick',
    'Sow',
    'Shed',
  ])
  expect(new Set(layout.boxes.map(({ key }) => key)).size).toBe(layout.boxes.length)
  // Below the doorway, below the listed peas, and in the list by itself.
  expect(layout.byKey.showing(sow).map(({ key }) => key)).toEqual([
    `${beds}>${peas}/${sow}`,
    `${list}>${peas}/${sow}`,
    `${list}>${sow}`,
  ])
  expect(layout.byKey.get(`${list}>${peas}/${sow}`)!.parent).toBe(layout.byKey.get(`${list}>${peas}`))
  expect(layout.byKey.get(list)).toBe(layout.byKey.of(list))
  expect(layout.byKey.get(peas)).toBeUndefined()
  expect(overlaps(layout)).toEqual([])
  // What hangs on one of them is drawn at each place, under a key of its own: lines, frames, connectors.
  const scene = new SceneMaker(garden.records, CONTEXT, layouter).make(null)
  for (const drawn of [scene.crosslinks, scene.enclosures.map(({ box }) => box)]) {
    expect(drawn.length).toBe(3)
    expect(new Set(drawn.map(({ key }) => key)).size).toBe(3)
  }
  const connectors = scene.connectors.map(({ key }) => key)
  expect(new Set(connectors).size).toBe(connectors.length)
})

test('a change is seen at every place where its topic is shown, as if all were laid out anew', () => {
  const { garden, map, listed, layouter } = made()
  const pick = garden.topic('Pick')
  const before = layouter.layout(null)
  garden.do((r, n) => setText(r, { topic: pick, text: 'Pick while they are small and sweet' }, n))
  const after = layouter.layout(null)
  const anew = new MapLayouter(garden.records, map, CONTEXT, undefined, unfolding(garden.records, listed)).layout(null)
  const standing = ({ boxes }: typeof after) => boxes.map(({ key, x, y, face }) => ({ key, x, y, width: face.width }))
  expect(standing(after)).toEqual(standing(anew))
  expect(after.byKey.showing(pick).length).toBe(2)
  for (const box of after.byKey.showing(pick)) expect(box.width).toBeGreaterThan(before.byKey.get(box.key)!.width)
  expect(after.byKey.of(garden.topic('Garden'))).toBe(before.byKey.of(garden.topic('Garden')))
})
