import { Text, UnstyledButton } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { incomingAt } from '../../core/network/crosslinks'
import type { MapId, TopicId } from '../../core/records/ids'
import { parentOf } from '../../core/records/place'
import { Records } from '../../core/records/records'
import { putSnapshot } from '../../core/records/snapshot'
import type { TopicRecord } from '../../core/records/topic'
import { ask } from '../app/api'
import pictures from '../pictures/pictures.module.css'
import { type Direction, farEnd } from '../sheet/far-end'
import { HeldSnapshot } from '../sync/api-schemas'
import type { CollectionSession } from '../sync/collection-session'
import { workspace } from '../workspace/workspace-store'

/** Of so many links it is shown what stands around their far ends; the sheet lists all of them. */
const MOST_SHOWN = 4
const MOST_BELOW = 3
/** A map that is not open is looked into as it was so long ago at most, in ms. */
const FRESH_MS = 60_000

/** What stands around a topic: what it hangs on, and what hangs on it. */
interface Around {
  above: string
  below: string[]
}

function around(records: Records, id: string): Around | null {
  const topic = records.get('topic', id)
  if (!topic) return null
  const parent = records.get('topic', parentOf(topic))
  const below = records.children(topic.id).map(({ text }) => text || 'Untitled')
  return { above: parent?.text ?? '', below }
}

/** Where the cross-links of a topic lead, with what stands around it there, before one goes. */
export default function LinksPeek({
  session,
  topic,
  index,
  onEnd,
}: {
  session: CollectionSession
  topic: TopicRecord
  index: number
  onEnd(): void
}) {
  const { records } = session
  const ends = [
    ...records.crosslinksFrom(topic.id).map((link) => ({ link, direction: 'out' as Direction })),
    ...incomingAt(records, topic).map((link) => ({ link, direction: 'in' as Direction })),
  ].map(({ link, direction }) => ({ key: `${link.id} ${direction}`, ...farEnd(session, link, direction, topic) }))
  return (
    <div className={pictures.peek}>
      {ends.slice(0, MOST_SHOWN).map(({ key, far, map, text, title }) => (
        <UnstyledButton
          key={key}
          className={pictures.peekEnd}
          disabled={session.isShut(map)}
          onClick={() => {
            onEnd()
            workspace.go(index, map, far)
          }}
        >
          <FarEnd session={session} map={map} far={far} text={text} title={map === topic.place.map ? null : title} />
        </UnstyledButton>
      ))}
      {ends.length > MOST_SHOWN && (
        <Text size="xs" c="dimmed">
          and {ends.length - MOST_SHOWN} more
        </Text>
      )}
    </div>
  )
}

function FarEnd({
  session,
  map,
  far,
  text,
  title,
}: {
  session: CollectionSession
  map: MapId
  far: TopicId | null
  text: string
  /** Of the map where it stands, unless it is this one. */
  title: string | null
}) {
  const held = far ? around(session.records, far) : null
  const { data } = useQuery({
    queryKey: ['around', session.id, map, far],
    queryFn: async () => {
      const snapshot = await ask(HeldSnapshot, `/api/collections/${session.id}/maps/${map}`)
      const records = new Records()
      putSnapshot(records, snapshot)
      return around(records, far!)
    },
    enabled: far !== null && held === null && !session.isShut(map),
    staleTime: FRESH_MS,
    retry: false,
  })
  const seen = held ?? data
  const where = [title, seen?.above && `below ${seen.above}`].filter(Boolean).join(', ')
  return (
    <>
      {where !== '' && (
        <Text size="xs" c="dimmed" className={pictures.peekTitle}>
          {where}
        </Text>
      )}
      <Text size="sm" fw={600} className={pictures.peekTitle}>
        {text || 'Untitled'}
      </Text>
      {seen && seen.below.length > 0 && (
        <ul className={pictures.peekTopics}>
          {seen.below.slice(0, MOST_BELOW).map((words, i) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: several topics can have the same text.
            <li key={i}>{words}</li>
          ))}
          {seen.below.length > MOST_BELOW && <li>and {seen.below.length - MOST_BELOW} more</li>}
        </ul>
      )}
    </>
  )
}
