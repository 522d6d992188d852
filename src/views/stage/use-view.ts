import { select } from 'd3-selection'
import { type D3ZoomEvent, type ZoomTransform, zoom, zoomIdentity } from 'd3-zoom'
import { type ReactNode, type RefObject, useCallback, useEffect, useRef, useState, useSyncExternalStore } from 'react'
import type { Bounds } from '../../core/layout/boxes'
import {
  around,
  firstView,
  fitted,
  fittedToWidth,
  isWhole,
  type MapView,
  revealed,
  type Sights,
  viewAfterChange,
  viewAfterResize,
  visiblePart,
} from '../../core/layout/view'
import { tell } from '../app/api'
import type { LookedAt } from './last-views'

const LEAST_SCALE = 0.02
const MOST_SCALE = 4
/** How much nearer a press on the sign for it brings the map. */
const ZOOM_STEP = 1.25
/** The most that one turn of the wheel zooms, as a power of two; fingers on a pad come in many small ones. */
const WHEEL_MOST = 0.25
/** Jumps that can be gone back. */
const EARLIER = 50

/** A transform as a style has it. */
const inStyle = ({ x, y, k }: ZoomTransform) => `translate(${x}px, ${y}px) scale(${k})`

const asTransform = ({ x, y, k }: MapView) =>
  zoomIdentity.translate(x, y).scale(Math.min(Math.max(k, LEAST_SCALE), MOST_SCALE))

/** How much around the visible part is drawn ahead, as a part of its size. */
const AHEAD = 0.25

export interface View {
  /** The part of the map that is drawn, in map units; grows and moves as one pans. */
  drawn: Bounds
  scale: number
}

/** How long after a step of pan or zoom, in ms, the view counts as resting. */
export const RESTS_AFTER = 80

/** Who follows every step of pan and zoom, besides the drawing itself. */
export interface Moves {
  count: number
  /** When the last one came, on the clock of `performance.now()`. */
  last: number
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
 * Pan and zoom of the stage. The transform is set on the picture as a whole, from outside: on a group inside of it, it would
 * make the browser lay out everything in there again. React draws anew only when what is visible leaves what is drawn, or the
 * scale changes enough to matter.
 */
export function useView(
  container: RefObject<HTMLDivElement | null>,
  picture: RefObject<SVGSVGElement | null>,
  ground: RefObject<HTMLDivElement | null>,
  /** What is to be seen, with the topic at hand: read when the stage gets another size. */
  sights: () => { of: Sights; dear: readonly Bounds[] },
  onRest: (at: LookedAt) => void,
) {
  const transform = useRef<ZoomTransform>(zoomIdentity)
  const behaviour = useRef(zoom<HTMLDivElement, unknown>())
  const [view, setView] = useState<View>({ drawn: { x: -2000, y: -2000, width: 4000, height: 4000 }, scale: 1 })
  const drawn = useRef(view)
  // What the page holds follows only when the view rests: until then the canvas shows what has come into view.
  const [rested, setRested] = useState(view)
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined)
  // Kept, because asking an element for its size makes the browser lay out everything first.
  const size = useRef({ width: 0, height: 0 })
  const rests = useRef(onRest)
  rests.current = onRest
  const seen = useRef(sights)
  seen.current = sights
  const settle = useCallback(() => {
    clearTimeout(resting.current)
    setRested(drawn.current)
    const { x, y, width, height } = visiblePart(transform.current, size.current)
    if (width > 0) rests.current({ x: x + width / 2, y: y + height / 2, k: transform.current.k })
  }, [])
  // Nothing can be brought into view before the page has given the stage its size.
  const [sized, setSized] = useState(0)
  const hasSize = useCallback(() => size.current.width > 0, [])
  const moves = useRef<Moves>({ count: 0, last: 0, listeners: new Set() })

