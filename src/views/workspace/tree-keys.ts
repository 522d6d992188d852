import type { KeyboardEvent } from 'react'
import type { TopicId } from '../../core/records/ids'
import type { Situation } from '../acts/act'
import { actByKey, keyName } from '../acts/acts'
import { workspace } from './workspace-store'

/** Where arrows lead; differs between the faces. */
export type Navigate = (from: TopicId, key: 'ArrowUp' | 'ArrowDown' | 'ArrowLeft' | 'ArrowRight') => TopicId | null

const isArrow = (key: string): key is Parameters<Navigate>[1] => /^Arrow(Up|Down|Left|Right)$/.test(key)

/** What a key does while topics are selected and none is being written. The faces of a map share it. */
export function handleTreeKey(event: KeyboardEvent, situation: Situation, navigate: Navigate): void {
  if (event.nativeEvent.isComposing) return
  const { index, topics, session } = situation
  const key = keyName(event)
  const last = topics.at(-1)
  const isLetter = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey
  if (isArrow(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    const to = last ? navigate(last.id, event.key) : (session.records.root(situation.pane.map)?.id ?? null)
    if (to) workspace.select(index, event.shiftKey ? [...new Set([...topics.map(({ id }) => id), to])] : [to])
    event.preventDefault()
  } else if (actByKey(key, situation)) event.preventDefault()
  else if (event.key === 'Escape') workspace.select(index, last ? [last.id] : [])
  else if (isLetter && event.key !== ' ' && topics.length === 1 && session.mayEdit) {
    // Behind the words that are there: no letter that slips takes them away. What is begun so is given up by Esc.
    const { id, text } = topics[0]!
    workspace.edit(index, { topic: id, text: `${text}${/\S$/.test(text) ? ' ' : ''}${event.key}` })
    event.preventDefault()
  }
}
