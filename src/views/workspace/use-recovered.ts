import { useEffect } from 'react'
import { tell } from '../app/api'
import type { CollectionSession } from '../sync/collection-session'
import { useWorkspace, workspace } from './workspace-store'

/**
 * Where something was being written when a page came to no good end, the person goes on: its field is opened again, on the map
 * that is shown, with what was kept of it. To be called with each change of the session.
 */
export function useRecovered(session: CollectionSession): void {
  useEffect(() => {
    const { panes } = useWorkspace.getState()
    for (const field of session.recovered) {
      const topic = session.records.get('topic', field.topic)
      const index = panes.findIndex(({ map }) => map === topic?.place.map)
      if (!topic || index < 0) continue
      session.recovered.splice(session.recovered.indexOf(field), 1)
      tell(`What was being written when the page went is kept: “${topic.text || 'Untitled'}”.`)
      if (panes[index]!.editing || !session.mayEditMap(topic.place.map)) return
      workspace.activate(index)
      if (field.part === 'text' && panes[index]!.face !== 'page')
        workspace.edit(index, { topic: topic.id, text: topic.text })
      else {
        workspace.select(index, [topic.id])
        workspace.show(index, topic.id)
      }
      if (field.part === 'note') workspace.openSection('note')
      return
    }
  })
}
