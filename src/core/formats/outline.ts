/** What every format that is read becomes before it turns into topics: a tree without ids. */
export interface OutlineItem {
  text: string
  /** CommonMark. Empty where there is none. */
  note: string
  /** Addresses as written in the source, absolute or relative to it. */
  links: OutlineLink[]
  /** Addresses that the note links to, as written in the source. */
  noteLinks: string[]
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
