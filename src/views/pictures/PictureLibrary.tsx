import { ActionIcon, Text, TextInput } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import { useCallback, useDeferredValue, useMemo, useState } from 'react'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { useCalmWorkspace, workspace } from '../workspace/workspace-store'
import { DRAWING_TYPE } from './drawing-type'
import { drawingFile, LIBRARY, type LibraryDrawing } from './drawings'
import styles from './pictures.module.css'
import { sendPicture } from './send-picture'

/** The drawings that ship with Folvet: to be dragged onto the map, or put onto the selected topic by a click. */
export default function PictureLibrary({ side }: { side: 'left' | 'right' }) {
  const session = useSessionHandle()
  const { panes, active } = useCalmWorkspace()
  const [words, setWords] = useState('')
  const wanted = useDeferredValue(words.trim().toLowerCase())
  const found = useMemo(
    () => LIBRARY.filter((picture) => wanted.split(/\s+/).every((word) => picture.words.includes(word))),
    [wanted],
  )
  const selected = panes[active]?.selected.at(-1) ?? null
  const topic = useCalmPart(useCallback(({ records }: CollectionSession) => records.get('topic', selected), [selected]))
  const put = (drawing: LibraryDrawing) => topic && void sendPicture(session, topic.id, drawingFile(drawing))
  return (
    <section className={styles.library} data-side={side} aria-label="Drawings" data-taken>
      <header>
        <Text fw={600}>Drawings</Text>
        <ActionIcon
          variant="subtle"
          color="gray"
          aria-label="Close the drawings"
          onClick={() => workspace.library(false)}
        >
          <IconX size={16} />
        </ActionIcon>
      </header>
      <TextInput
        size="sm"
        aria-label="Find a drawing"
        placeholder="Find a drawing: bird, water, tool …"
        value={words}
        onChange={(event) => setWords(event.currentTarget.value)}
      />
      <Text size="xs" c="dimmed">
        {topic
          ? `Drag one onto the map, or click it to put it on ${topic.text.slice(0, 40)}.`
          : 'Drag one onto the map.'}
      </Text>
      <div className={styles.drawings}>
        {found.map((drawing) => (
          <button
            key={drawing.name}
            type="button"
            draggable
            title={drawing.name}
            aria-label={drawing.name}
            className={styles.drawing}
            onDragStart={(event) => event.dataTransfer.setData(DRAWING_TYPE, drawing.name)}
            onClick={() => put(drawing)}
          >
            <img src={`data:image/svg+xml,${encodeURIComponent(drawing.svg)}`} alt="" draggable={false} />
          </button>
        ))}
        {found.length === 0 && <Text c="dimmed">No drawing has these words.</Text>}
      </div>
    </section>
  )
}
