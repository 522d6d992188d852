import type { TopicBox } from '../layout/boxes'
import { toMarkup } from './drawing'
import type { Scene } from './scene'
import { type DrawingContext, drawTopic } from './topic-drawing'

/** A scene as SVG markup, from the back to the front, with every text escaped. `around` puts a topic into what it needs there. */
export function sceneMarkup(
  { layout, enclosures, connectors, crosslinks }: Scene,
  context: DrawingContext,
  around: (box: TopicBox, markup: string) => string = (_, markup) => markup,
): string {
  const behind = [...enclosures, ...connectors].map(({ drawing }) => toMarkup(drawing)).join('')
  const topics = layout.boxes.map((box) => around(box, drawTopic(box, context).map(toMarkup).join(''))).join('')
  return behind + topics + crosslinks.map(({ drawing }) => toMarkup(drawing)).join('')
}
