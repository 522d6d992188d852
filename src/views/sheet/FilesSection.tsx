import { ActionIcon, Button, FileButton, Menu, Progress, Stack, Text } from '@mantine/core'
import {
  IconFileMusic,
  IconFileText,
  IconMovie,
  IconPaperclip,
  IconPhoto,
  IconRefresh,
  IconTable,
  IconX,
  type TablerIcon,
} from '@tabler/icons-react'
import { useCallback, useRef, useState } from 'react'
import { v7 as uuid } from 'uuid'
import { removeAttachment, replaceFile } from '../../core/commands/attachments'
import { sourcesAt, type ToldSource } from '../../core/network/sources'
import type { FileRecord } from '../../core/records/file'
import type { FileId } from '../../core/records/ids'
import type { TopicRecord } from '../../core/records/topic'
import { readableSize } from '../../core/text/readable-size'
import { wordsFor } from '../app/api'
import { type Preview, previewOf } from '../reading/file-preview'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useMayEdit, useSessionHandle } from '../sync/use-session'
import { workspace } from '../workspace/workspace-store'
import { droppedFiles } from './dropped-files'
import { SourceRow } from './SourceRow'
import styles from './sheet.module.css'
import { UploadStep, upload } from './upload'

type FileSource = ToldSource & { kind: 'attachment' }

/** A file on its way, or one that did not arrive. */
interface Sending {
  number: number
  /** The change that it becomes, however often it is tried. */
  id: string
  file: File
  replaces: string | undefined
  /** From 0 to 1. */
  part: number
  trouble: string | null
  stop: AbortController
  step: UploadStep
}

let numbers = 0

/** Files on a topic: drop them here or choose them; each shows how far it is, and can be stopped or tried again. */
export default function FilesSection({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const [sending, setSending] = useState<readonly Sending[]>([])
  const [over, setOver] = useState(false)
  const files = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) =>
        sourcesAt(records, topic.id).filter((source): source is FileSource => source.kind === 'attachment'),
      [topic.id],
    ),
  )
  const change = (number: number, fields: Partial<Sending> | null) =>
    setSending((all) =>
      fields
        ? all.map((other) => (other.number === number ? { ...other, ...fields } : other))
        : all.filter((other) => other.number !== number),
    )
  const send = async (entry: Sending) => {
    const { number, id, file, replaces, stop, step } = entry
    try {
      await session.whenSaved()
      const how = { id, signal: stop.signal, step, ...(replaces ? { replaces } : {}) }
      await upload(session.id, topic.id, file, (part) => change(number, { part }), how)
      change(number, null)
    } catch (error) {
      change(number, stop.signal.aborted ? null : { trouble: wordsFor(error) })
    }
  }
  const sendAll = async (chosen: readonly File[], replaces?: string) => {
    const step = new UploadStep(chosen.length)
    const entries = chosen.map(
      (file): Sending => ({
        number: ++numbers,
        id: uuid(),
        file,
        replaces,
        part: 0,
        trouble: null,
        stop: new AbortController(),
        step,
      }),
    )
    setSending((all) => [...all, ...entries])
    for (const entry of entries) if (!entry.stop.signal.aborted) await send(entry)
  }
  const again = (entry: Sending) => {
    const fresh = { ...entry, part: 0, trouble: null, stop: new AbortController() }
    change(entry.number, fresh)
    void send(fresh)
  }
  return (
    <Stack gap="xs">
      <ul className={styles.entries}>
        {files.map((source, at) => (
          <FileEntry
            key={source.id}
            source={source}
            at={at}
            of={files.length}
            replace={(file) => void sendAll([file], source.id)}
          />
        ))}
        {sending.map((entry) => (
          <li key={entry.number}>
            <span className={styles.grow}>
              {entry.file.name}
              {entry.trouble ? (
                <Text size="sm" c="ember">
                  {entry.trouble}
                </Text>
              ) : (
                <Progress value={entry.part * 100} size="sm" aria-label={`Uploading ${entry.file.name}`} />
              )}
            </span>
            {entry.trouble && (
              <ActionIcon
                variant="subtle"
                color="gray"
                size="sm"
                aria-label={`Try ${entry.file.name} again`}
                onClick={() => again(entry)}
              >
                <IconRefresh size={14} />
              </ActionIcon>
            )}
            <ActionIcon
              variant="subtle"
              color="gray"
              size="sm"
              aria-label={entry.trouble ? `Leave out ${entry.file.name}` : `Stop ${entry.file.name}`}
              onClick={() => {
                entry.stop.abort()
                change(entry.number, null)
              }}
            >
              <IconX size={14} />
            </ActionIcon>
          </li>
        ))}
      </ul>
      {mayEdit && (
        <div
          className={styles.drop}
          data-over={over || undefined}
          onDragOver={(event) => {
            event.preventDefault()
            setOver(true)
          }}
          onDragLeave={() => setOver(false)}
          onDrop={(event) => {
            event.preventDefault()
            setOver(false)
            void droppedFiles(event.dataTransfer).then((dropped) => sendAll(dropped))
          }}
          onPaste={(event) => {
            const pasted = [...event.clipboardData.files]
            if (pasted.length === 0) return
            event.preventDefault()
            event.stopPropagation()
            void sendAll(pasted)
          }}
        >
          <Text size="sm" c="dimmed">
            Drop files or a folder here, paste them, or
          </Text>
          <FileButton multiple onChange={(chosen) => void sendAll(chosen)}>
            {(props) => (
              <Button {...props} variant="default" size="xs" data-leads="files">
                Choose files
              </Button>
            )}
          </FileButton>
        </div>
      )}
      {files.length > 1 && (
        <a
          className={styles.quietWay}
          href={`/api/collections/${session.id}/files.zip?topic=${topic.id}`}
          download={`${topic.text.slice(0, 60) || 'files'}.zip`}
        >
          Download all {files.length}
        </a>
      )}
    </Stack>
  )
}

