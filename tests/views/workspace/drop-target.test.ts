import { describe, expect, test } from 'vitest'
import { setMapLayout } from '../../../src/core/commands/layouts'
import { layoutMap } from '../../../src/core/layout/map-layout'
import type { TopicId } from '../../../src/core/records/ids'
import { topicTowards } from '../../../src/views/stage/arrows'
import { boxAt, byTone } from '../../../src/views/stage/far-view'
import { within } from '../../../src/views/stage/in-view'
import { dropTargetAt } from '../../../src/views/workspace/drop-target'
import { CONTEXT, Garden } from '../../core/gardens'

function planted() {
  const garden = new Garden()
  const map = garden.grow('Garden\nSpring\n  Sow peas\n  Prune\n  Weed\nSummer\n  Pick beans')
  garden.do((records, newIds) => setMapLayout(records, { map, layout: 'right' }, newIds))
  const layout = layoutMap(garden.records, map, CONTEXT)
  return { garden, layout, boxOf: (text: string) => layout.byKey.get(garden.topic(text))! }
}

describe('where a dragged branch would hang', () => {
  const { garden, layout, boxOf } = planted()
  const at = (text: string, part: number, moving: string[]) => {
    const box = boxOf(text)
    const ids: TopicId[] = moving.map((name) => garden.topic(name))
    return dropTargetAt(garden.records, layout, box.x + box.width / 2, box.y + box.height * part, ids)
  }

  test('is before, into or after a topic, told in words', () => {
    expect(at('Prune', 0.1, ['Summer'])).toMatchObject({
      zone: 'before',
      parent: garden.topic('Spring'),
      after: garden.topic('Sow peas'),
      words: 'becomes a child of Spring, second',
    })
    expect(at('Prune', 0.5, ['Summer'])).toMatchObject({ zone: 'into', words: 'becomes a child of Prune, first' })
    expect(at('Weed', 0.9, ['Summer'])).toMatchObject({
      zone: 'after',
      after: garden.topic('Weed'),
      words: 'becomes a child of Spring, fourth',
    })
    expect(at('Sow peas', 0.1, ['Summer'])).toMatchObject({ after: null, words: 'becomes a child of Spring, first' })
  })

  test('is between two siblings all along their gap, however wide, and outside of it on no topic', () => {
    const [spring, summer] = [boxOf('Spring'), boxOf('Summer')]
    const middle = { x: spring.x + spring.width / 2, y: (spring.y + spring.height + summer.y) / 2 }
    const drop = (x: number, y: number, moving: string) =>
      dropTargetAt(garden.records, layout, x, y, [garden.topic(moving)])
    const between = { zone: 'after', after: garden.topic('Spring'), words: 'becomes a child of Garden, second' }
    expect(drop(middle.x, middle.y, 'Prune')).toMatchObject(between)
    expect(drop(middle.x, spring.y + spring.height + 6, 'Prune')).toMatchObject(between)
    const [sow, prune] = [boxOf('Sow peas'), boxOf('Prune')]
    expect(drop(sow.x + 4, (sow.y + sow.height + prune.y) / 2, 'Summer')).toMatchObject({
      words: 'becomes a child of Spring, second',
    })
    // Far aside of both, and beside what is being dragged, is no gap of theirs.
    expect(drop(spring.x + 600, middle.y, 'Prune')).toBeNull()
    expect(drop(middle.x, middle.y, 'Spring')).toBeNull()
  })

  test('does not count the branch itself', () => {
    expect(at('Weed', 0.9, ['Sow peas'])?.words).toBe('becomes a child of Spring, third')
    expect(at('Spring', 0.5, ['Sow peas'])?.words).toBe('becomes a child of Spring, third')
  })

  test('at the root says on which side', () => {
    const { x, y, height } = boxOf('Garden')
    expect(dropTargetAt(garden.records, layout, x + 2, y + height / 2, [garden.topic('Prune')])).toMatchObject({
      side: 'left',
      words: 'becomes a child of Garden, third, on the left',
    })
  })

  test('is nowhere on the branch itself, below it, or on the empty surface', () => {
    expect(at('Spring', 0.5, ['Spring'])).toBeNull()
    expect(at('Prune', 0.5, ['Spring'])).toBeNull()
    expect(dropTargetAt(garden.records, layout, 5_000, 5_000, [garden.topic('Prune')])).toBeNull()
  })
})

describe('where an arrow leads', () => {
  const { garden, layout } = planted()
  const towards = (from: string, key: 'ArrowUp' | 'ArrowDown' | 'ArrowLeft' | 'ArrowRight') => {
    const to = topicTowards(layout, garden.topic(from), key)
    return to && garden.records.need('topic', to).text
  }

  test('along the branch to the child that is nearest in height, and back to the parent', () => {
    expect(towards('Spring', 'ArrowRight')).toBe('Prune')
    expect(towards('Prune', 'ArrowLeft')).toBe('Spring')
    expect(towards('Pick beans', 'ArrowRight')).toBeNull()
  })

  test('up and down to the nearest topic, beside before far aside', () => {
    expect(towards('Sow peas', 'ArrowDown')).toBe('Prune')
    expect(towards('Weed', 'ArrowUp')).toBe('Prune')
    expect(towards('Spring', 'ArrowDown')).toBe('Summer')
    expect(towards('Sow peas', 'ArrowUp')).toBeNull()
  })

  test('nowhere from a topic that is not shown', () => {
    expect(topicTowards(layout, 'nowhere' as TopicId, 'ArrowUp')).toBeNull()
  })
})

describe('the far view', () => {
  test('takes what touches the visible part, and draws each tone at once', () => {
    const { layout, boxOf } = planted()
    const { x, y, width, height } = boxOf('Prune')
    expect(within(layout.boxes, { x: x + 1, y: y + 1, width: width - 2, height: height - 2 }, (box) => box)).toEqual([
      boxOf('Prune'),
    ])
    const bars = byTone(layout.boxes)
    expect([...bars.keys()].sort()).toEqual(['root-tone', 'spruce-0', 'spruce-1'])
    expect(bars.get('spruce-0')).toHaveLength(4)
  })

  test('finds the topic at a point, or the nearest within reach', () => {
    const { layout, boxOf } = planted()
    const box = boxOf('Prune')
    expect(boxAt(layout.boxes, box.x + 3, box.y + 3, 6)).toBe(box)
    expect(boxAt(layout.boxes, box.x + box.width + 4, box.y + 3, 6)).toBe(box)
    expect(boxAt(layout.boxes, box.x + box.width + 40, box.y + 3, 6)).toBeNull()
  })
})
