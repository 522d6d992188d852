import type { ZoomTransform } from 'd3-zoom'
import { memo, type PointerEvent, type RefObject, useEffect, useRef } from 'react'
import type { Bounds, MapLayout } from '../../core/layout/boxes'
import type { Scheme } from '../../core/look/palette'
import { drawFar } from './far-view'
import styles from './stage.module.css'
import { useInks } from './use-inks'
import type { Moves } from './use-view'

const [WIDTH, HEIGHT] = [188, 124]
const MARGIN = 6
/** How long after a change it is drawn anew, in ms: nobody looks there while writing. */
const LATER_MS = 300

interface Props {
  layout: MapLayout
  /** Light or dark, where the background of the map decides. */
  scheme: Scheme | null
  container: RefObject<HTMLElement | null>
  transform: RefObject<ZoomTransform>
  moves: RefObject<Moves>
  /** Brings a point of the map into the middle, at the scale that is. */
  lookAt(point: { x: number; y: number }): void
}

/** A small picture of a whole large map with the part that is in view: a press there goes there. */
export const Overview = memo(({ layout, scheme, container, transform, moves, lookAt }: Props) => {
  const canvas = useRef<HTMLCanvasElement>(null)
  const frame = useRef<HTMLDivElement>(null)
  const fitted = useRef(fitInto(layout.bounds))
  const drawn = useRef(false)
  const inks = useInks(scheme)
  useEffect(() => {
    const context = canvas.current?.getContext('2d')
    if (!canvas.current || !context) return
    const draw = () => {
      if (!canvas.current) return
      const ratio = window.devicePixelRatio || 1
      canvas.current.width = WIDTH * ratio
      canvas.current.height = HEIGHT * ratio
      const { k, x, y } = fitInto(layout.bounds)
      fitted.current = { k, x, y }
      context.setTransform(k * ratio, 0, 0, k * ratio, x * ratio, y * ratio)
      drawFar(context, layout.boxes, inks, 1 / k, null)
    }
    const timer = setTimeout(draw, drawn.current ? LATER_MS : 0)
    drawn.current = true
    return () => clearTimeout(timer)
  }, [layout, inks])
  useEffect(() => {
    const follow = () => {
      const stage = container.current
      if (!frame.current || !stage) return
      const { k, x, y } = fitted.current
      const [left, top] = transform.current.invert([0, 0])
      const scale = k / transform.current.k
      Object.assign(frame.current.style, {
        transform: `translate(${left * k + x}px, ${top * k + y}px)`,
        width: `${stage.clientWidth * scale}px`,
        height: `${stage.clientHeight * scale}px`,
      })
    }
    follow()
    const { listeners } = moves.current
    listeners.add(follow)
    return () => void listeners.delete(follow)
  }, [container, transform, moves])
  const go = (event: PointerEvent) => {
    if (event.buttons !== 1) return
    const { left, top } = event.currentTarget.getBoundingClientRect()
    const { k, x, y } = fitted.current
    lookAt({ x: (event.clientX - left - x) / k, y: (event.clientY - top - y) / k })
  }
  return (
    <div
      className={styles.overview}
      data-taken
      style={{ width: WIDTH, height: HEIGHT }}
      title="The whole map: press where you want to be"
      aria-hidden
      onPointerDown={(event) => {
        event.stopPropagation()
        event.currentTarget.setPointerCapture(event.pointerId)
        go(event)
      }}
      onPointerMove={go}
    >
      <canvas ref={canvas} style={{ width: WIDTH, height: HEIGHT }} />
      <div ref={frame} className={styles.overviewFrame} />
    </div>
  )
})
Overview.displayName = 'Overview'

/** Scale and shift that fit bounds into the overview. */
function fitInto({ x, y, width, height }: Bounds): { k: number; x: number; y: number } {
  const k = Math.min((WIDTH - 2 * MARGIN) / Math.max(width, 1), (HEIGHT - 2 * MARGIN) / Math.max(height, 1))
  return { k, x: WIDTH / 2 - (x + width / 2) * k, y: HEIGHT / 2 - (y + height / 2) * k }
}
