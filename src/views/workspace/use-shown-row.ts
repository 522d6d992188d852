import { type RefObject, useEffect, useRef } from 'react'
import type { TopicId } from '../../core/records/ids'
import { takeFocus } from './take-focus'
import type { Pane } from './workspace-store'

/**
 * Brings the topic that was selected last, here or elsewhere, into view in a face made of rows, once for each topic and each
 * request to show it, and the keyboard with a request. `rowOf` is negative for a topic without a row. Returns what tells that a
 * topic has been brought into view already.
 */
export function useShownRow(
  pane: Pane,
  face: RefObject<HTMLElement | null>,
  rowOf: (topic: TopicId) => number,
  scrollTo: (row: number) => void,
): (topic: TopicId) => void {
  const shown = useRef('')
  const last = pane.selected.at(-1)
  const request = pane.show?.request
  const keyOf = (topic: TopicId) => `${topic} ${request}`
  useEffect(() => {
    if (!last || shown.current === keyOf(last)) return
    const row = rowOf(last)
    if (row < 0) return
    shown.current = keyOf(last)
    scrollTo(row)
  })
  // biome-ignore lint/correctness/useExhaustiveDependencies: each request to show something brings the keyboard here.
  useEffect(() => takeFocus(face.current), [request])
  return (topic) => {
    shown.current = keyOf(topic)
  }
}
