import type { DragEvent } from 'react'
import { scatterItems } from '../../core/commands/scatter-items'
import type { MapLayout } from '../../core/layout/boxes'
import type { Situation } from '../acts/act'
import { tell } from '../app/api'
import { DRAWING_TYPE } from '../pictures/drawing-type'
import { PASSAGE_TYPE } from '../reading/passage'
import { contentsOf, itemsOf, takeOver } from '../workspace/clipboard'
import { workspace } from '../workspace/workspace-store'

const TAKEN = ['Files', 'text/plain', 'text/html', DRAWING_TYPE, PASSAGE_TYPE]

/**
 * What the stage takes from outside: files, drawings of the library, text of other windows. On a topic they hang there;
 * on the empty surface each stands alone, as a loose topic at the point of the drop.
 */
export function dropHandlers(
  situation: () => Situation,
  layout: MapLayout,
  pointAt: (event: { clientX: number; clientY: number }) => { x: number; y: number },
) {
  const take = async (event: DragEvent) => {
    const now = situation()
    const { session, index, pane } = now
    const id = (event.target as Element).closest('[data-topic]')?.getAttribute('data-topic') ?? ''
    const topic = layout.byKey.of(id)?.topic.id
    const { x, y } = pointAt(event)
    const at = topic ? { topic } : { map: pane.map, x: Math.round(x), y: Math.round(y) }
    const drawing = event.dataTransfer.getData(DRAWING_TYPE)
    if (event.dataTransfer.types.includes(PASSAGE_TYPE)) {
      if (topic) (await import('../reading/take-over')).takeOverPassage(session, 'topic', topic)
      else tell('Drop the passage onto a topic: it becomes one below it.')
      return
    }
    const contents = contentsOf(event.dataTransfer)
    const files = [...event.dataTransfer.files]
    if (drawing !== '') {
      const { LIBRARY, drawingFile } = await import('../pictures/drawings')
      const found = LIBRARY.find(({ name }) => name === drawing)
      if (found) files.push(drawingFile(found))
    }
    if (files.length > 0) {
      const { takeFiles } = await import('../pictures/send-picture')
      const made = await takeFiles(session, files, at)
      if (made.length > 0) workspace.select(index, made)
    } else if (topic) await takeOver(now, topic, contents)
    else {
      const items = await itemsOf(contents)
      const made =
        items.length > 0 &&
        session.run((records, newIds) => scatterItems(records, { map: pane.map, x, y, items }, newIds))
      if (made) workspace.select(index, made)
    }
  }
  return {
    onDragOver(event: DragEvent): void {
      if (event.dataTransfer.types.some((type) => TAKEN.includes(type))) event.preventDefault()
    },
    onDrop(event: DragEvent): void {
      if (!situation().session.mayEdit) return
      event.preventDefault()
      void take(event)
    },
  }
}
