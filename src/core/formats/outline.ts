/** What every format that is read becomes before it turns into topics: a tree without ids. */
export interface OutlineItem {
  text: string
  /** CommonMark. Empty where there is none. */
  note: string
  /** Addresses as written in the source, absolute or relative to it. */
  links: OutlineLink[]
  /** Addresses that the note links to, as written in the source. */
  noteLinks: string[]
  /** Names that its place on the page has beside its words; left out where there are none. */
  anchors?: string[]
  children: OutlineItem[]
}

export interface OutlineLink {
  address: string
  title: string
}

export const outlineItem = (text: string): OutlineItem => ({ text, note: '', links: [], noteLinks: [], children: [] })

export const countItems = (items: readonly OutlineItem[]): number => {
  let count = 0
  const waiting = [...items]
  for (let item = waiting.pop(); item; item = waiting.pop()) {
    count++
    waiting.push(...item.children)
  }
  return count
}

/** An item and all below it, with how deep each stands. Linear. */
export function inReadingOrder(top: OutlineItem): { item: OutlineItem; level: number }[] {
  const found: { item: OutlineItem; level: number }[] = []
  const waiting = [{ item: top, level: 0 }]
  for (let next = waiting.pop(); next; next = waiting.pop()) {
    found.push(next)
    const { children } = next.item
    for (let i = children.length - 1; i >= 0; i--) waiting.push({ item: children[i]!, level: next.level + 1 })
  }
  return found
}
