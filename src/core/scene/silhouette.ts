import { type Drawing, drawing, px } from './drawing'
import type { Scene } from './scene'
import { boxTone } from './topic-drawing'

/** How much of the height of a line of text its bar fills. */
const BAR = 0.62

/**
 * The true shape of a map, to be seen small: its connectors, and a bar for each line of text, in the hues of the map. Linear in
 * what is shown of it.
 */
export function silhouetteOf({ layout, connectors }: Scene): Drawing[] {
  const bars = layout.boxes.map((box) => {
    const name = `silhouette ${boxTone(box)}`
    if (!box.parent) {
      const { x, y, width, height } = box
      return drawing('rect', { class: name, x: px(x), y: px(y), width: px(width), height: px(height), rx: 6 })
    }
    const { style, text } = box
    const lines = Math.max(1, text.lines.length)
    const height = box.height / lines
    return drawing(
      'g',
      { class: name },
      Array.from({ length: lines }, (_, i) =>
        drawing('rect', {
          x: px(box.x + style.padX),
          y: px(box.y + i * height + (height * (1 - BAR)) / 2),
          width: px(Math.max(4, box.width - 2 * style.padX)),
          height: px(height * BAR),
          rx: 3,
        }),
      ),
    )
  })
  return [...connectors.map((connector) => connector.drawing), ...bars]
}
