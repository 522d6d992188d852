import { create } from 'zustand'

/** Words for who does not see the screen; the number tells one from the same words said again. */
export const useAnnounced = create<{ words: string; count: number }>(() => ({ words: '', count: 0 }))

/** So long words are gathered before they are said together, in ms: what one act does is one sentence. */
const TOGETHER_MS = 150

let waiting: string[] = []
let timer: ReturnType<typeof setTimeout> | undefined

/** Tells what has happened, in few words and in the order in which it happened, to whoever has the screen read out. */
export function announce(words: string): void {
  if (waiting.at(-1) !== words) waiting.push(words)
  clearTimeout(timer)
  timer = setTimeout(() => {
    const said = waiting.join('. ')
    waiting = []
    useAnnounced.setState(({ count }) => ({ words: said, count: count + 1 }))
  }, TOGETHER_MS)
}
