import type { Plate } from './atlas'

/**
 * The maps by way of which a cross-link is drawn, so that links between the same parts of the collection run together: from one
 * map up the home doorways to where the ways meet, and down to the other (hierarchical edge bundles: Holten 2006). Only the two
 * where their ways do not meet. O(levels).
 */
export function bundledWay(from: Plate, to: Plate, plateOf: (map: string) => Plate | undefined): Plate[] {
  const [up, down] = [wayUp(from, plateOf), wayUp(to, plateOf)]
  const meeting = up.findIndex((plate) => down.includes(plate))
  if (meeting < 0) return [from, to]
  return [...up.slice(0, meeting + 1), ...down.slice(0, down.indexOf(up[meeting]!)).reverse()]
}

function wayUp(plate: Plate, plateOf: (map: string) => Plate | undefined): Plate[] {
  const way: Plate[] = []
  for (let at: Plate | undefined = plate; at && !way.includes(at); at = plateOf(at.map.parentMap ?? '')) way.push(at)
  return way
}
