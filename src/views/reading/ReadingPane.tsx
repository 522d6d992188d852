import { ActionIcon, Button, CloseButton, Menu, Tooltip } from '@mantine/core'
import {
  IconChevronDown,
  IconChevronLeft,
  IconChevronRight,
  IconDownload,
  IconGripVertical,
  IconPaperclip,
  IconWorld,
} from '@tabler/icons-react'
import { useCallback, useEffect, useRef } from 'react'
import { isSameSource, sourcesBelow, type ToldSource } from '../../core/network/sources'
import { followOwn } from '../note-editor/follow'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSession, useSessionHandle } from '../sync/use-session'
import { type Reading, useWorkspace, workspace } from '../workspace/workspace-store'
import { Preview, WebSource } from './Preview'
import { PASSAGE_TYPE, selectPassage, takerOf, usePassage } from './passage'
import { ReadMark } from './ReadMark'
import styles from './reading.module.css'
import { showTaken, takeOverPassage } from './take-over'

/** A source beside the map: what it is one of, itself, and what is taken over from it. */
export default function ReadingPane({ reading }: { reading: Reading }) {
  const session = useSessionHandle()
  const sources = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) => {
        const scope = records.get('topic', reading.scope)
        return scope ? sourcesBelow(records, scope) : []
      },
      [reading.scope],
    ),
  )
  const at = sources.findIndex((other) => isSameSource(other, reading.source))
  const source = sources[at]
  const file = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) =>
        source?.kind === 'attachment' ? records.get('file', source.file) : undefined,
      [source],
    ),
  )
  const body = useRef<HTMLElement>(null)
  useSelectedWords(body, source)
  const open = (other: ToldSource | undefined) => other && workspace.read(reading.scope, other)
  const go = (address: string) => {
    if (source) void followOwn(session, address, source.topic)
  }
  const name = source?.name ?? 'This source is gone'
  return (
    <section className={styles.pane} aria-label={`Reading ${name}`} data-reading-pane>
      <div className={styles.head}>
        <Tooltip label="The one before">
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label="The source before"
            disabled={at <= 0}
            onClick={() => open(sources[at - 1])}
          >
            <IconChevronLeft size={18} />
          </ActionIcon>
        </Tooltip>
        <SourcesMenu sources={sources} at={at} open={open} />
        <Tooltip label="The next one">
          <ActionIcon
            variant="subtle"
            color="gray"
            aria-label="The next source"
            disabled={at < 0 || at >= sources.length - 1}
            onClick={() => open(sources[at + 1])}
          >
            <IconChevronRight size={18} />
          </ActionIcon>
        </Tooltip>
        <span className={styles.grow} />
        {source && <ReadMark source={source} />}
        {file && (
          <Tooltip label="Download">
            <ActionIcon
              variant="subtle"
              color="gray"
              component="a"
              href={`/api/collections/${session.id}/files/${file.id}`}
              download={file.name}
              aria-label={`Download ${file.name}`}
            >
              <IconDownload size={18} />
            </ActionIcon>
          </Tooltip>
        )}
        <CloseButton aria-label="Close what is read" onClick={() => workspace.stopReading()} />
      </div>
      <h2 className={styles.name} dir="auto">
        {name}
      </h2>
      <section
        className={styles.body}
        ref={body}
        key={`${reading.source.id} ${reading.request}`}
        // What is scrolled can be scrolled by keys.
        tabIndex={0}
        aria-label="The source itself"
      >
        {file && (
          <Preview
            file={file}
            address={`/api/collections/${session.id}/files/${file.id}`}
            page={reading.page}
            onLink={go}
          />
        )}
        {source?.kind === 'weblink' && <WebSource source={source} />}
        {!source && <p className={styles.gone}>It was removed, or moved to another branch.</p>}
      </section>
      {source && <PassageBar source={source} />}
    </section>
  )
}

