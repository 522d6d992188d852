import type { KeyboardEvent } from 'react'
import type { TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import type { Situation } from '../acts/act'
import { actByKey, keyName } from '../acts/acts'
import { settingsNow } from '../app/personal'
import { workspace } from './workspace-store'

/** Where arrows lead; differs between the faces. */
export type Navigate = (from: TopicId, key: 'ArrowUp' | 'ArrowDown' | 'ArrowLeft' | 'ArrowRight') => TopicId | null

const isArrow = (key: string): key is Parameters<Navigate>[1] => /^Arrow(Up|Down|Left|Right)$/.test(key)

/** Where a key leads in the order of the tree, wherever things stand: to its beginning and end, and among siblings. */
function alongTree(key: string, { session, pane, topics }: Situation): TopicId | null | undefined {
  const { records } = session
  const root = records.get('topic', pane.only) ?? records.root(pane.map)
  const last = topics.at(-1)
  if (key === 'Home') return root?.id ?? null
  if (key === 'End') {
    let end = root
    for (let next = end; next && (next === root || !next.folded); next = records.children(end!.id).at(-1)) end = next
    const deepest = end && !end.folded ? records.children(end.id).at(-1) : undefined
    return (deepest ?? end)?.id ?? null
  }
  if (key !== 'Ctrl+ArrowUp' && key !== 'Ctrl+ArrowDown') return undefined
  if (!last) return null
  const parent = parentOf(last)
  const siblings = parent ? records.children(parent) : records.looseBranches(pane.map)
  const at = siblings.findIndex(({ id }) => id === last.id)
  return siblings[at + (key === 'Ctrl+ArrowUp' ? -1 : 1)]?.id ?? null
}

/** What a key does while topics are selected and none is being written. The faces of a map share it. */
export function handleTreeKey(event: KeyboardEvent, situation: Situation, navigate: Navigate): void {
  if (event.nativeEvent.isComposing) return
  const { index, topics, session } = situation
  const key = keyName(event)
  const last = topics.at(-1)
  const isLetter = event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey
  // Tab makes topics where one gathers, on the map; elsewhere it goes on to what comes next, as in any page.
  if (event.key === 'Tab' && situation.pane.face !== 'map') return
  const along = alongTree(key, situation)
  if (along !== undefined) {
    if (along) workspace.select(index, [along])
    event.preventDefault()
  } else if (isArrow(event.key) && !event.ctrlKey && !event.altKey && !event.metaKey) {
    const to = last ? navigate(last.id, event.key) : (session.records.root(situation.pane.map)?.id ?? null)
    if (to) workspace.select(index, event.shiftKey ? [...new Set([...topics.map(({ id }) => id), to])] : [to])
    event.preventDefault()
  } else if (actByKey(key, situation)) event.preventDefault()
  else if (event.key === 'Escape') workspace.select(index, last ? [last.id] : [])
  else if (isLetter && event.key !== ' ' && topics.length === 1 && session.mayEdit) {
    // Behind the words that are there, unless somebody has set otherwise: no letter that slips takes them away. Esc gives it up.
    const { id, text } = topics[0]!
    const before = settingsNow().typing === 'instead' ? '' : `${text}${/\S$/.test(text) ? ' ' : ''}`
    workspace.edit(index, { topic: id, text: before + event.key })
    event.preventDefault()
  }
}
