import { type PointerEvent as ReactPointerEvent, useCallback, useRef, useState } from 'react'
import { moveTopics } from '../../core/commands/move-topics'
import { detachTopics, placeByHand } from '../../core/commands/places'
import type { TopicBox } from '../../core/layout/boxes'
import type { TopicId } from '../../core/records/ids'
import { isRoot, parentOf } from '../../core/records/place'
import type { CollectionSession } from '../sync/collection-session'
import { type ShownStage, stageAt } from '../workspace/shown-stages'
import { situationOf } from '../workspace/situation'
import { workspace } from '../workspace/workspace-store'
import { type DropTarget, dropTargetAt } from './drop-target'

/** How far the pointer moves before a press becomes a drag, in px. */
const THRESHOLD = 5
/** Near an edge the view moves along, by this much for each frame, in px. */
const EDGE = 28
const SCROLL = 12

interface Dragged {
  /** Point of the screen. */
  at: { x: number; y: number }
  target: DropTarget | null
  words: string
}

/**
 * Dragging of the selected branches: onto other topics, in this pane or the other one, or onto the empty surface, where
 * they stand alone; with Alt they keep the place where they are dropped. The target is said while it is under the
 * pointer, the view moves along at its edges, and Esc gives up.
 */
export function useDrag(session: CollectionSession, index: number) {
  const [state, setState] = useState<Dragged | null>(null)
  const stop = useRef<(() => void) | null>(null)

  const begin = useCallback(
    (event: ReactPointerEvent, pressed: TopicBox) => {
      if (!session.mayEdit || isRoot(pressed.topic)) return
      const drag = new Drag(session, index, pressed, event)
      let frame = 0
      const move = (moved: PointerEvent) => {
        const dragged = drag.moveTo(moved)
        if (dragged) setState(dragged)
      }
      const scroll = () => {
        drag.scrollAtEdges()
        frame = requestAnimationFrame(scroll)
      }
      const end = () => {
        cancelAnimationFrame(frame)
        window.removeEventListener('pointermove', move)
        window.removeEventListener('pointerup', drop)
        window.removeEventListener('pointercancel', end)
        stop.current = null
        setState(null)
      }
      const drop = () => {
        end()
        drag.drop()
      }
      window.addEventListener('pointermove', move)
      window.addEventListener('pointerup', drop)
      window.addEventListener('pointercancel', end)
      frame = requestAnimationFrame(scroll)
      stop.current = end
    },
    [session, index],
  )

  const giveUp = useCallback(() => stop.current?.(), [])
  return { begin, giveUp, dragged: state }
}

/** One drag, from the press to the drop. */
class Drag {
  private moving: TopicId[] | null = null
  private target: DropTarget | null = null
  private over: { index: number; stage: ShownStage } | null = null
  private last: PointerEvent | null = null
  /** From the corner of the pressed topic to the pointer, in map units. */
  private readonly grip: { x: number; y: number }

  constructor(
    private readonly session: CollectionSession,
    private readonly index: number,
    private readonly pressed: TopicBox,
    private readonly start: { clientX: number; clientY: number },
  ) {
    const point = stageAt(start)?.stage.pointAt(start) ?? pressed
    this.grip = { x: point.x - pressed.x, y: point.y - pressed.y }
  }

  /** Null while the press has not become a drag. */
  moveTo(event: PointerEvent): Dragged | null {
    const far = Math.hypot(event.clientX - this.start.clientX, event.clientY - this.start.clientY) >= THRESHOLD
    if (!this.moving && !far) return null
    this.moving ??= situationOf(this.session, this.index)
      .topics.filter((topic) => !isRoot(topic))
      .map(({ id }) => id)
    this.last = event
    this.over = stageAt(event)
    const point = this.over?.stage.pointAt(event)
    this.target =
      this.over && point && !event.altKey
        ? dropTargetAt(this.session.records, this.over.stage.layout, point.x, point.y, this.moving)
        : null
    return { at: { x: event.clientX, y: event.clientY }, target: this.target, words: this.words() }
  }

  private words(): string {
    if (!this.over) return 'Drop it on a map'
    if (this.target) return this.target.words
    if (this.last?.altKey)
      return this.keepsPlace() ? 'keeps this place' : 'Only one topic at a time keeps a place, on its own map'
    return this.over.index === this.index ? 'stands alone here' : 'Drop it on a topic'
  }

  private keepsPlace(): boolean {
    return this.moving?.length === 1 && this.over?.index === this.index
  }

  scrollAtEdges(): void {
    if (!this.last || !this.over) return
    const { left, top, right, bottom } = this.over.stage.element.getBoundingClientRect()
    const { clientX, clientY } = this.last
    const dx = clientX < left + EDGE ? SCROLL : clientX > right - EDGE ? -SCROLL : 0
    const dy = clientY < top + EDGE ? SCROLL : clientY > bottom - EDGE ? -SCROLL : 0
    if (dx !== 0 || dy !== 0) this.over.stage.panBy(dx, dy)
  }

  drop(): void {
    const { session, moving: topics, target, over, last } = this
    if (!topics || !over || !last) return
    if (target) {
      const select = session.run((records, newIds) =>
        moveTopics(records, { topics, parent: target.parent, after: target.after, side: target.side }, newIds),
      )
      if (select && over.index !== this.index) workspace.select(over.index, select)
      return
    }
    if (over.index !== this.index) return
    const point = over.stage.pointAt(last)
    const at = { x: Math.round(point.x - this.grip.x), y: Math.round(point.y - this.grip.y) }
    if (!last.altKey) {
      const all = topics.map((topic, i) => ({ topic, at: { x: at.x, y: at.y + i * 40 } }))
      session.run((records, newIds) => detachTopics(records, { topics: all }, newIds))
    } else if (this.keepsPlace()) {
      const parent = over.stage.layout.byKey.of(parentOf(this.pressed.topic) ?? '')
      const side = parent && at.x + this.pressed.width / 2 < parent.x + parent.width / 2 ? 'left' : 'right'
      session.run((records, newIds) => placeByHand(records, { topic: topics[0]!, at, side }, newIds))
    }
  }
}
