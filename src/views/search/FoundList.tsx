import { UnstyledButton } from '@mantine/core'
import {
  IconFileText,
  IconFrame,
  IconMap2,
  IconMessage,
  IconNote,
  IconPaperclip,
  IconPoint,
  IconTag,
  IconWorld,
  type TablerIcon,
} from '@tabler/icons-react'
import { foundAddress } from '../dialogs/found'
import { Marked } from '../dialogs/Marked'
import { useSessionHandle } from '../sync/use-session'
import styles from './search.module.css'
import type { FoundRow, Kind } from './search-answer'

const ICONS: Record<Kind, { icon: TablerIcon; name: string }> = {
  map: { icon: IconMap2, name: 'Map' },
  topic: { icon: IconPoint, name: 'Topic' },
  enclosure: { icon: IconFrame, name: 'Enclosure' },
  tag: { icon: IconTag, name: 'Tag' },
  note: { icon: IconNote, name: 'Note' },
  comment: { icon: IconMessage, name: 'Comment' },
  weblink: { icon: IconWorld, name: 'Web link' },
  file: { icon: IconPaperclip, name: 'File' },
  'file text': { icon: IconFileText, name: 'Inside a file' },
}

interface Props {
  rows: readonly FoundRow[]
  words: readonly string[]
  onTag(tag: string): void
  /** One of them was gone to. */
  onTaken(): void
}

/** What was found, with its words marked and the way to it; each leads to the spot. */
export function FoundList({ rows, words, onTag, onTaken }: Props) {
  const { id: collection } = useSessionHandle()
  return (
    <ul className={styles.found} aria-label="Found">
      {rows.map((row) => {
        const { icon: Icon, name } = ICONS[row.kind]
        const said = (
          <>
            <Icon size={18} aria-label={name} className={styles.icon} />
            <span>
              <span className={['note', 'comment', 'file text'].includes(row.kind) ? styles.note : styles.name}>
                <Marked text={row.text || 'Untitled'} words={words.join(' ')} />
              </span>
              {row.kind !== 'map' && row.kind !== 'tag' && <span className={styles.way}>{wayOf(row)}</span>}
            </span>
          </>
        )
        return (
          <li key={`${row.kind} ${row.id} ${row.topic}`}>
            {row.kind === 'tag' ? (
              <UnstyledButton className={styles.row} onClick={() => onTag(row.id)}>
                {said}
              </UnstyledButton>
            ) : (
              <a className={styles.row} href={foundAddress(collection, row)} onClick={onTaken}>
                {said}
              </a>
            )}
          </li>
        )
      })}
    </ul>
  )
}

/** Map, the topics above, and for what lies behind a topic that one. */
function wayOf({ kind, mapTitle, way, topicText, file, page }: FoundRow): string {
  const above = way[0] === mapTitle ? way.slice(1) : way
  const behind = kind === 'note' || kind === 'comment' || kind === 'weblink' || kind === 'file' ? [topicText ?? ''] : []
  if (kind === 'file text') behind.push(topicText ?? '', page && page > 1 ? `${file}, page ${page}` : (file ?? ''))
  return [mapTitle, ...above, ...behind].map((text) => text || 'Untitled').join(' › ')
}
