import type { ZoomTransform } from 'd3-zoom'
import { memo, type RefObject, useLayoutEffect, useMemo, useRef } from 'react'
import type { TopicBox } from '../../core/layout/boxes'
import type { Drawing } from '../../core/scene/drawing'
import type { Scene } from '../../core/scene/scene'
import { drawTopic } from '../../core/scene/topic-drawing'
import { useIcons } from '../app/late-parts'
import { calendarHere } from '../app/when'
import { drawOnCanvas } from './canvas-drawing'
import { drawFar } from './far-view'
import { inView, within } from './in-view'
import styles from './stage.module.css'
import { useInks } from './use-inks'
import type { Moves, View } from './use-view'

interface Props {
  scene: Scene
  view: View
  /** Whether topics are bars, because their words could not be read. */
  far: boolean
  /** Whether anything is drawn here: else all that is in view stands in the page. */
  needed: boolean
  faded: ReadonlySet<string> | null
  /** Light or dark, where the background of the map decides. */
  scheme: 'light' | 'dark' | null
  /** Boxes and connectors that stand in the page: they need not be drawn again. */
  inPage: RefObject<ReadonlySet<object>>
  transform: RefObject<ZoomTransform>
  moves: RefObject<Moves>
}

/** So many topics come into the page at once. */
const FEW = 100

/**
 * The map on a canvas: as bars where it is seen from far, and as it is where the view moves on to what does not stand
 * in the page yet. It is drawn for what is ahead as well, and moved along with each step of pan and zoom until the view
 * asks for another part or scale.
 */
export const StageCanvas = memo(({ scene, view, far, needed, faded, scheme, inPage, transform, moves }: Props) => {
  const element = useRef<HTMLCanvasElement>(null)
  const isDrawn = useRef(false)
  const inks = useInks(scheme)
  const drawingOf = useDrawings()
  useLayoutEffect(() => {
    if (!needed || !element.current) return
    const { drawn, scale } = view
    const isMissing = (item: object) => !inPage.current.has(item)
    const boxes = within(scene.layout.boxes, drawn, (box) => box)
    const frames = scene.enclosures.filter(({ box }) => inView(box, drawn) && isMissing(box))
    const connectors = within(scene.connectors, drawn, ({ bounds }) => bounds).filter(isMissing)
    const missing = boxes.filter(isMissing)
    // A canvas as large as the screen takes some ms to make: not for nothing.
    const isEmpty = !far && frames.length + connectors.length + missing.length === 0
    if (isEmpty && !isDrawn.current) return
    // Where a map of a few topics opens they stand in the page sooner than on a canvas.
    if (!far && inPage.current.size === 0 && boxes.length <= FEW) return
    const canvas = cleared(element.current, view)
    if (!canvas) return
    isDrawn.current = !isEmpty
    if (far) return drawFar(canvas, boxes, inks, 1 / scale, faded)
    for (const { drawing } of frames) drawOnCanvas(canvas, inks.resolve(drawing))
    for (const connector of connectors) drawOnCanvas(canvas, inks.resolve(connector.drawing))
    for (const box of missing) {
      canvas.globalAlpha = faded?.has(box.topic.id) ? 0.25 : 1
      for (const part of drawingOf(box)) drawOnCanvas(canvas, inks.resolve(part))
    }
    canvas.globalAlpha = 1
  }, [scene, view, far, needed, faded, inks, drawingOf, inPage])
  useLayoutEffect(() => {
    const place = () => {
      const { k, x, y } = transform.current
      const { drawn, scale } = view
      if (element.current)
        element.current.style.transform = `translate(${drawn.x * k + x}px, ${drawn.y * k + y}px) scale(${k / scale})`
    }
    place()
    const { listeners } = moves.current
    listeners.add(place)
    return () => void listeners.delete(place)
  }, [view, transform, moves])
  return <canvas ref={element} className={styles.farCanvas} hidden={!needed} aria-hidden />
})
StageCanvas.displayName = 'StageCanvas'

/** The canvas without what was on it, as large as what is drawn, set to map units. */
function cleared(canvas: HTMLCanvasElement, { drawn, scale }: View): CanvasRenderingContext2D | null {
  const context = canvas.getContext('2d')
  const k = scale * (window.devicePixelRatio || 1)
  const [width, height] = [Math.ceil(drawn.width * k), Math.ceil(drawn.height * k)]
  if (canvas.width === width && canvas.height === height) {
    context?.resetTransform()
    context?.clearRect(0, 0, width, height)
  } else Object.assign(canvas, { width, height })
  canvas.style.width = `${drawn.width * scale}px`
  canvas.style.height = `${drawn.height * scale}px`
  context?.setTransform(k, 0, 0, k, -drawn.x * k, -drawn.y * k)
  return context
}

/** The drawing of a box, kept as long as the box is; without pictures, which come when the view rests. */
function useDrawings(): (box: TopicBox) => Drawing[] {
  const icons = useIcons()
  return useMemo(() => {
    const drawings = new WeakMap<TopicBox, Drawing[]>()
    return (box) => {
      let known = drawings.get(box)
      if (!known)
        drawings.set(box, (known = drawTopic(box, { icons, pictureAddress: () => null, today: calendarHere().today })))
      return known
    }
  }, [icons])
}
