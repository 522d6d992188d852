import { create } from 'zustand'
import { named } from '../../core/commands/command'
import { addCrosslink } from '../../core/commands/crosslinks'
import { moveTopics } from '../../core/commands/move-topics'
import { detachTopics, placeByHand } from '../../core/commands/places'
import { putToPlace } from '../../core/commands/to-place'
import type { TopicBox } from '../../core/layout/boxes'
import { MapId, type TopicId } from '../../core/records/ids'
import { isRoot, parentOf } from '../../core/records/place'
import { isFree } from '../../core/tree/free'
import { linkForm } from '../dialogs/link-form'
import type { CollectionSession } from '../sync/collection-session'
import { type DropTarget, dropTargetAt } from './drop-target'
import { tellHappened } from './happened'
import { type ShownStage, stageAt } from './shown-stages'
import { situationOf } from './situation'
import { useWorkspace, workspace } from './workspace-store'

/** How far the pointer moves before a press becomes a drag, in px. */
const THRESHOLD = 5
/** Near an edge the view moves along, by this much for each frame, in px. */
const EDGE = 28
const SCROLL = 12

/** What is being dragged over, with the words that say what dropping it there does. */
interface Dragged {
  /** Point of the screen. */
  at: { x: number; y: number }
  words: string
  /** The pane in which something would hang, and where. */
  over: { index: number; target: DropTarget } | null
  /** The map, or the drawer, onto which it would go. */
  onto: string | null
  /** Where a line to the pointer begins, on the screen, while a link is drawn. */
  line: { x: number; y: number } | null
}

/** The drag that is going on in this window, if any. */
export const useDragged = create<{ dragged: Dragged | null }>(() => ({ dragged: null }))

let stop: (() => void) | null = null

/** Gives up the drag that is going on. */
export const giveUpDrag = (): void => stop?.()

/**
 * What is dragged: what is selected in a pane, by the box that was pressed; topics that stand on no map; a link that begins at a
 * topic; or a map, which a topic would open.
 */
type Carried =
  | { index: number; pressed: TopicBox }
  | { topics: readonly TopicId[] }
  | { link: TopicId; line: { x: number; y: number } }
  | { map: MapId }

/**
 * Begins to drag branches: onto other topics, in any pane, onto the empty surface, where they stand alone, onto another map in
 * the surroundings, or into the drawer; with Alt they keep the place where they are dropped, and in a free region the other way round. What would happen is said while
 * the pointer is over something, the view moves along at its edges, and Esc gives up.
 */
export function beginDrag(
  session: CollectionSession,
  carried: Carried,
  event: { clientX: number; clientY: number },
): void {
  if (!session.mayEdit || ('pressed' in carried && isRoot(carried.pressed.topic))) return
  giveUpDrag()
  const isAimed = 'link' in carried || 'map' in carried
  const drag = isAimed ? new Aim(session, carried, event) : new Drag(session, carried, event)
  let frame = 0
  const move = (moved: PointerEvent) => {
    const dragged = drag.moveTo(moved)
    if (dragged) useDragged.setState({ dragged })
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
    window.removeEventListener('keydown', press, { capture: true })
    stop = null
    useDragged.setState({ dragged: null })
  }
  const drop = () => {
    end()
    drag.drop()
  }
  const press = (pressed: KeyboardEvent) => {
    if (pressed.key !== 'Escape' || !useDragged.getState().dragged) return
    pressed.stopPropagation()
    end()
  }
  window.addEventListener('pointermove', move)
  window.addEventListener('pointerup', drop)
  window.addEventListener('pointercancel', end)
  window.addEventListener('keydown', press, { capture: true })
  frame = requestAnimationFrame(scroll)
  stop = end
}

/** Elements that take what is dropped: a map by its id, or the drawer of a map. */
const ONTO = { map: 'data-drop-map', drawer: 'data-drop-drawer' }
type Onto = { kind: 'map' | 'drawer'; map: MapId }

/** What of these is under the pointer. */
function ontoAt({ clientX, clientY }: PointerEvent): Onto | null {
  const at = document.elementFromPoint(clientX, clientY)
  for (const kind of ['map', 'drawer'] as const) {
    const map = MapId.safeParse(at?.closest(`[${ONTO[kind]}]`)?.getAttribute(ONTO[kind])).data
    if (map) return { kind, map }
  }
  return null
}

const isFar = (a: { clientX: number; clientY: number }, b: { clientX: number; clientY: number }): boolean =>
  Math.hypot(a.clientX - b.clientX, a.clientY - b.clientY) >= THRESHOLD

