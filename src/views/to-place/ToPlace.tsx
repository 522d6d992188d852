import { ActionIcon, Button, Group, SegmentedControl, Text, Textarea } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useEffect, useState } from 'react'
import { deleteTopics } from '../../core/commands/delete-topics'
import { moveTopics } from '../../core/commands/move-topics'
import { setText } from '../../core/commands/set-text'
import { pourToPlace } from '../../core/commands/to-place'
import type { MapId, TopicId } from '../../core/records/ids'
import { toPlaceOn } from '../../core/tree/to-place'
import { branch } from '../../core/tree/walk'
import { tellTrouble } from '../app/api'
import { useHalfWritten } from '../app/half-written'
import { useSession, useSessionHandle } from '../sync/use-session'
import { beginDrag, useDragged } from '../workspace/dragging'
import { useWorkspace, workspace } from '../workspace/workspace-store'
import styles from './to-place.module.css'

/** The drawer of what is still to be placed: poured in here, dragged onto the map from here, or sorted first. */
export default function ToPlace({ scope }: { scope: 'map' | 'collection' }) {
  const session = useSession()
  const { panes, active } = useWorkspace()
  const pane = panes[active]!
  const home = session.collection.homeMap
  const map: MapId | null = scope === 'collection' ? home : pane.map
  const isHeld = map !== null && session.isOpen(map)
  useEffect(() => {
    if (map && !session.isOpen(map) && !session.isShut(map)) session.openMap(map).catch(tellTrouble)
  }, [map, session])
  const waiting = isHeld ? toPlaceOn(session.records, map) : []
  const [marked, setMarked] = useState<readonly TopicId[]>([])
  const chosen = marked.filter((id) => waiting.some((topic) => topic.id === id))
  const isOver = useDragged(({ dragged }) => map !== null && dragged?.onto === `drawer ${map}`)
  const target = session.records.get('topic', pane.selected[0] ?? null) ?? session.records.root(pane.map)
  const isSame = pane.map === home
  const place = () => {
    const select =
      target &&
      session.run((records, newIds) =>
        moveTopics(records, { topics: chosen, parent: target.id, after: 'last', side: null }, newIds),
      )
    if (select) workspace.select(active, select)
  }
  const reword = () => {
    const topic = session.records.need('topic', chosen[0]!)
    workspace.dialog({
      kind: 'ask',
      title: 'Another text',
      label: 'Text of the idea',
      value: topic.text,
      act: 'Take it',
      take: (text) => session.run((records, newIds) => setText(records, { topic: topic.id, text }, newIds)),
    })
  }
  return (
    <section
      className={styles.drawer}
      data-drawer
      aria-label="To place"
      data-drop-drawer={map ?? undefined}
      data-onto={isOver || undefined}
    >
      <Group gap="sm" className={styles.head}>
        <strong>To place</strong>
        {!isSame && (
          <SegmentedControl
            size="xs"
            aria-label="Whose drawer"
            value={scope}
            data={[
              { value: 'map', label: 'on this map' },
              { value: 'collection', label: 'anywhere' },
            ]}
            onChange={(value) => {
              setMarked([])
              workspace.openDrawer(value === 'map' ? 'map' : 'collection')
            }}
          />
        )}
        {session.mayEdit && isHeld && <PourField onPour={(text) => pour(session, map, text)} />}
        <Button
          size="compact-sm"
          variant="default"
          disabled={waiting.length === 0 || !session.mayEdit}
          onClick={() => map && workspace.dialog({ kind: 'sort', what: { drawer: map } })}
        >
          Sort …
        </Button>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label="Close the drawer"
          onClick={() => workspace.openDrawer(null)}
        >
          <IconX size={16} />
        </ActionIcon>
      </Group>
      {map && session.isShut(map) ? (
        <Text size="sm" c="dimmed">
          The home map is not open to you, and with it what is to be placed anywhere.
        </Text>
      ) : waiting.length === 0 ? (
        <Text size="sm" c="dimmed">
          {isHeld
            ? 'Nothing waits here. Write ideas above, one a line, or drag topics here from the map.'
            : 'Opening the drawer'}
        </Text>
      ) : (
        <ul className={styles.items} aria-label="Ideas to place">
          {waiting.map((topic) => {
            const below = [...branch(session.records, topic)].length - 1
            const isChosen = chosen.includes(topic.id)
            return (
              <li key={topic.id}>
                <button
                  type="button"
                  className={styles.item}
                  aria-pressed={isChosen}
                  onClick={() => setMarked(isChosen ? chosen.filter((id) => id !== topic.id) : [...chosen, topic.id])}
                  onPointerDown={(event) => {
                    if (event.button === 0) beginDrag(session, { topics: isChosen ? chosen : [topic.id] }, event)
                  }}
                >
                  <span>{topic.text || 'Untitled'}</span>
                  {below > 0 && <span className={styles.below}>{below}</span>}
                </button>
              </li>
            )
          })}
        </ul>
      )}
      {chosen.length > 0 && session.mayEdit && (
        <Group gap="sm" role="group" aria-label="Chosen ideas" className={styles.foot}>
          {target && (
            <Button size="compact-sm" onClick={place} className={styles.place}>
              Hang {chosen.length === 1 ? 'it' : `these ${chosen.length}`} on {target.text.slice(0, 40) || 'Untitled'}
            </Button>
          )}
          {chosen.length === 1 && (
            <Button size="compact-sm" variant="default" onClick={reword}>
              Reword …
            </Button>
          )}
          <Button
            size="compact-sm"
            variant="subtle"
            color="ember"
            onClick={() => session.run((records, newIds) => deleteTopics(records, { topics: chosen }, newIds))}
          >
            Delete
          </Button>
        </Group>
      )}
    </section>
  )
}

const pour = (session: ReturnType<typeof useSession>, map: MapId, text: string): boolean =>
  session.run((records, newIds) => pourToPlace(records, { map, text }, newIds)) !== null

/** Takes ideas one line after the other; several lines that are pasted become as many. */
export function PourField({ onPour }: { onPour(text: string): boolean }) {
  const session = useSessionHandle()
  const [text, setText] = useHalfWritten(`to-place:${session.person}:${session.id}`)
  const take = (all: string) => {
    if (all.trim() !== '' && onPour(all)) setText('')
  }
  return (
    <Textarea
      className={styles.field}
      size="xs"
      rows={1}
      autosize
      maxRows={4}
      aria-label="An idea to be placed"
      placeholder="An idea, then Enter"
      value={text}
      onChange={(event) => setText(event.currentTarget.value)}
      onPaste={(event) => {
        const pasted = event.clipboardData.getData('text/plain')
        if (!pasted.trim().includes('\n')) return
        event.preventDefault()
        take(`${text}${pasted}`)
      }}
      onKeyDown={(event) => {
        event.stopPropagation()
        if (event.key !== 'Enter' || event.shiftKey || event.nativeEvent.isComposing) return
        event.preventDefault()
        take(text)
      }}
    />
  )
}
