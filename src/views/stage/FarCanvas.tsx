import { useMediaQuery } from '@mantine/hooks'
import type { ZoomTransform } from 'd3-zoom'
import { memo, type RefObject, useLayoutEffect, useRef } from 'react'
import type { MapLayout } from '../../core/layout/boxes'
import { drawFar, toneReader } from './far-view'
import { within } from './in-view'
import styles from './stage.module.css'
import type { Moves, View } from './use-view'

interface Props {
  layout: MapLayout
  view: View
  faded: ReadonlySet<string> | null
  transform: RefObject<ZoomTransform>
  moves: RefObject<Moves>
}

/**
 * The far view of a map: bars on a canvas. It is drawn for what is ahead as well, and moved along with each step of pan
 * and zoom until the view asks for another part or scale.
 */
export const FarCanvas = memo(({ layout, view, faded, transform, moves }: Props) => {
  const element = useRef<HTMLCanvasElement>(null)
  const dark = useMediaQuery('(prefers-color-scheme: dark)')
  // biome-ignore lint/correctness/useExhaustiveDependencies: another colour scheme gives other tones.
  useLayoutEffect(() => {
    const canvas = element.current
    const context = canvas?.getContext('2d')
    if (!canvas || !context) return
    const { drawn, scale } = view
    const ratio = window.devicePixelRatio || 1
    canvas.width = Math.ceil(drawn.width * scale * ratio)
    canvas.height = Math.ceil(drawn.height * scale * ratio)
    canvas.style.width = `${drawn.width * scale}px`
    canvas.style.height = `${drawn.height * scale}px`
    const k = scale * ratio
    context.setTransform(k, 0, 0, k, -drawn.x * k, -drawn.y * k)
    drawFar(
      context,
      within(layout.boxes, drawn, (box) => box),
      toneReader(canvas.parentElement!),
      1 / scale,
      faded,
    )
  }, [layout, view, faded, dark])
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
  return <canvas ref={element} className={styles.farCanvas} aria-hidden />
})
FarCanvas.displayName = 'FarCanvas'
