import { IconArrowRight, IconCalendar, IconCornerRightDown, IconPaperclip, IconWorld } from '@tabler/icons-react'
import type { ReactNode } from 'react'
import type { MapId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import { sayDays } from '../app/when'
import { farEnd } from '../sheet/far-end'
import { useSession } from '../sync/use-session'
import { workspace } from '../workspace/workspace-store'
import styles from './page.module.css'

/** One line below a heading: the map behind it, its days, tags, files, web links and cross-links, each leading there. */
export function QuietLine({ topic, index }: { topic: TopicRecord; index: number }) {
  const session = useSession()
  const { records } = session
  const parts: ReactNode[] = []
  if (topic.opensMap) {
    const map = topic.opensMap
    parts.push(
      <button key="opens" type="button" onClick={() => workspace.go(index, map, null)}>
        <IconCornerRightDown size={14} aria-hidden /> opens {session.titleOf(map)}
      </button>,
    )
  }
  if (topic.dates)
    parts.push(
      <span key="dates">
        <IconCalendar size={14} aria-hidden /> {sayDays(topic.dates)}
      </span>,
    )
  for (const id of topic.tags) {
    const tag = records.get('tag', id)
    if (tag && !tag.trashed) parts.push(<span key={id}>{tag.name}</span>)
  }
  for (const { id, file } of records.attachments(topic.id)) {
    const name = records.get('file', file)?.name
    if (name)
      parts.push(
        <button key={id} type="button" onClick={() => workspace.read(topic.id, { kind: 'attachment', id })}>
          <IconPaperclip size={14} aria-hidden /> {name}
        </button>,
      )
  }
  for (const { id, url, title } of records.weblinks(topic.id))
    parts.push(
      <a key={id} href={url} target="_blank" rel="noopener noreferrer">
        <IconWorld size={14} aria-hidden /> {title || url}
      </a>,
    )
  for (const link of records.crosslinksFrom(topic.id)) {
    const { far, map, text } = farEnd(session, link, 'out', topic)
    parts.push(
      <button key={link.id} type="button" onClick={() => workspace.go(index, map as MapId, far)}>
        <IconArrowRight size={14} aria-hidden /> {link.label ? `${link.label}: ` : ''}
        {text}
      </button>,
    )
  }
  return parts.length > 0 ? <div className={styles.quiet}>{parts}</div> : null
}
