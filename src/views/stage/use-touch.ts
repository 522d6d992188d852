import { type PointerEvent, useRef } from 'react'

/** How long a finger rests before the menu opens, and how far it may stray meanwhile, in ms and px. */
const [REST, STRAY] = [550, 10]

/** A long press on a topic opens its menu, where there is no right button. */
export function useTouch(openMenu: (topic: string, at: { x: number; y: number }) => void) {
  const pressed = useRef<{ timer: ReturnType<typeof setTimeout>; x: number; y: number } | null>(null)
  const end = () => {
    if (pressed.current) clearTimeout(pressed.current.timer)
    pressed.current = null
  }
  return {
    onPointerDownCapture(event: PointerEvent): void {
      end()
      const topic = (event.target as Element).closest('[data-topic]')?.getAttribute('data-topic')
      if (event.pointerType !== 'touch' || !event.isPrimary || !topic) return
      const at = { x: event.clientX, y: event.clientY }
      pressed.current = { ...at, timer: setTimeout(() => openMenu(topic, at), REST) }
    },
    onPointerMoveCapture(event: PointerEvent): void {
      const { current } = pressed
      if (current && Math.hypot(event.clientX - current.x, event.clientY - current.y) > STRAY) end()
    },
    onPointerUpCapture: end,
    onPointerCancelCapture: end,
  }
}
