import type { OutlineItem } from '../../core/formats/outline'

/** A proposed topic in the list, where it can be reworded and left out. */
export interface Line {
  item: OutlineItem
  level: number
  text: string
  taken: boolean
}

/** A proposal line by line, all of it taken. */
export function linesOf(items: readonly OutlineItem[], level = 0): Line[] {
  return items.flatMap((item) => [{ item, level, text: item.text, taken: true }, ...linesOf(item.children, level + 1)])
}

/** What is left of the proposal: what is not taken leaves with all below it. */
export function chosenOf(lines: readonly Line[]): OutlineItem[] {
  const items: OutlineItem[] = []
  const way: OutlineItem[] = []
  let without = Number.POSITIVE_INFINITY
  for (const { item, level, text, taken } of lines) {
    if (level > without) continue
    without = taken && text.trim() !== '' ? Number.POSITIVE_INFINITY : level
    if (without === level) continue
    const kept = { ...item, text: text.trim(), children: [] }
    way.length = level
    const above = way.at(-1)
    if (above) above.children.push(kept)
    else items.push(kept)
    way.push(kept)
  }
  return items
}
