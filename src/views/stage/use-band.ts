import { type PointerEvent as ReactPointerEvent, useCallback, useRef, useState } from 'react'
import type { MapLayout } from '../../core/layout/boxes'
import { workspace } from '../workspace/workspace-store'
import { inView } from './in-view'

interface Shown {
  left: number
  top: number
  width: number
  height: number
}

/** Selecting with a band: Shift and drag over the empty surface selects every topic that the band touches. */
export function useBand(
  index: number,
  layout: MapLayout,
  pointAt: (event: { clientX: number; clientY: number }) => { x: number; y: number },
) {
  const [shown, setShown] = useState<Shown | null>(null)
  const current = useRef(layout)
  current.current = layout
  const begin = useCallback(
    (event: ReactPointerEvent) => {
      const start = { clientX: event.clientX, clientY: event.clientY }
      const { left, top } = event.currentTarget.getBoundingClientRect()
      const from = pointAt(start)
      const move = (moved: PointerEvent) => {
        const to = pointAt(moved)
        const area = {
          x: Math.min(from.x, to.x),
          y: Math.min(from.y, to.y),
          width: Math.abs(to.x - from.x),
          height: Math.abs(to.y - from.y),
        }
        setShown({
          left: Math.min(start.clientX, moved.clientX) - left,
          top: Math.min(start.clientY, moved.clientY) - top,
          width: Math.abs(moved.clientX - start.clientX),
          height: Math.abs(moved.clientY - start.clientY),
        })
        const touched = current.current.boxes.filter((box) => inView(box, area))
        workspace.select(
          index,
          touched.map((box) => box.topic.id),
        )
      }
      const end = () => {
        window.removeEventListener('pointermove', move)
        window.removeEventListener('pointerup', end)
        window.removeEventListener('pointercancel', end)
        setShown(null)
      }
      window.addEventListener('pointermove', move)
      window.addEventListener('pointerup', end)
      window.addEventListener('pointercancel', end)
    },
    [index, pointAt],
  )
  return { begin, shown }
}
