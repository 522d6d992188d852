import { type CSSProperties, memo } from 'react'
import type { MapId } from '../../core/records/ids'
import { topicsInOrder } from '../../core/tree/walk'
import { useCalmSession } from '../sync/use-session'
import { trailOf } from './trail'
import styles from './workspace.module.css'
import { useCalmWorkspace, workspace } from './workspace-store'

/** Where this map stands: the way to it, the maps behind its doorways, and those it is cross-linked with. */
export const Surroundings = memo(() => {
  const session = useCalmSession()
  const { panes, active } = useCalmWorkspace()
  const pane = panes[active]
  if (!pane) return null
  const trail = trailOf(session, pane.map)
  const doorways = [...topicsInOrder(session.records, pane.map)].filter((topic) => topic.opensMap)
  const linked = session.maps.find(({ id }) => id === pane.map)?.linked ?? []
  const place = (map: MapId, name: string, count: string, current = false) => (
    <button
      type="button"
      className={styles.place}
      aria-current={current ? 'page' : undefined}
      onClick={() => workspace.go(active, map, null)}
    >
      <span>{name}</span>
      <span className={styles.count}>{count}</span>
    </button>
  )
  return (
    <nav className={styles.left} aria-label="Surroundings">
      <h2>The way to this map</h2>
      <ul className={styles.steps}>
        {trail.map((map, i) => (
          <li key={map} style={{ '--step': i } as CSSProperties}>
            {place(map, session.titleOf(map), '', map === pane.map)}
          </li>
        ))}
      </ul>
      <h2>Doorways</h2>
      {doorways.length === 0 && (
        <p className={styles.quiet}>None yet. Split a branch off and its topic becomes a doorway.</p>
      )}
      <ul>
        {doorways.map((topic) => (
          <li key={topic.id}>{place(topic.opensMap!, topic.text, String(session.countTopics(topic.opensMap!)))}</li>
        ))}
      </ul>
      <h2>Cross-linked maps</h2>
      {linked.length === 0 && <p className={styles.quiet}>None yet. Link a topic here with one on another map.</p>}
      <ul>
        {linked.map(({ map, links }) => (
          <li key={map}>{place(map, session.titleOf(map), String(links))}</li>
        ))}
      </ul>
    </nav>
  )
})
Surroundings.displayName = 'Surroundings'
