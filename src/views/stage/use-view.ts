import { select } from 'd3-selection'
import { type D3ZoomEvent, type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom'
import { type ReactNode, type RefObject, useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { Bounds } from '../../core/layout/boxes'

const LEAST = 0.02
const MOST = 4
/** Fitting never shows a small map larger than this. */
const FITTED_MOST = 1.3
const MARGIN = 24
/** The least scale at which words are comfortably read. */
const READABLE = 0.7

/** How much around the visible part is drawn ahead, as a part of its size. */
const AHEAD = 0.25

export interface View {
  /** The part of the map that is drawn, in map units; grows and moves as one pans. */
  drawn: Bounds
  scale: number
}

/** Who follows every step of pan and zoom, besides the drawing itself. */
interface Moves {
  count: number
  listeners: Set<() => void>
}

/** What lies over the drawing at a place of the map: drawn anew with every step of pan and zoom, and nothing else is. */
export function FollowView({
  moves,
  transform,
  children,
}: {
  moves: RefObject<Moves>
  transform: RefObject<ZoomTransform>
  children(transform: ZoomTransform): ReactNode
}) {
  const subscribe = useCallback(
    (listener: () => void) => {
      moves.current.listeners.add(listener)
      return () => moves.current.listeners.delete(listener)
    },
    [moves],
  )
  useSyncExternalStore(subscribe, () => moves.current.count)
  return children(transform.current)
}

/**
 * Pan and zoom of the stage. The transform is set on the SVG group directly; React draws anew only when what is
 * visible leaves what is drawn, or the scale changes enough to matter.
 */
export function useView(
  container: RefObject<HTMLDivElement | null>,
  group: RefObject<SVGGElement | null>,
  ground: RefObject<HTMLDivElement | null>,
) {
  const transform = useRef<ZoomTransform>(zoomIdentity)
  const behaviour = useRef(zoom<HTMLDivElement, unknown>())
  const [view, setView] = useState<View>({ drawn: { x: -2000, y: -2000, width: 4000, height: 4000 }, scale: 1 })
  const drawn = useRef(view)
  const moves = useRef<Moves>({ count: 0, listeners: new Set() })

  useEffect(() => {
    const element = container.current
    if (!element) return
    const selection = select(element)
    const taken = (event: Event) =>
      (event.target as Element).closest('[data-topic], textarea, button, [data-crosslink]') !== null
    behaviour.current
      .scaleExtent([LEAST, MOST])
      .filter((event: Event) => {
        if (event.type === 'wheel') return (event as WheelEvent).ctrlKey || (event as WheelEvent).metaKey
        if (event.type === 'dblclick') return false
        if (event instanceof MouseEvent && (event.button > 1 || event.shiftKey)) return false
        return event instanceof MouseEvent && event.button === 1 ? true : !taken(event)
      })
      .on('zoom', (event: D3ZoomEvent<HTMLDivElement, unknown>) => {
        transform.current = event.transform
        moves.current.count++
        for (const listener of moves.current.listeners) listener()
        group.current?.setAttribute('transform', event.transform.toString())
        // A pattern behind the map moves along with it; a picture stays.
        if (ground.current && !ground.current.classList.contains('backdrop-picture'))
          ground.current.style.backgroundPosition = `${event.transform.x}px ${event.transform.y}px`
        const visible = visiblePart(element, event.transform)
        const { x, y, width, height } = drawn.current.drawn
        const inside =
          visible.x >= x &&
          visible.y >= y &&
          visible.x + visible.width <= x + width &&
          visible.y + visible.height <= y + height
        if (inside && Math.abs(Math.log(event.transform.k / drawn.current.scale)) < 0.3) return
        const aheadX = visible.width * AHEAD
        const aheadY = visible.height * AHEAD
        drawn.current = {
          drawn: {
            x: visible.x - aheadX,
            y: visible.y - aheadY,
            width: visible.width + 2 * aheadX,
            height: visible.height + 2 * aheadY,
          },
          scale: event.transform.k,
        }
        setView(drawn.current)
      })
    selection.call(behaviour.current).on('dblclick.zoom', null)
    const wheel = (event: WheelEvent) => {
      event.preventDefault()
      if (event.ctrlKey || event.metaKey) return
      const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 20 : 1
      const [dx, dy] = event.shiftKey && event.deltaX === 0 ? [event.deltaY, 0] : [event.deltaX, event.deltaY]
      behaviour.current.translateBy(selection, (-dx * lines) / transform.current.k, (-dy * lines) / transform.current.k)
    }
    element.addEventListener('wheel', wheel, { passive: false })
    // What is in the middle stays there when panels open and close.
    let size = { width: element.clientWidth, height: element.clientHeight }
    const resized = new ResizeObserver(() => {
      const { clientWidth: width, clientHeight: height } = element
      const [dx, dy] = [(width - size.width) / 2, (height - size.height) / 2]
      size = { width, height }
      if (dx !== 0 || dy !== 0)
        behaviour.current.translateBy(selection, dx / transform.current.k, dy / transform.current.k)
    })
    resized.observe(element)
    return () => {
      resized.disconnect()
      element.removeEventListener('wheel', wheel)
      selection.on('.zoom', null)
    }
  }, [container, group, ground])

  const moveTo = useCallback(
    (next: ZoomTransform) => {
      if (container.current) behaviour.current.transform(select(container.current), next)
    },
    [container],
  )

  const fit = useCallback(
    (bounds: Bounds) => {
      const element = container.current
      if (!element || bounds.width === 0) return
      const { clientWidth, clientHeight } = element
      const scale = Math.min(
        (clientWidth - MARGIN) / bounds.width,
        (clientHeight - MARGIN) / bounds.height,
        FITTED_MOST,
      )
      const k = Math.max(scale, LEAST)
      moveTo(
        zoomIdentity
          .translate(
            clientWidth / 2 - (bounds.x + bounds.width / 2) * k,
            clientHeight / 2 - (bounds.y + bounds.height / 2) * k,
          )
          .scale(k),
      )
    },
    [container, moveTo],
  )

  /** How a map is first seen: all of it where that can be read, else as much around its root as can be. */
  const begin = useCallback(
    (bounds: Bounds, root: Bounds) => {
      const element = container.current
      if (!element) return
      const fitted = Math.min(
        (element.clientWidth - MARGIN) / bounds.width,
        (element.clientHeight - MARGIN) / bounds.height,
      )
      if (fitted >= READABLE) return fit(bounds)
      moveTo(
        zoomIdentity
          .translate(
            element.clientWidth / 2 - (root.x + root.width / 2) * READABLE,
            element.clientHeight / 2 - (root.y + root.height / 2) * READABLE,
          )
          .scale(READABLE),
      )
    },
    [container, fit, moveTo],
  )

  /** Brings a box into the middle at a scale at which it can be read. */
  const centre = useCallback(
    (box: Bounds) => {
      const element = container.current
      if (!element) return
      const k = Math.min(Math.max(transform.current.k, 0.8), 1.5)
      moveTo(
        zoomIdentity
          .translate(
            element.clientWidth / 2 - (box.x + box.width / 2) * k,
            element.clientHeight / 2 - (box.y + box.height / 2) * k,
          )
          .scale(k),
      )
    },
    [container, moveTo],
  )

  /** Moves by as little as is needed for a box to be visible. */
  const reveal = useCallback(
    (box: Bounds) => {
      const element = container.current
      if (!element) return
      const { x, y, k } = transform.current
      const shift = (start: number, end: number, size: number) =>
        start < MARGIN ? MARGIN - start : end > size - MARGIN ? size - MARGIN - end : 0
      const dx = shift(box.x * k + x, (box.x + box.width) * k + x, element.clientWidth)
      const dy = shift(box.y * k + y, (box.y + box.height) * k + y, element.clientHeight)
      if (dx !== 0 || dy !== 0) moveTo(zoomIdentity.translate(x + dx, y + dy).scale(k))
    },
    [container, moveTo],
  )

  /** Moves the view by px of the screen. */
  const panBy = useCallback(
    (dx: number, dy: number) => {
      if (!container.current) return
      behaviour.current.translateBy(select(container.current), dx / transform.current.k, dy / transform.current.k)
    },
    [container],
  )

  /** A point on the screen in map units. */
  const pointAt = useCallback(
    (event: { clientX: number; clientY: number }) => {
      const { left, top } = container.current!.getBoundingClientRect()
      const [x, y] = transform.current.invert([event.clientX - left, event.clientY - top])
      return { x, y }
    },
    [container],
  )

  return { view, transform, moves, begin, fit, centre, reveal, pointAt, panBy }
}

function visiblePart(element: HTMLElement, transform: ZoomTransform): Bounds {
  const [x, y] = transform.invert([0, 0])
  return { x, y, width: element.clientWidth / transform.k, height: element.clientHeight / transform.k }
}
