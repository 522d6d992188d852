import { select } from 'd3-selection'
import { type D3ZoomEvent, type ZoomBehavior, zoom, zoomIdentity } from 'd3-zoom'
import { type RefObject, useCallback, useEffect, useRef, useState } from 'react'
import type { Bounds } from '../../core/layout/boxes'

const [LEAST, MOST] = [0.02, 3]
const STEP = 1.3
/** Room around what is fitted into the view, in px. */
const MARGIN = 32
/** How much around the visible part is shown ahead, as a part of its size. */
const AHEAD = 0.5

/** What is seen: the part that is put into the page, in units of the sheet, and how large they are. */
export interface Seen {
  part: Bounds
  k: number
}

/**
 * Pan and zoom of a sheet within a frame, by hand, wheel and keys. The sheet is moved as a whole with each step; `seen` changes
 * only when what is visible leaves what is in the page.
 */
export function usePanZoom(
  frame: RefObject<HTMLElement | null>,
  sheet: RefObject<HTMLElement | null>,
  size: { width: number; height: number },
) {
  const [seen, setSeen] = useState<Seen | null>(null)
  const behavior = useRef<ZoomBehavior<HTMLElement, unknown> | null>(null)
  /** Whether a person has moved it: until then all of it is kept in view. */
  const isMoved = useRef(false)
  const { width, height } = size

  const show = useCallback(
    (to: Bounds) => {
      const element = frame.current
      if (!element || !behavior.current) return
      const [across, down] = [element.clientWidth - 2 * MARGIN, element.clientHeight - 2 * MARGIN]
      const k = Math.min(1, Math.max(LEAST, Math.min(across / to.width, down / to.height)))
      const x = Math.max(MARGIN, (element.clientWidth - to.width * k) / 2) - to.x * k
      const y = Math.max(MARGIN, (element.clientHeight - to.height * k) / 2) - to.y * k
      behavior.current.transform(select(element), zoomIdentity.translate(x, y).scale(k))
    },
    [frame],
  )

  useEffect(() => {
    const element = frame.current
    if (!element) return
    let known: Seen | null = null
    const zooming = zoom<HTMLElement, unknown>()
      .scaleExtent([LEAST, MOST])
      // A press on a plate is for the plate.
      .filter(
        (event: MouseEvent | WheelEvent) =>
          event.type === 'wheel' || (!event.button && !(event.target as Element).closest('a, button')),
      )
      .on('zoom', ({ transform: { x, y, k }, sourceEvent }: D3ZoomEvent<HTMLElement, unknown>) => {
        if (sourceEvent) isMoved.current = true
        if (sheet.current) sheet.current.style.transform = `translate(${x}px, ${y}px) scale(${k})`
        const visible = { x: -x / k, y: -y / k, width: element.clientWidth / k, height: element.clientHeight / k }
        if (known && known.k / k < 1.5 && k / known.k < 1.5 && isWithin(visible, known.part)) return
        const [across, down] = [visible.width * AHEAD, visible.height * AHEAD]
        known = {
          k,
          part: {
            x: visible.x - across,
            y: visible.y - down,
            width: visible.width + 2 * across,
            height: visible.height + 2 * down,
          },
        }
        setSeen(known)
      })
    behavior.current = zooming
    select(element).call(zooming).on('dblclick.zoom', null)
    return () => void select(element).on('.zoom', null)
  }, [frame, sheet])

  useEffect(() => {
    const element = frame.current
    if (!element) return
    const fit = () => {
      if (!isMoved.current) show({ x: 0, y: 0, width: Math.max(1, width), height: Math.max(1, height) })
    }
    const observer = new ResizeObserver(fit)
    observer.observe(element)
    fit()
    return () => observer.disconnect()
  }, [frame, show, width, height])

  const step = (way: 'in' | 'out') => {
    const element = frame.current
    isMoved.current = true
    if (element && behavior.current) behavior.current.scaleBy(select(element), way === 'in' ? STEP : 1 / STEP)
  }
  /** All of it is kept in view again, whatever its size becomes. */
  const release = () => {
    isMoved.current = false
  }
  return { seen, show, step, release }
}

const isWithin = (a: Bounds, b: Bounds): boolean =>
  a.x >= b.x && a.y >= b.y && a.x + a.width <= b.x + b.width && a.y + a.height <= b.y + b.height
