import Flatbush from 'flatbush'

/** Rectangles (left, top, right, bottom) by where they lie; at least one. */
export function indexOf(rectangles: readonly (readonly [number, number, number, number])[]): Flatbush {
  const index = new Flatbush(rectangles.length)
  for (const rectangle of rectangles) index.add(...rectangle)
  index.finish()
  return index
}
