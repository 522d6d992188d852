import { type RefObject, useEffect, useRef } from 'react'
import { type Bounds, boundsOf, type MapLayout, type TopicBox } from '../../core/layout/boxes'
import { sightsOf } from '../../core/layout/view'
import type { TopicId } from '../../core/records/ids'
import type { Scene } from '../../core/scene/scene'
import { takeFocus } from '../workspace/take-focus'
import { coveredBySheet, type Pane, useWorkspace, workspace } from '../workspace/workspace-store'
import { lastLookAt } from './last-views'
import type { ViewControl } from './use-view'

/** The box of a topic with those of all that is shown below it. */
function branchBounds(layout: MapLayout, head: TopicBox) {
  const inside = new Set<TopicBox>([head])
  for (const box of layout.boxes) if (box.parent && inside.has(box.parent)) inside.add(box)
  return boundsOf([...inside])
}

/**
 * A new topic that is being written with as much around it as there may be room for: its parent and siblings, its parent,
 * itself. For one that is written anew nothing moves as long as it is seen.
 */
function aroundWritten(box: TopicBox): Bounds[] {
  const { parent } = box
  return parent && box.topic.text === '' ? [boundsOf([parent, ...parent.below]), boundsOf([parent, box]), box] : [box]
}

/** From so many topics more at once on, a map that was seen whole is seen from its beginning again. */
const MANY_MORE = 8

/** Carries out what the workspace asks a stage to show, keeps in view what is written, and never lets the selection get lost. */
export function useShow(
  pane: Pane,
  index: number,
  held: boolean,
  scene: Scene,
  control: ViewControl,
  tree: RefObject<HTMLElement | null>,
): void {
  const { layout, bounds } = scene
  const { sized, hasSize, begin, fit, fitWidth, centre, reveal, seesWhole, keep, zoomTo, back } = control
  const shown = useRef(0)
  /** What was on the stage before, for who asks whether it was seen whole. */
  const earlier = useRef<{ map: string; bounds: Bounds; count: number } | null>(null)
  // biome-ignore lint/correctness/useExhaustiveDependencies: `sized` tells when the stage has got its size.
  useEffect(() => {
    if (!held || !hasSize() || !pane.show || shown.current === pane.show.request) return
    shown.current = pane.show.request
    earlier.current = null
    const { what, branch } = pane.show
    const step = (['in', 'out', 'full'] as const).find((each) => each === what)
    if (step) return zoomTo(step)
    const box = layout.byKey.of(what)
    const chosen = pane.selected.flatMap((id) => layout.byKey.of(id) ?? [])
    if (box && branch) fit(branchBounds(layout, box))
    else if (box) centre(box)
    else if (what === 'start' && layout.boxes[0]) begin(sightsOf(layout, bounds), lastLookAt(pane.map))
    else if (what === 'selected' && chosen.length > 0) fit(boundsOf(chosen))
    else if (what === 'seen') {
      for (const one of chosen) reveal(one)
    } else if (what === 'width') fitWidth(bounds)
    else if (what === 'back') back()
    else fit(bounds)
    takeFocus(tree.current)
  }, [held, hasSize, sized, pane.show, layout, bounds, centre, fit, fitWidth, reveal, begin, back, zoomTo, tree])

  const last = pane.selected.at(-1)
  const revealed = useRef<string | undefined>(undefined)
  // biome-ignore lint/correctness/useExhaustiveDependencies: `sized` tells when the stage has got its size.
  useEffect(() => {
    if (!held || !hasSize()) return
    const before = earlier.current
    earlier.current = { map: pane.map, bounds, count: layout.boxes.length }
    const key = `${last} ${pane.editing?.topic}`
    const box = last ? layout.byKey.of(last) : undefined
    const isNew = box !== undefined && revealed.current !== key
    if (isNew) revealed.current = key
    const wasWhole = before?.map === pane.map && before.bounds !== bounds && seesWhole(before.bounds)
    if (wasWhole) {
      const sights = sightsOf(layout, bounds)
      const wanted = !box ? [] : pane.editing ? aroundWritten(box) : [branchBounds(layout, box), box]
      keep(sights, true, wanted)
      if (!pane.editing && layout.boxes.length > before.count + MANY_MORE && !seesWhole(bounds)) begin(sights, null)
    } else if (isNew && pane.editing)
      keep({ bounds, boxes: [], beginning: null, readable: 0 }, false, aroundWritten(box))
    if (isNew && !pane.editing) reveal(box, coveredBySheet())
  }, [last, pane.editing, pane.map, held, layout, bounds, hasSize, sized, seesWhole, keep, begin, reveal])

  // A drawer that opens over the map covers nothing of what it is about.
  const sheetOpen = useWorkspace((state) => state.sheetOpen)
  const opened = useRef(sheetOpen)
  useEffect(() => {
    const isOpening = sheetOpen && !opened.current
    opened.current = sheetOpen
    const box = last ? layout.byKey.of(last) : undefined
    if (isOpening && box && held && hasSize() && coveredBySheet() > 0) reveal(box, coveredBySheet())
  }, [sheetOpen, last, layout, held, hasSize, reveal])

  // A selected topic that is no longer shown hands over to the nearest one above it that is.
  const before = useRef(layout)
  useEffect(() => {
    const gone = last && !layout.byKey.of(last) ? before.current.byKey.of(last) : undefined
    before.current = layout
    if (!gone || pane.editing) return
    let above = gone.parent
    while (above && !layout.byKey.of(above.topic.id)) above = above.parent
    const next: TopicId | undefined = above?.topic.id ?? layout.boxes[0]?.topic.id
    if (next) workspace.select(index, [next])
  }, [last, layout, index, pane.editing])
}
