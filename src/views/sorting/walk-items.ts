import { foldForFinding } from '../../core/text/folding'

/** Letters that are typed sooner than this after one another search for one text, in ms. */
const TOGETHER_MS = 900

const itemsIn = (room: HTMLElement | null): HTMLElement[] => [
  ...(room?.querySelectorAll<HTMLElement>('[data-item]') ?? []),
]

/** After an item was sent away, the one behind it has the keyboard. */
export function focusNext(room: HTMLElement | null, from: string | null): void {
  const all = itemsIn(room)
  const at = all.findIndex((item) => item.dataset.item === from)
  if (at >= 0) (all[at + 1] ?? all[at - 1])?.focus()
}

/** From item to item with the arrow keys: left and right in order, up and down to the nearest in that direction. */
export function step(room: HTMLElement | null, from: string, key: string): void {
  const all = itemsIn(room)
  const at = all.findIndex((item) => item.dataset.item === from)
  if (key === 'ArrowRight' || key === 'ArrowLeft') {
    all[at + (key === 'ArrowRight' ? 1 : -1)]?.focus()
    return
  }
  const here = all[at]!.getBoundingClientRect()
  const down = key === 'ArrowDown'
  let best: HTMLElement | null = null
  let least = Number.POSITIVE_INFINITY
  for (const item of all) {
    const there = item.getBoundingClientRect()
    const away = down ? there.top - here.bottom : here.top - there.bottom
    if (away < -1) continue
    const distance = away * 4 + Math.abs(there.left - here.left)
    if (distance < least) [best, least] = [item, distance]
  }
  best?.focus()
}

/** Goes to the first item in which what is typed stands: letters that follow one another soon are one word. */
export class TypedSearch {
  private words = ''
  private at = Number.NEGATIVE_INFINITY

  type(letter: string, items: readonly { id: string; text: string }[], room: HTMLElement | null): void {
    const now = performance.now()
    this.words = now - this.at < TOGETHER_MS ? this.words + letter : letter
    this.at = now
    const wanted = foldForFinding(this.words)
    const found = items.find(({ text }) => foldForFinding(text).includes(wanted))
    if (found) room?.querySelector<HTMLElement>(`[data-item="${found.id}"]`)?.focus()
  }
}
