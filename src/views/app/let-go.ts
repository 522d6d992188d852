import { type CollisionDetection, pointerWithin } from '@dnd-kit/core'
import { useEffect, useState } from 'react'

type DropTargets = Parameters<CollisionDetection>[0]

/**
 * What lies below the pointer while something is dragged, and where it is let go. What was last drawn is not asked for that: a quick
 * hand lets go before it is drawn anew.
 */
export class LetGo {
  private last: DropTargets | null = null
  private at: { x: number; y: number } | null = null

  readonly detect: CollisionDetection = (targets) => {
    this.last = targets
    return pointerWithin(targets)
  }

  readonly up = ({ clientX: x, clientY: y }: PointerEvent): void => {
    this.at = { x, y }
  }

  /** The id of what lies where the pointer was let go; null where nothing does. */
  under(): string | null {
    if (!this.last || !this.at) return null
    const droppableRects: DropTargets['droppableRects'] = new Map()
    for (const { id, node } of this.last.droppableContainers)
      if (node.current) droppableRects.set(id, node.current.getBoundingClientRect())
    const [first] = pointerWithin({ ...this.last, droppableRects, pointerCoordinates: this.at })
    return first ? String(first.id) : null
  }
}

export function useLetGo(): LetGo {
  const [letGo] = useState(() => new LetGo())
  useEffect(() => {
    window.addEventListener('pointerup', letGo.up, { capture: true })
    return () => window.removeEventListener('pointerup', letGo.up, { capture: true })
  }, [letGo])
  return letGo
}