const ICONS: Record<Preview, TablerIcon> = {
  picture: IconPhoto,
  pdf: IconFileText,
  table: IconTable,
  commonmark: IconFileText,
  text: IconFileText,
  words: IconFileText,
  audio: IconFileMusic,
  video: IconMovie,
  none: IconPaperclip,
}

interface EntryProps {
  source: FileSource
  at: number
  of: number
  replace(file: File): void
}

function FileEntry({ source, at, of, replace }: EntryProps) {
  const session = useSessionHandle()
  const choosing = useRef<HTMLInputElement>(null)
  const { file, earlier } = useCalmPart(
    useCallback(
      ({ records }: CollectionSession) => ({
        file: records.get('file', source.file),
        earlier: (records.get('attachment', source.id)?.earlier ?? []).flatMap((id) => records.get('file', id) ?? []),
      }),
      [source.file, source.id],
    ),
  )
  if (!file) return null
  const address = `/api/collections/${session.id}/files/${file.id}`
  const Icon = ICONS[previewOf(file)]
  return (
    <>
      <SourceRow
        source={source}
        at={at}
        of={of}
        icon={<Icon size={16} aria-hidden />}
        first={
          <>
            <Menu.Item onClick={() => workspace.read(source.topic, source)}>Read beside the map</Menu.Item>
            <Menu.Item component="a" href={address} target="_blank" rel="noreferrer">
              Open in a window of its own
            </Menu.Item>
            <Menu.Item component="a" href={address} download={file.name}>
              Download
            </Menu.Item>
          </>
        }
        last={
          <>
            <Menu.Item onClick={() => choosing.current?.click()}>Replace by a newer version …</Menu.Item>
            <Menu.Item
              onClick={() =>
                session.run((records, newIds) => removeAttachment(records, { attachment: source.id }, newIds))
              }
            >
              Remove
            </Menu.Item>
          </>
        }
      >
        <button type="button" className={styles.jump} onClick={() => workspace.read(source.topic, source)}>
          {file.name}
        </button>{' '}
        <span className={styles.where}>{readableSize(file.size)}</span>
        {earlier.length > 0 && <EarlierVersions source={source} earlier={earlier} />}
      </SourceRow>
      <input
        ref={choosing}
        type="file"
        hidden
        aria-label={`Newer version of ${file.name}`}
        onChange={(event) => {
          const [chosen] = event.currentTarget.files ?? []
          if (chosen) replace(chosen)
          event.currentTarget.value = ''
        }}
      />
    </>
  )
}

/** The files in whose place one came: to look at, and to put back. */
function EarlierVersions({ source, earlier }: { source: FileSource; earlier: readonly FileRecord[] }) {
  const session = useSessionHandle()
  const mayEdit = useMayEdit()
  const back = (file: FileId) =>
    session.run((records, newIds) => replaceFile(records, { attachment: source.id, file }, newIds))
  return (
    <Menu position="bottom-start" transitionProps={{ duration: 0 }}>
      <Menu.Target>
        <button type="button" className={styles.versions}>
          {earlier.length === 1 ? 'an earlier version' : `${earlier.length} earlier versions`}
        </button>
      </Menu.Target>
      <Menu.Dropdown>
        {earlier.map(({ id, name, size }) => (
          <div key={id}>
            <Menu.Item
              component="a"
              href={`/api/collections/${session.id}/files/${id}`}
              target="_blank"
              rel="noreferrer"
              rightSection={<span className={styles.where}>{readableSize(size)}</span>}
            >
              {name}
            </Menu.Item>
            {mayEdit && (
              <Menu.Item pl="xl" onClick={() => back(id)}>
                Put this one back
              </Menu.Item>
            )}
          </div>
        ))}
      </Menu.Dropdown>
    </Menu>
  )
}
