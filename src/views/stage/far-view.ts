import type { Bounds, TopicBox } from '../../core/layout/boxes'
import { px } from '../../core/scene/drawing'
import { boxTone } from '../../core/scene/topic-drawing'

/** Below this scale words cannot be read: topics are drawn as bars. */
export const FAR = 0.3

export const inView = (box: Bounds, view: Bounds): boolean =>
  box.x < view.x + view.width &&
  view.x < box.x + box.width &&
  box.y < view.y + view.height &&
  view.y < box.y + box.height

/** Topics as bars, one path for each hue, so that thousands cost little. */
export function barsByHue(boxes: readonly TopicBox[]): Map<string, string> {
  const paths = new Map<string, string>()
  for (const box of boxes) {
    const bar = `M${px(box.x)} ${px(box.y + box.height * 0.2)}h${px(box.width)}v${px(box.height * 0.6)}h${px(-box.width)}z`
    const tone = boxTone(box)
    paths.set(tone, (paths.get(tone) ?? '') + bar)
  }
  return paths
}
