import type { Bounds } from '../../core/layout/boxes'

export const inView = (box: Bounds, view: Bounds): boolean =>
  box.x < view.x + view.width &&
  view.x < box.x + box.width &&
  box.y < view.y + view.height &&
  view.y < box.y + box.height

/** Edges of many boxes in one array, so that looking through ten thousand of them costs next to nothing. */
class Edges<Item> {
  private readonly edges: Float64Array

  constructor(
    private readonly items: readonly Item[],
    boundsOf: (item: Item) => Bounds,
  ) {
    this.edges = new Float64Array(items.length * 4)
    items.forEach((item, i) => {
      const { x, y, width, height } = boundsOf(item)
      this.edges[i * 4] = x
      this.edges[i * 4 + 1] = y
      this.edges[i * 4 + 2] = x + width
      this.edges[i * 4 + 3] = y + height
    })
  }

  within({ x, y, width, height }: Bounds): Item[] {
    const { edges, items } = this
    const [right, bottom] = [x + width, y + height]
    const found: Item[] = []
    for (let i = 0; i < items.length; i++) {
      const at = i * 4
      if (edges[at]! < right && x < edges[at + 2]! && edges[at + 1]! < bottom && y < edges[at + 3]!)
        found.push(items[i]!)
    }
    return found
  }
}

const known = new WeakMap<readonly object[], Edges<never>>()

/** Those of many items that touch a part of the map. The edges are kept as long as the array of items is. */
export function within<Item extends object>(
  items: readonly Item[],
  view: Bounds,
  boundsOf: (item: Item) => Bounds,
): Item[] {
  let edges = known.get(items) as Edges<Item> | undefined
  if (!edges) known.set(items, (edges = new Edges(items, boundsOf)) as Edges<never>)
  return edges.within(view)
}
