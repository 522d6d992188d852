import { type PointerEvent as ReactPointerEvent, type RefObject, useCallback, useMemo, useRef, useState } from 'react'
import { moveTopics } from '../../core/commands/move-topics'
import type { MapLayout, TopicBox } from '../../core/layout/map-layout'
import type { TopicId } from '../../core/records/ids'
import { isRoot } from '../../core/records/topic'
import type { CollectionSession } from '../sync/collection-session'
import { situationOf } from '../workspace/situation'
import { type DropTarget, dropTargetAt } from './drop-target'

/** How far the pointer moves before a press becomes a drag, in px. */
const THRESHOLD = 5

interface Setting {
  session: CollectionSession
  index: number
  layout: MapLayout
  pointAt(event: { clientX: number; clientY: number }): { x: number; y: number }
  container: RefObject<HTMLDivElement | null>
}

/** Dragging of the selected branches onto other topics, with the target said while it is under the pointer. */
export function useDrag(setting: Setting) {
  const current = useRef(setting)
  current.current = setting
  const [state, setState] = useState<{ at: { x: number; y: number }; target: DropTarget | null } | null>(null)
  const stop = useRef<(() => void) | null>(null)

  const begin = useCallback((event: ReactPointerEvent, pressed: TopicBox) => {
    const { session, index } = current.current
    if (!session.mayEdit || isRoot(pressed.topic)) return
    const start = { x: event.clientX, y: event.clientY }
    let moving: TopicId[] | null = null
    let target: DropTarget | null = null
    const move = (moved: PointerEvent) => {
      if (!moving && Math.hypot(moved.clientX - start.x, moved.clientY - start.y) < THRESHOLD) return
      moving ??= situationOf(session, index)
        .topics.filter((topic) => !isRoot(topic))
        .map(({ id }) => id)
      const { layout, pointAt, container } = current.current
      const point = pointAt(moved)
      target = dropTargetAt(session.records, layout, point.x, point.y, moving)
      const { left, top } = container.current!.getBoundingClientRect()
      setState({ at: { x: moved.clientX - left, y: moved.clientY - top }, target })
    }
    const end = () => {
      window.removeEventListener('pointermove', move)
      window.removeEventListener('pointerup', drop)
      window.removeEventListener('pointercancel', end)
      stop.current = null
      setState(null)
    }
    const drop = () => {
      const [topics, to] = [moving, target]
      end()
      if (topics && to)
        session.run((records, making) =>
          moveTopics(records, { topics, parent: to.parent, after: to.after, side: to.side }, making),
        )
    }
    window.addEventListener('pointermove', move)
    window.addEventListener('pointerup', drop)
    window.addEventListener('pointercancel', end)
    stop.current = end
  }, [])

  const giveUp = useCallback(() => stop.current?.(), [])
  return useMemo(
    () => ({ begin, giveUp, isDragging: state !== null, at: state?.at ?? null, target: state?.target ?? null }),
    [begin, giveUp, state],
  )
}