/** Which of the sources this is, and which are still to be read. */
function SourcesMenu({
  sources,
  at,
  open,
}: {
  sources: readonly ToldSource[]
  at: number
  open(source: ToldSource): void
}) {
  const left = sources.filter(({ read }) => !read).length
  return (
    <Menu position="bottom-start" transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <Button
          variant="subtle"
          color="gray"
          size="compact-sm"
          rightSection={<IconChevronDown size={14} aria-hidden />}
        >
          {at + 1} of {sources.length}
          <span className={styles.left}>{left === 0 ? 'all read' : `${left} to read`}</span>
        </Button>
      </Menu.Target>
      <Menu.Dropdown className={styles.sources}>
        {sources.map((source, i) => (
          <Menu.Item
            key={source.id}
            leftSection={
              source.kind === 'weblink' ? <IconWorld size={16} aria-hidden /> : <IconPaperclip size={16} aria-hidden />
            }
            rightSection={<span className={styles.left}>{source.read ? 'read' : ''}</span>}
            aria-current={i === at || undefined}
            onClick={() => open(source)}
          >
            {source.name}
          </Menu.Item>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}

/** Keeps what is selected inside the source, until something else is or another source is read. */
function useSelectedWords(body: React.RefObject<HTMLElement | null>, source: ToldSource | undefined): void {
  // What is told of a source changes while it is read; what is selected in it stays.
  const told = useRef(source)
  told.current = source
  const key = source && `${source.kind} ${source.id}`
  useEffect(() => {
    if (key === undefined) return
    const look = () => {
      const source = told.current
      // Of a page of the web the words are those that were pasted.
      if (!source || source.kind === 'weblink') return
      const selection = document.getSelection()
      const anchor = selection?.anchorNode
      if (!selection || !anchor || !body.current?.contains(anchor)) return
      const text = selection.toString()
      const element = anchor instanceof Element ? anchor : anchor.parentElement
      const page = Number(element?.closest('[data-page]')?.getAttribute('data-page') ?? Number.NaN)
      selectPassage(text.trim() === '' ? null : { source, page: Number.isNaN(page) ? null : page, text })
    }
    document.addEventListener('selectionchange', look)
    // A key can be faster than the event of the selection that it is meant for.
    document.addEventListener('keydown', look, true)
    return () => {
      document.removeEventListener('selectionchange', look)
      document.removeEventListener('keydown', look, true)
      usePassage.setState({ passage: null, taken: null })
    }
  }, [body, key])
}

/** What becomes of the words that are selected. */
function PassageBar({ source }: { source: ToldSource }) {
  const session = useSession()
  const { passage, taken } = usePassage()
  useWorkspace()
  if (!session.mayEdit) return null
  const taker = takerOf(session, source)
  const name = session.records.get('topic', taker)?.text || 'Untitled'
  if (!passage && taken)
    return (
      <div className={styles.bar} role="status">
        <span className={styles.hint}>{taken.words}</span>
        <Button size="compact-sm" variant="subtle" onClick={() => showTaken(taken)}>
          Show
        </Button>
        <Button
          size="compact-sm"
          variant="subtle"
          onClick={() => {
            usePassage.setState({ taken: null })
            void session.takeBack('undo')
          }}
        >
          Undo
        </Button>
      </div>
    )
  if (!passage)
    return (
      <div className={styles.bar}>
        <span className={styles.hint}>
          Select words to take them over: as a topic below <b>{name}</b>, or into its note.
        </span>
      </div>
    )
  // The words stay selected while the button is pressed.
  const keep = (event: React.MouseEvent) => event.preventDefault()
  return (
    // biome-ignore lint/a11y/useSemanticElements: a fieldset of two buttons says no more
    <div className={styles.bar} role="group" aria-label="The passage that is selected">
      <span
        className={styles.passage}
        draggable
        title="Drag it onto a topic"
        onDragStart={(event) => event.dataTransfer.setData(PASSAGE_TYPE, 'passage')}
      >
        <IconGripVertical size={16} aria-hidden />
        <q>{passage.text.trim().replace(/\s+/g, ' ').slice(0, 200)}</q>
      </span>
      <Button
        size="compact-sm"
        onMouseDown={keep}
        onClick={() => takeOverPassage(session, 'topic')}
        title={`Below ${name}`}
      >
        As a topic
      </Button>
      <Button
        size="compact-sm"
        variant="default"
        onMouseDown={keep}
        onClick={() => takeOverPassage(session, 'note')}
        title={`Into the note of ${name}`}
      >
        Into the note
      </Button>
    </div>
  )
}