/** A drag that ends at one topic, or at a map: of a link that is being drawn, or of a map that a topic is to open. */
class Aim {
  private target: DropTarget | null = null
  private onto: Onto | null = null
  private isDragging = false

  constructor(
    private readonly session: CollectionSession,
    private readonly carried: Extract<Carried, { link: unknown } | { map: unknown }>,
    private readonly start: { clientX: number; clientY: number },
  ) {}

  moveTo(event: PointerEvent): Dragged | null {
    if (!this.isDragging && !isFar(event, this.start)) return null
    this.isDragging = true
    const onto = ontoAt(event)
    this.onto = 'link' in this.carried && onto?.kind === 'map' ? onto : null
    const over = this.onto ? null : stageAt(event)
    const point = over?.stage.pointAt(event)
    const own = 'link' in this.carried ? [this.carried.link] : []
    const near = over && point ? dropTargetAt(this.session.records, over.stage.layout, point.x, point.y, own) : null
    this.target = near && { ...near, zone: 'into' }
    return {
      at: { x: event.clientX, y: event.clientY },
      over: over && this.target ? { index: over.index, target: this.target } : null,
      onto: this.onto && `${this.onto.kind} ${this.onto.map}`,
      words: this.words(),
      line: 'link' in this.carried ? this.carried.line : null,
    }
  }

  private words(): string {
    const { session, carried, target, onto } = this
    if ('map' in carried) {
      const title = session.titleOf(carried.map)
      return target
        ? `${named(target.box.topic.text)} opens the map ${title}`
        : `Drop it on the topic that should open ${title}`
    }
    if (onto) return `links with the map ${session.titleOf(onto.map)}`
    return target ? `links with ${named(target.box.topic.text)}` : 'Drop it on a topic, or on a map at the left'
  }

  scrollAtEdges(): void {}

  drop(): void {
    const { session, carried, target, onto } = this
    if (!this.isDragging) return
    const topic = target?.box.topic.id
    if ('map' in carried) {
      if (topic) void session.server.command('make-doorway', { topic, map: carried.map })
      return
    }
    const to = onto ? { kind: 'map' as const, id: onto.map } : topic ? { kind: 'topic' as const, id: topic } : null
    if (to)
      session.run((records, newIds) => addCrosslink(records, { from: carried.link, to, drawn: linkForm() }, newIds))
  }
}

/** One drag, from the press to the drop. */
class Drag {
  private moving: readonly TopicId[] | null = null
  private target: DropTarget | null = null
  private over: { index: number; stage: ShownStage } | null = null
  private onto: Onto | null = null
  private last: PointerEvent | null = null
  /** From the corner of the pressed topic to the pointer, in map units. */
  private readonly grip: { x: number; y: number }

  constructor(
    private readonly session: CollectionSession,
    private readonly carried: Extract<Carried, { pressed: unknown } | { topics: unknown }>,
    private readonly start: { clientX: number; clientY: number },
  ) {
    const point = 'pressed' in carried ? (stageAt(start)?.stage.pointAt(start) ?? carried.pressed) : null
    this.grip =
      point && 'pressed' in carried
        ? { x: point.x - carried.pressed.x, y: point.y - carried.pressed.y }
        : { x: 0, y: 0 }
  }

  /** The pane that it comes from; null where that is none. */
  private get from(): number | null {
    return 'index' in this.carried ? this.carried.index : null
  }

  /** Null while the press has not become a drag. */
  moveTo(event: PointerEvent): Dragged | null {
    if (!this.moving && !isFar(event, this.start)) return null
    this.moving ??= 'topics' in this.carried ? this.carried.topics : this.selected(this.carried.index)
    this.last = event
    this.onto = ontoAt(event)
    this.over = this.onto ? null : stageAt(event)
    const point = this.over?.stage.pointAt(event)
    this.target =
      this.over && point && !event.altKey
        ? dropTargetAt(this.session.records, this.over.stage.layout, point.x, point.y, this.moving, !this.isFree())
        : null
    return {
      at: { x: event.clientX, y: event.clientY },
      over: this.over && this.target ? { index: this.over.index, target: this.target } : null,
      onto: this.onto && `${this.onto.kind} ${this.onto.map}`,
      words: this.words(),
      line: null,
    }
  }

  private selected(index: number): TopicId[] {
    return situationOf(this.session, index)
      .topics.filter((topic) => !isRoot(topic))
      .map(({ id }) => id)
  }

