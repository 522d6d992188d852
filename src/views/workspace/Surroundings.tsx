import { HoverCard } from '@mantine/core'
import { type CSSProperties, memo, useCallback } from 'react'
import type { MapId } from '../../core/records/ids'
import { topicsInOrder } from '../../core/tree/walk'
import { PeekCard } from '../pictures/PeekCard'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { CloseColumn } from './CloseColumn'
import { beginDrag, useDragged } from './dragging'
import { trailOf } from './trail'
import styles from './workspace.module.css'
import { useCalmWorkspace, workspace } from './workspace-store'

/** What stands around a map, as far as it is shown. */
function around(session: CollectionSession, map: MapId) {
  const named = (id: MapId) => ({ map: id, name: session.titleOf(id) })
  const doorways = [...topicsInOrder(session.records, map)].flatMap(({ id, text, opensMap }) => {
    if (!opensMap) return []
    const count = session.isShut(opensMap) ? 'not open' : String(session.countTopics(opensMap))
    return { id, map: opensMap, name: text, count }
  })
  const inTrash = new Set<string>(session.maps.flatMap(({ id, trashed }) => (trashed ? id : [])))
  const linked = (session.maps.find(({ id }) => id === map)?.linked ?? []).filter((other) => !inTrash.has(other.map))
  return {
    trail: trailOf(session, map).map(named),
    doorways,
    linked: linked.map(({ map: other, links }) => ({ ...named(other), count: String(links) })),
  }
}

/** Where this map stands: the way to it, the maps behind its doorways, and those it is cross-linked with. */
export const Surroundings = memo(() => {
  const { panes, active } = useCalmWorkspace()
  const pane = panes[active]
  return pane ? <Around map={pane.map} active={active} /> : null
})
Surroundings.displayName = 'Surroundings'

const Around = memo(({ map: here, active }: { map: MapId; active: number }) => {
  const { trail, doorways, linked } = useCalmPart(
    useCallback((session: CollectionSession) => around(session, here), [here]),
  )
  const handle = useSessionHandle()
  const { mayEdit } = handle
  const onto = useDragged(({ dragged }) => dragged?.onto ?? null)
  const place = (of: { map: MapId; name: string; count?: string }) => {
    if (of.map === here) return placeButton(of)
    return (
      <HoverCard openDelay={400} closeDelay={80} position="right-start" withinPortal disabled={onto !== null}>
        <HoverCard.Target>{placeButton(of)}</HoverCard.Target>
        <HoverCard.Dropdown>
          <PeekCard map={of.map} ways={[]} />
        </HoverCard.Dropdown>
      </HoverCard>
    )
  }
  const placeButton = ({ map, name, count = '' }: { map: MapId; name: string; count?: string }) => (
    <button
      type="button"
      className={styles.place}
      aria-current={map === here ? 'page' : undefined}
      data-drop-map={map === here ? undefined : map}
      data-onto={onto === `map ${map}` || undefined}
      title={map === here ? undefined : mayEdit ? 'Press to go there; drag it onto a topic, which then opens it' : name}
      onPointerDown={(event) => {
        if (event.button === 0 && map !== here && mayEdit) beginDrag(handle, { map }, event)
      }}
      onClick={() => workspace.go(active, map, null)}
    >
      <span>{name}</span>
      <span className={styles.count}>{count}</span>
    </button>
  )
  return (
    <nav className={styles.left} data-column="surroundings" aria-label="Surroundings">
      <CloseColumn label="Close the surroundings" close={() => workspace.openLeft(false)} />
      <h2>The way to this map</h2>
      <ul className={styles.steps}>
        {trail.map((step, i) => (
          <li key={step.map} style={{ '--step': i } as CSSProperties}>
            {place(step)}
          </li>
        ))}
      </ul>
      <h2>Doorways</h2>
      {doorways.length === 0 && (
        <p className={styles.quiet}>None yet. Split a branch off and its topic becomes a doorway.</p>
      )}
      <ul>
        {doorways.map((doorway) => (
          <li key={doorway.id}>{place(doorway)}</li>
        ))}
      </ul>
      <h2>Cross-linked maps</h2>
      {linked.length === 0 && <p className={styles.quiet}>None yet. Link a topic here with one on another map.</p>}
      <ul>
        {linked.map((other) => (
          <li key={other.map}>{place(other)}</li>
        ))}
      </ul>
    </nav>
  )
})
Around.displayName = 'Around'
