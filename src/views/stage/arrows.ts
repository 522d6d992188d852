import type { MapLayout, TopicBox } from '../../core/layout/boxes'
import type { TopicId } from '../../core/records/ids'

const centre = (box: TopicBox) => ({ x: box.x + box.width / 2, y: box.y + box.height / 2 })

/**
 * The topic to which an arrow leads: the nearest one in that direction, where being off to the side counts double.
 * Left and right follow the branch first: towards the parent, or to the child that is nearest in height.
 */
export function topicTowards(
  layout: MapLayout,
  from: TopicId,
  key: 'ArrowUp' | 'ArrowDown' | 'ArrowLeft' | 'ArrowRight',
): TopicId | null {
  const start = layout.byKey.of(from)
  if (!start) return null
  const here = centre(start)
  if (key === 'ArrowLeft' || key === 'ArrowRight') {
    const towards = key === 'ArrowLeft' ? -1 : 1
    const along = layout.boxes.filter(
      (box) => (box.parent === start || box === start.parent) && (centre(box).x - here.x) * towards > 0,
    )
    return nearest(along, (box) => Math.abs(centre(box).y - here.y))
  }
  const down = key === 'ArrowDown' ? 1 : -1
  const candidates = layout.boxes.filter((box) => box !== start && (centre(box).y - here.y) * down > 1)
  return nearest(candidates, (box) => {
    const apart = Math.max(0, box.x - (start.x + start.width), start.x - (box.x + box.width))
    return Math.abs(centre(box).y - here.y) + apart * 2 + Math.abs(centre(box).x - here.x) / 50
  })
}

function nearest(boxes: readonly TopicBox[], distance: (box: TopicBox) => number): TopicId | null {
  let best: TopicBox | null = null
  let least = Number.POSITIVE_INFINITY
  for (const box of boxes) {
    const far = distance(box)
    if (far < least) {
      least = far
      best = box
    }
  }
  return best?.topic.id ?? null
}
