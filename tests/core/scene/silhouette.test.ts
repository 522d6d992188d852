import { expect, test } from 'vitest'
import { buildScene } from '../../../src/core/scene/scene'
import { silhouetteOf } from '../../../src/core/scene/silhouette'
import { CONTEXT, Garden } from '../gardens'

test('a silhouette has the shape of its map: a bar a line of text, each inside of its topic, and every connector', () => {
  const garden = new Garden()
  const map = garden.grow(
    'Root\n- One\n  - Under one\n- Two with so many words that they need more than a single line to stand',
  )
  const scene = buildScene(garden.records, map, CONTEXT)
  const parts = silhouetteOf(scene)
  expect(parts.slice(0, scene.connectors.length)).toEqual(scene.connectors.map(({ drawing }) => drawing))
  const shapes = parts.slice(scene.connectors.length)
  expect(shapes).toHaveLength(scene.layout.boxes.length)
  scene.layout.boxes.forEach((box, i) => {
    const bars = shapes[i]!.tag === 'g' ? shapes[i]!.children : [shapes[i]!]
    expect(bars).toHaveLength(box.parent ? box.text.lines.length : 1)
    for (const bar of bars) {
      if (typeof bar === 'string') throw new Error('A bar is no text.')
      const { x, y, width, height } = bar.attributes as Record<string, number>
      expect(x).toBeGreaterThanOrEqual(box.x)
      expect(x! + width!).toBeLessThanOrEqual(box.x + box.width + 0.01)
      expect(y).toBeGreaterThanOrEqual(box.y)
      expect(y! + height!).toBeLessThanOrEqual(box.y + box.height + 0.01)
    }
  })
})
