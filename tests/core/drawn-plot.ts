import type { MapLayout, TopicBox } from '../../src/core/layout/boxes'
import { layoutMap } from '../../src/core/layout/map-layout'
import { toMarkup } from '../../src/core/scene/drawing'
import { drawTopic } from '../../src/core/scene/topic-drawing'
import { CONTEXT, plot } from './gardens'

/** The same with how it is laid out and drawn at each moment; pictures are told by file and width. */
export function drawnPlot() {
  const { garden, map } = plot()
  const layout = (): MapLayout => layoutMap(garden.records, map, CONTEXT)
  const box = (text: string): TopicBox => layout().byKey.get(garden.topic(text))!
  const pictureAddress = (file: string, width: number) => `/pictures/${file}?${Math.round(width)}`
  const markup = (text: string): string =>
    drawTopic(box(text), { ...CONTEXT, pictureAddress })
      .map(toMarkup)
      .join('')
  return { garden, map, layout, box, markup }
}
