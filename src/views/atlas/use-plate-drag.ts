import { zoomTransform } from 'd3-zoom'
import { type PointerEvent, type RefObject, useEffect, useRef } from 'react'
import type { Point } from '../../core/records/place'
import { swallowClick } from '../app/swallow-click'

/** How far the pointer moves before a press becomes a drag, in px. */
const THRESHOLD = 6

/** What was dragged where, maps or one of the first branches of a map: by how much in units of the sheet, and onto which map at which place of the window, if any. */
export interface Dropped {
  maps: readonly string[]
  topic: { id: string; text: string } | null
  by: Point
  onto: string | null
  at: Point
}

interface Drag {
  pressed: string
  /** The words of a branch, where these were pressed. */
  words: HTMLElement | null
  from: Point
  by: Point
  maps: readonly string[]
  elements: readonly HTMLElement[]
  onto: HTMLElement | null
}

/**
 * Drags plates of the atlas, found in the frame by `data-map`: the one that is pressed, with the others that are chosen where it is
 * one of them; or the words of a branch, by `data-topic`. Escape gives it up. Nothing is rendered for a move of the hand.
 */
export function usePlateDrag(
  frame: RefObject<HTMLElement | null>,
  companions: (map: string) => readonly string[],
  onDrop: (dropped: Dropped) => void,
) {
  const drag = useRef<Drag | null>(null)
  const end = useRef<(() => void) | null>(null)
  useEffect(() => () => end.current?.(), [])
  const platesOf = (map: string) => [...(frame.current?.querySelectorAll<HTMLElement>(`[data-map="${map}"]`) ?? [])]

  return (event: PointerEvent<HTMLElement>) => {
    const plate = (event.target as Element).closest<HTMLElement>('[data-map]')
    const pressed = plate?.dataset.map
    if (!pressed || event.button !== 0 || event.ctrlKey || event.metaKey || event.shiftKey) return
    const from = { x: event.clientX, y: event.clientY }
    const words = (event.target as Element).closest<HTMLElement>('[data-topic]')
    drag.current = { pressed, words, from, by: { x: 0, y: 0 }, maps: [], elements: [], onto: null }
    const listening = new AbortController()
    const options = { signal: listening.signal }
    const stop = () => {
      listening.abort()
      for (const element of drag.current?.elements ?? []) {
        element.style.transform = ''
        delete element.dataset.dragged
      }
      if (drag.current?.onto) delete drag.current.onto.dataset.over
      drag.current = null
      end.current = null
    }
    end.current = stop
    window.addEventListener('pointermove', (moved) => follow(moved), options)
    window.addEventListener(
      'pointerup',
      (up) => {
        const done = drag.current
        const isDrag = done !== null && done.elements.length > 0
        stop()
        if (!done || !isDrag) return
        swallowClick()
        const onto = done.onto?.dataset.map ?? null
        const { maps, by, words } = done
        const topic = words ? { id: words.dataset.topic!, text: words.textContent } : null
        onDrop({ maps, topic, by, onto, at: { x: up.clientX, y: up.clientY } })
      },
      options,
    )
    window.addEventListener('pointercancel', stop, options)
    window.addEventListener('keydown', ({ key }) => key === 'Escape' && stop(), options)
  }

  function follow({ clientX, clientY }: globalThis.PointerEvent): void {
    const now = drag.current
    if (!now || !frame.current) return
    const [x, y] = [clientX - now.from.x, clientY - now.from.y]
    if (now.elements.length === 0) {
      if (Math.hypot(x, y) < THRESHOLD) return
      now.maps = now.words ? [now.pressed] : companions(now.pressed)
      now.elements = now.words ? [now.words] : now.maps.flatMap(platesOf)
      for (const element of now.elements) element.dataset.dragged = ''
    }
    const { k } = zoomTransform(frame.current)
    now.by = { x: x / k, y: y / k }
    for (const element of now.elements) element.style.transform = `translate(${now.by.x}px, ${now.by.y}px)`
    const onto = document.elementFromPoint(clientX, clientY)?.closest<HTMLElement>('[data-map]') ?? null
    if (onto === now.onto) return
    if (now.onto) delete now.onto.dataset.over
    now.onto = onto
    if (onto) onto.dataset.over = ''
  }
}