  private words(): string {
    if (this.onto) {
      if (this.onto.kind === 'drawer') return this.isInDrawer() ? 'stays here' : 'is kept here, to be placed'
      return `${this.last?.altKey ? 'a copy goes' : 'goes'} to the map ${this.session.titleOf(this.onto.map)}`
    }
    if (!this.over) return 'Drop it on a map'
    if (this.target) return this.target.words
    const [keeps, alone] = ['keeps this place where it hangs', 'stands alone here']
    if (this.isByHand()) {
      if (!this.keepsPlace()) return 'A topic keeps a place on its own map only'
      return this.last?.altKey ? keeps : `keeps this place; with Alt it ${alone}`
    }
    if (!this.standsAlone()) return 'Drop it on a topic'
    return this.keepsPlace() && !this.last?.altKey ? `${alone}; with Alt it ${keeps}` : alone
  }

  /** Whether all of it stands in a free map or branch. */
  private isFree(): boolean {
    const { records } = this.session
    return this.moving!.every((id) => {
      const topic = records.get('topic', id)
      return topic !== undefined && isFree(records, topic)
    })
  }

  /** Whether what is dropped on the surface keeps that place where it hangs: with Alt, or in a free region without. */
  private isByHand(): boolean {
    return (this.last?.altKey ?? false) !== this.isFree()
  }

  private isInDrawer(): boolean {
    return this.from === null
  }

  /** Whether all of it belongs to the map of the pane it is over, so that it can lie anywhere there. */
  private standsAlone(): boolean {
    const map = this.over && useWorkspace.getState().panes[this.over.index]?.map
    return this.moving!.every((id) => this.session.records.get('topic', id)?.place.map === map)
  }

  private keepsPlace(): boolean {
    return this.from !== null && this.over?.index === this.from
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
    const { session, moving: topics, target, over, onto, last } = this
    if (!topics || !last) return
    if (onto) this.dropOnto(topics, onto, last.altKey)
    if (onto || !over) return
    if (target) {
      const select = session.run((records, newIds) =>
        moveTopics(records, { topics, parent: target.parent, after: target.after, side: target.side }, newIds),
      )
      if (select && over.index !== this.from) workspace.select(over.index, select)
      return
    }
    if (!this.standsAlone()) return
    const point = over.stage.pointAt(last)
    const at = { x: Math.round(point.x - this.grip.x), y: Math.round(point.y - this.grip.y) }
    if (!this.isByHand()) {
      const all = topics.map((topic, i) => ({ topic, at: { x: at.x, y: at.y + i * 40 } }))
      const select = session.run((records, newIds) => detachTopics(records, { topics: all }, newIds))
      if (select && over.index !== this.from) workspace.select(over.index, select)
    } else if (this.keepsPlace() && 'pressed' in this.carried) this.placeAt(at, this.carried.pressed, over.stage)
  }

  /** Places what is dragged by hand, with the topic that was pressed at a point and the others as they stood to it. */
  private placeAt(at: { x: number; y: number }, pressed: TopicBox, { layout }: ShownStage): void {
    const by = { x: at.x - pressed.x, y: at.y - pressed.y }
    const topics = this.moving!.flatMap((topic) => {
      const box = layout.byKey.of(topic)
      if (!box) return []
      const to = { x: Math.round(box.x + by.x), y: Math.round(box.y + by.y) }
      const parent = layout.byKey.of(parentOf(box.topic) ?? '')
      const isLeft = parent && to.x + box.width / 2 < parent.x + parent.width / 2
      return [{ topic, at: to, from: { x: box.x, y: box.y }, side: isLeft ? ('left' as const) : ('right' as const) }]
    })
    this.session.run((records, newIds) => placeByHand(records, { topics }, newIds))
  }

  private dropOnto(topics: readonly TopicId[], { kind, map }: Onto, copies: boolean): void {
    const { session } = this
    if (kind === 'drawer') {
      if (!this.isInDrawer()) session.run((records, newIds) => putToPlace(records, { topics, map }, newIds))
      return
    }
    void sendToMap(session, topics, map, copies)
  }
}

/** Moves or copies branches to another map, open or not, and tells of it. */
export async function sendToMap(
  session: CollectionSession,
  topics: readonly TopicId[],
  map: MapId,
  copies: boolean,
): Promise<void> {
  const { active } = useWorkspace.getState()
  if (useWorkspace.getState().panes[active]?.map === map && !copies) return
  const title = session.titleOf(map)
  const answer = await session.server.command('send-to-map', { topics: [...topics], map, copies })
  if (!answer) return
  const what = topics.length === 1 ? '1 branch' : `${topics.length} branches`
  tellHappened(`${copies ? 'Copied' : 'Moved'} ${what} to ${title}.`, [
    { name: 'Go there', go: () => workspace.go(active, map, answer.select[0] ?? null) },
    { name: 'Undo', go: () => void session.takeBack('undo') },
  ])
}
