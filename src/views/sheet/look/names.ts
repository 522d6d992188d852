import type { ConnectorForm, LookFont, TopicShape } from '../../../core/records/look'

/** The parts of a look as people read them. */
export const SHAPE_NAMES: Record<TopicShape, string> = {
  bar: 'a bar at the side',
  slab: 'a dark slab',
  block: 'a block in its hue',
  card: 'a card',
  frame: 'a frame',
  pill: 'a pill',
  rule: 'a line beneath',
  sketch: 'a frame drawn by hand',
  bare: 'nothing',
}
export const CONNECTOR_NAMES: Record<ConnectorForm, string> = {
  spine: 'a spine',
  curve: 'curves',
  straight: 'straight lines',
  sketch: 'lines drawn by hand',
}
export const FONT_NAMES: Record<LookFont, string> = { plain: 'Plain', reading: 'Reading', hand: 'Hand' }
