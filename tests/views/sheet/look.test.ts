import { expect, test } from 'vitest'
import { layoutMap } from '../../../src/core/layout/map-layout'
import { ConnectorForm, LookFont, PLAIN_MAP_LOOK, TopicShape, WholeLook } from '../../../src/core/records/look'
import { CONNECTOR_NAMES, FONT_NAMES, SHAPE_NAMES } from '../../../src/views/sheet/look/names'
import { sampleMap } from '../../../src/views/sheet/look/sample-map'
import { CONTEXT } from '../../core/gardens'
import { overlaps } from '../../core/layout/forests'

test('every part of a look has a name of its own', () => {
  for (const [names, options] of [
    [SHAPE_NAMES, TopicShape.options],
    [CONNECTOR_NAMES, ConnectorForm.options],
    [FONT_NAMES, LookFont.options],
  ] as const) {
    expect(Object.keys(names).sort()).toEqual([...options].sort())
    expect(new Set(Object.values(names)).size).toBe(options.length)
  }
})

test.each(WholeLook.options)('the look %s is shown on a small map in which nothing overlaps', (whole) => {
  const { records, map } = sampleMap({ ...PLAIN_MAP_LOOK, whole })
  const layout = layoutMap(records, map, CONTEXT)
  expect(layout.boxes.map(({ topic }) => topic.text)).toEqual(['Bog', 'Water', 'Dams', 'Wells', 'Peat'])
  expect(overlaps(layout)).toEqual([])
})
