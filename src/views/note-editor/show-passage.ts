import type { TopicId } from '../../core/records/ids'
import { findPassage } from '../../core/text/passage'
import { useWorkspace, workspace } from '../workspace/workspace-store'

/** A note may take so long to come, in ms; its words are marked for so long. */
const [PATIENCE_MS, MARKED_MS] = [6_000, 5_000]
const MARK = 'folvet-passage'

let asked = 0
let unmark: ReturnType<typeof setTimeout> | undefined

/** Brings words of the note of a topic into view, in the sheet or on the page, and marks them for a moment. */
export function showPassage(topic: TopicId, words: string): void {
  const { panes, active, sections } = useWorkspace.getState()
  if (panes[active]?.face !== 'page') {
    // Seen, not written in: the keyboard stays on the map.
    workspace.openSheet(true)
    workspace.unfoldSections([...new Set([...sections, 'note' as const])])
  }
  const request = ++asked
  const until = performance.now() + PATIENCE_MS
  const look = () => {
    if (request !== asked || performance.now() > until) return
    const range = rangeOf(topic, words)
    if (range) mark(range)
    // The note is on its way still.
    else setTimeout(look, 100)
  }
  look()
}

/** Where the words stand in what is shown of the note. */
function rangeOf(topic: string, words: string): Range | null {
  for (const root of document.querySelectorAll(`[data-note-of="${topic}"]`)) {
    const walker = document.createTreeWalker(root, NodeFilter.SHOW_TEXT)
    const nodes: Text[] = []
    for (let node = walker.nextNode(); node; node = walker.nextNode())
      if (!node.parentElement?.closest('[role="toolbar"], button')) nodes.push(node as Text)
    let text = ''
    const starts = nodes.map((node, i) => {
      // Words of two paragraphs are two words.
      if (i > 0 && node.parentElement !== nodes[i - 1]!.parentElement) text += ' '
      const start = text.length
      text += node.data
      return start
    })
    const span = findPassage(text, words)
    if (!span) continue
    const at = (place: number) => {
      const i = starts.findLastIndex((start) => start <= place)
      return [nodes[i]!, Math.min(place - starts[i]!, nodes[i]!.length)] as const
    }
    const range = document.createRange()
    range.setStart(...at(span.from))
    range.setEnd(...at(span.to))
    return range
  }
  return null
}

function mark(range: Range): void {
  range.startContainer.parentElement?.scrollIntoView({ block: 'center' })
  if (!('highlights' in CSS)) return
  CSS.highlights.set(MARK, new Highlight(range))
  clearTimeout(unmark)
  unmark = setTimeout(() => CSS.highlights.delete(MARK), MARKED_MS)
}
