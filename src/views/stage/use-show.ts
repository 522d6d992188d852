import { type RefObject, useEffect, useRef } from 'react'
import { boundsOf, type MapLayout, type TopicBox } from '../../core/layout/boxes'
import type { TopicId } from '../../core/records/ids'
import type { Scene } from '../../core/scene/scene'
import { takeFocus } from '../workspace/take-focus'
import { type Pane, workspace } from '../workspace/workspace-store'
import type { ViewControl } from './use-view'

/** The box of a topic with those of all that is shown below it. */
function branchBounds(layout: MapLayout, head: TopicBox) {
  const inside = new Set<TopicBox>([head])
  for (const box of layout.boxes) if (box.parent && inside.has(box.parent)) inside.add(box)
  return boundsOf([...inside])
}

/** Carries out what the workspace asks a stage to show, brings the selection into view, and never lets it get lost. */
export function useShow(
  pane: Pane,
  index: number,
  held: boolean,
  scene: Scene,
  control: ViewControl,
  tree: RefObject<HTMLElement | null>,
): void {
  const { layout, bounds } = scene
  const { sized, hasSize, begin, fit, fitWidth, centre, reveal, back } = control
  const shown = useRef(0)
  // biome-ignore lint/correctness/useExhaustiveDependencies: `sized` tells when the stage has got its size.
  useEffect(() => {
    if (!held || !hasSize() || !pane.show || shown.current === pane.show.request) return
    shown.current = pane.show.request
    const { what, branch } = pane.show
    const box = layout.byKey.of(what)
    const root = layout.boxes[0]
    if (box && branch) fit(branchBounds(layout, box))
    else if (box) centre(box)
    else if (what === 'start' && root) begin(bounds, root)
    else if (what === 'width') fitWidth(bounds)
    else if (what === 'back') back()
    else fit(bounds)
    takeFocus(tree.current)
  }, [held, hasSize, sized, pane.show, layout, bounds, centre, fit, fitWidth, begin, back, tree])

  const last = pane.selected.at(-1)
  const revealed = useRef<string | undefined>(undefined)
  // biome-ignore lint/correctness/useExhaustiveDependencies: `sized` tells when the stage has got its size.
  useEffect(() => {
    const key = `${last} ${pane.editing?.topic}`
    if (revealed.current === key || !last || !hasSize()) return
    const box = layout.byKey.of(last)
    if (box) {
      revealed.current = key
      reveal(box)
    }
  }, [last, pane.editing, layout, hasSize, sized, reveal])

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
