import { type PointerEvent, useEffect, useRef } from 'react'
import type { Command } from '../../sync/trial'
import { useSessionHandle } from '../../sync/use-session'

/**
 * Shows on the map what a choice would do while the pointer is moved over it. What comes to lie below a pointer that rests, as where a
 * section unfolds, was not pointed at.
 */
export function usePreviews() {
  const session = useSessionHandle()
  const over = useRef<Element | null>(null)
  useEffect(() => () => session.preview(null), [session])
  return {
    /** For each choice. */
    move: (command: Command) => (event: PointerEvent) => {
      const { currentTarget, movementX, movementY } = event
      if (over.current === currentTarget || (movementX === 0 && movementY === 0)) return
      over.current = currentTarget
      session.preview(command)
    },
    /** For what holds the choices. */
    leave: () => {
      over.current = null
      session.preview(null)
    },
  }
}
