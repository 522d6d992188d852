import { ActionIcon, Button, Menu, Stack } from '@mantine/core'
import {
  IconArrowLeft,
  IconArrowRight,
  IconArrowsHorizontal,
  IconDots,
  IconFrame,
  IconLink,
  IconMap2,
} from '@tabler/icons-react'
import { useCallback } from 'react'
import { askedWords } from '../../core/gathering/asked'
import { writeAsked } from '../../core/gathering/asked-address'
import { incomingAt } from '../../core/network/crosslinks'
import { sourcesAt } from '../../core/network/sources'
import type { CrosslinkRecord } from '../../core/records/crosslink'
import type { SearchAsked } from '../../core/records/search'
import type { TopicRecord } from '../../core/records/topic'
import { useAround } from '../app/around'
import { foundWords, useGatheredBy } from '../search/gathered-by'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { workspace } from '../workspace/workspace-store'
import { type Direction, farEnd } from './far-end'
import { LinkMenu } from './LinkMenu'
import styles from './sheet.module.css'
import { AddWeblink, WeblinkEntry } from './Weblinks'

/** Cross-links in both directions, and addresses on the web. */
export default function LinksSection({ topic, pane }: { topic: TopicRecord; pane: number }) {
  const mayEdit = useMayEdit()
  const around = useAround(topic)
  const linkedFrom = around?.linkedFrom.filter(({ id }) => id !== topic.id) ?? []
  const { out, incoming, weblinks } = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) => ({
        out: records.crosslinksFrom(topic.id),
        incoming: incomingAt(records, topic),
        weblinks: sourcesAt(records, topic.id).filter((source) => source.kind === 'weblink'),
      }),
      [topic],
    ),
  )
  return (
    <Stack gap="xs">
      <ul className={styles.entries}>
        {out.map((link) => (
          <CrosslinkEntry key={link.id} link={link} pane={pane} direction="out" from={topic} />
        ))}
        {incoming.map((link) => (
          <CrosslinkEntry key={link.id} link={link} pane={pane} direction="in" from={topic} />
        ))}
        {linkedFrom.map(({ id, text, map, mapTitle }) => (
          <li key={id}>
            <IconArrowLeft size={16} aria-label="Comes from" />
            <button
              type="button"
              className={`${styles.jump} ${styles.grow}`}
              onClick={() => workspace.go(pane, map, id)}
            >
              {text || 'Untitled'}
              <span className={styles.where}>
                {map === topic.place.map ? ' in its note' : ` in its note, in ${mapTitle || 'Untitled'}`}
              </span>
            </button>
          </li>
        ))}
        {weblinks.map((link, at) => (
          <WeblinkEntry
            key={link.id}
            link={link}
            at={at}
            of={weblinks.length}
            alsoAt={around?.sharing.filter((other) => other.link === link.id) ?? []}
            pane={pane}
          />
        ))}
      </ul>
      {topic.gathers && <GatheredHere topic={topic} asked={topic.gathers} />}
      {mayEdit && (
        <div className={styles.ways}>
          <Button
            variant="default"
            size="xs"
            leftSection={<IconLink size={16} />}
            onClick={() => workspace.dialog({ kind: 'link', from: topic.id })}
          >
            Cross-link with …
          </Button>
          <AddWeblink key={topic.id} topic={topic.id} />
        </div>
      )}
    </Stack>
  )
}

/** What a gathered list asks for, with the way to change it. */
function GatheredHere({ topic, asked }: { topic: TopicRecord; asked: SearchAsked }) {
  const { id } = useSessionHandle()
  const { data } = useGatheredBy(id, writeAsked(asked).toString())
  const mayEdit = useMayEdit()
  const words = useCalmPart(
    useCallback(
      (session: CollectionSession) =>
        askedWords(asked, {
          tag: (id) => session.records.get('tag', id)?.name ?? 'a tag that is gone',
          map: (id) => session.titleOf(id),
        }),
      [asked],
    ),
  )
  return (
    <p className={styles.gathers}>
      <span>
        Gathers: {words}.{data && ` Finds ${data.count === 0 ? 'nothing now' : foundWords(data)}.`}
      </span>
      {mayEdit && (
        <Button
          variant="default"
          size="compact-xs"
          onClick={() => workspace.dialog({ kind: 'gather', topic: topic.id })}
        >
          Change …
        </Button>
      )}
    </p>
  )
}

function CrosslinkEntry({
  link,
  pane,
  direction,
  from,
}: {
  link: CrosslinkRecord
  pane: number
  direction: Direction
  from: TopicRecord
}) {
  const mayEdit = useMayEdit()
  const { far, map, text, enclosure, title } = useCalmPart(
    useCallback((now: CollectionSession) => farEnd(now, link, direction, from), [link, direction, from]),
  )
  const elsewhere = map !== from.place.map
  return (
    <li>
      {link.bothWays ? (
        <IconArrowsHorizontal size={16} aria-label="Leads both ways, with" />
      ) : direction === 'out' ? (
        <IconArrowRight size={16} aria-label="Leads to" />
      ) : (
        <IconArrowLeft size={16} aria-label="Comes from" />
      )}
      <button type="button" className={`${styles.jump} ${styles.grow}`} onClick={() => workspace.go(pane, map, far)}>
        {!far && <IconMap2 size={14} aria-label="Map" />}
        {direction === 'out' && enclosure !== null && <IconFrame size={14} aria-label="Enclosure" />}{' '}
        {text || 'Untitled'}
        {direction === 'in' && enclosure !== null && <span className={styles.where}> to {enclosure}</span>}
        {link.label !== '' && <span className={styles.where}> {link.label}</span>}
        {elsewhere && far && <span className={styles.where}> in {title}</span>}
      </button>
      {mayEdit && (
        <Menu position="bottom-end">
          <Menu.Target>
            <ActionIcon
              variant="subtle"
              color="gray"
              size="sm"
              aria-label={`Cross-link with ${text}: what can be done`}
            >
              <IconDots size={14} />
            </ActionIcon>
          </Menu.Target>
          <Menu.Dropdown>
            <LinkMenu link={link} isHere={!elsewhere} />
          </Menu.Dropdown>
        </Menu>
      )}
    </li>
  )
}