  useEffect(() => {
    const element = container.current
    if (!element) return
    const selection = select(element)
    size.current = { width: element.clientWidth, height: element.clientHeight }
    const taken = (event: Event) =>
      (event.target as Element).closest('[data-topic], textarea, button, [data-crosslink], [data-taken]') !== null
    // A finger moves the map wherever it is put down, but for what is selected, which it drags.
    const takenByTouch = (event: Event) =>
      (event.target as Element).closest('[data-selected], textarea, button, [data-taken]') !== null
    behaviour.current
      .scaleExtent([LEAST_SCALE, MOST_SCALE])
      .extent(() => [
        [0, 0],
        [size.current.width, size.current.height],
      ])
      .wheelDelta(({ deltaY }: WheelEvent) => -Math.sign(deltaY) * Math.min(Math.abs(deltaY) * 0.02, WHEEL_MOST))
      .filter((event: Event) => {
        if (event.type === 'wheel') return (event as WheelEvent).ctrlKey || (event as WheelEvent).metaKey
        if (event.type === 'dblclick') return false
        if ('touches' in event) return !takenByTouch(event)
        if (event instanceof MouseEvent && (event.button > 1 || event.shiftKey)) return false
        return event instanceof MouseEvent && event.button === 1 ? true : !taken(event)
      })
      .on('zoom', (event: D3ZoomEvent<HTMLDivElement, unknown>) => {
        transform.current = event.transform
        clearTimeout(resting.current)
        resting.current = setTimeout(settle, RESTS_AFTER)
        moves.current.count++
        moves.current.last = performance.now()
        for (const listener of moves.current.listeners) listener()
        if (picture.current) picture.current.style.transform = inStyle(event.transform)
        // A pattern behind the map moves along with it; a picture stays.
        if (ground.current && !ground.current.classList.contains('backdrop-picture'))
          ground.current.style.backgroundPosition = `${event.transform.x}px ${event.transform.y}px`
        const visible = visiblePart(event.transform, size.current)
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
      // Panels over the map scroll by themselves.
      if ((event.target as Element).closest('[data-taken]')) return
      event.preventDefault()
      if (event.ctrlKey || event.metaKey) return
      const lines = event.deltaMode === WheelEvent.DOM_DELTA_LINE ? 20 : 1
      const [dx, dy] = event.shiftKey && event.deltaX === 0 ? [event.deltaY, 0] : [event.deltaX, event.deltaY]
      behaviour.current.translateBy(selection, (-dx * lines) / transform.current.k, (-dy * lines) / transform.current.k)
    }
    element.addEventListener('wheel', wheel, { passive: false })
    const resized = new ResizeObserver(() => {
      const { clientWidth: width, clientHeight: height } = element
      const before = size.current
      size.current = { width, height }
      if (before.width === 0) return setSized(width)
      if (width === 0 || (width === before.width && height === before.height)) return
      const { of, dear } = seen.current()
      const next = viewAfterResize(transform.current, before, size.current, of, dear)
      behaviour.current.transform(selection, asTransform(next))
    })
    resized.observe(element)
    return () => {
      clearTimeout(resting.current)
      resized.disconnect()
      element.removeEventListener('wheel', wheel)
      selection.on('.zoom', null)
    }
  }, [container, picture, ground, settle])

  const moveTo = useCallback(
    (next: MapView) => {
      const { x, y, k } = transform.current
      if (!container.current || (next.x === x && next.y === y && next.k === k)) return
      behaviour.current.transform(select(container.current), asTransform(next))
      settle()
    },
    [container, settle],
  )

  /** Where the view was before it last jumped. */
  const earlier = useRef<ZoomTransform[]>([])
  const jumpTo = useCallback(
    (next: MapView) => {
      earlier.current = [...earlier.current.slice(-EARLIER), transform.current]
      moveTo(next)
    },
    [moveTo],
  )
  /** Goes back to where the view was before the last jump. */
  const back = useCallback(() => {
    const before = earlier.current.pop()
    if (before) moveTo(before)
    else tell('There is no earlier view to go back to.')
  }, [moveTo])

  const fit = useCallback((bounds: Bounds) => jumpTo(fitted(size.current, bounds)), [jumpTo])
  const fitWidth = useCallback((bounds: Bounds) => jumpTo(fittedToWidth(size.current, bounds)), [jumpTo])
  const begin = useCallback(
    (of: Sights, last: LookedAt | null) =>
      moveTo(firstView(size.current, of, last && around(size.current, { ...last, width: 0, height: 0 }, last.k))),
    [moveTo],
  )

  /** Brings a box into the middle at a scale at which it can be read. */
  const centre = useCallback(
    (box: Bounds) => jumpTo(around(size.current, box, Math.min(Math.max(transform.current.k, 0.8), 1.5))),
    [jumpTo],
  )

  /** Brings a point into the middle at the scale that is. */
  const lookAt = useCallback(
    (point: { x: number; y: number }) =>
      moveTo(around(size.current, { ...point, width: 0, height: 0 }, transform.current.k)),
    [moveTo],
  )

  /** Moves by as little as is needed for a box to be visible. */
  /** Shows something with a margin, where `covered` px of the window at its right are not to be seen. */
  const reveal = useCallback(
    (box: Bounds, covered = 0) => {
      const { width, height } = size.current
      const left = covered > 0 ? container.current!.getBoundingClientRect().left : 0
      const free = covered > 0 ? Math.min(width, window.innerWidth - covered - left) : width
      // On a telephone hardly anything is left beside it.
      moveTo(revealed(transform.current, { width: free > width / 3 ? free : width, height }, box))
    },
    [moveTo, container],
  )

  const seesWhole = useCallback((bounds: Bounds) => isWhole(transform.current, size.current, bounds), [])
  /** Keeps in view what is being written; see `viewAfterChange`. */
  const keep = useCallback(
    (of: Sights, wasWhole: boolean, wanted: readonly Bounds[]) =>
      moveTo(viewAfterChange(transform.current, size.current, of, wasWhole, wanted)),
    [moveTo],
  )

  /** Zooms around the middle: nearer, farther, or to the scale at which texts have their own size. */
  const zoomTo = useCallback(
    (where: 'in' | 'out' | 'full') => {
      const { x, y, k } = transform.current
      const next = where === 'full' ? 1 : where === 'in' ? k * ZOOM_STEP : k / ZOOM_STEP
      const { width, height } = size.current
      const middle = { x: (width / 2 - x) / k, y: (height / 2 - y) / k, width: 0, height: 0 }
      moveTo(around(size.current, middle, next))
    },
    [moveTo],
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

  return {
    view,
    rested,
    sized,
    hasSize,
    transform,
    moves,
    begin,
    fit,
    fitWidth,
    centre,
    lookAt,
    reveal,
    seesWhole,
    keep,
    zoomTo,
    back,
    pointAt,
    panBy,
  }
}

export type ViewControl = ReturnType<typeof useView>
