import { type CollisionDetection, pointerWithin } from '@dnd-kit/core'
import { useEffect, useState } from 'react'

type DropTargets = Parameters<CollisionDetection>[0]

/**
 * What lies below the pointer while something is dragged, and where it is let go. What was last drawn is not asked for that: a quick
 * hand lets go before it is drawn anew.
 */
export class DropTarget {
  private last: DropTargets | null = null
  private letGo: { x: number; y: number } | null = null

  readonly detect: CollisionDetection = (targets) => {
    this.last = targets
    return pointerWithin(targets)
  }

  readonly up = ({ clientX: x, clientY: y }: PointerEvent): void => {
    this.letGo = { x, y }
  }

  /** The id of what lies where the pointer was let go; null where nothing does. */
  under(): string | null {
    if (!this.last || !this.letGo) return null
    const droppableRects: DropTargets['droppableRects'] = new Map()
    for (const { id, node } of this.last.droppableContainers)
      if (node.current) droppableRects.set(id, node.current.getBoundingClientRect())
    const [first] = pointerWithin({ ...this.last, droppableRects, pointerCoordinates: this.letGo })
    return first ? String(first.id) : null
  }
}

export function useDropTarget(): DropTarget {
  const [target] = useState(() => new DropTarget())
  useEffect(() => {
    window.addEventListener('pointerup', target.up, { capture: true })
    return () => window.removeEventListener('pointerup', target.up, { capture: true })
  }, [target])
  return target
}
