import { Button, FileButton, Group, Stack, Text, Textarea, UnstyledButton } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconArrowLeft, IconFileImport } from '@tabler/icons-react'
import { type DragEvent, useEffect, useMemo, useRef, useState } from 'react'
import type { Page } from '../../core/commands/import-pages'
import { tell } from '../app/api'
import { Silhouette } from '../pictures/Silhouette'
import type { ImportResult } from '../sync/collection-session'
import { useSession } from '../sync/use-session'
import styles from './beginning.module.css'
import { previewImport } from './previews'
import { PAGE_TYPES, readPages } from './read-pages'

/** More text than this is imported without being shown before: looking at it would take as long as the import. */
const MOST_SHOWN = 60_000
const MOST_UNREAD_SHOWN = 100

const counted = (count: number, one: string, many: string) => `${count} ${count === 1 ? one : many}`

/** Brings text in as maps: what is taken, what it would become, and, afterwards, what could not be followed. */
export default function ImportPanel({ onBack, isAlone = false }: { onBack(): void; isAlone?: boolean }) {
  const session = useSession()
  const [text, setText] = useState('')
  const [files, setFiles] = useState<readonly Page[]>([])
  const [isOver, setOver] = useState(false)
  const [isBusy, setBusy] = useState(false)
  const [report, setReport] = useState<ImportResult | null>(null)
  const [asked] = useDebouncedValue(text, 200)
  // The import goes on where the panel is closed meanwhile.
  const isHere = useRef(true)
  useEffect(() => {
    isHere.current = true
    return () => {
      isHere.current = false
    }
  }, [])
  const pages = useMemo(
    () => [...files, ...(asked.trim() === '' ? [] : [{ path: 'Pasted text', text: asked }])],
    [files, asked],
  )
  const size = pages.reduce((sum, page) => sum + page.text.length, 0)
  const preview = useMemo(
    () =>
      pages.length === 0 || size > MOST_SHOWN ? null : previewImport(session.records, session.collection.id, pages),
    [pages, size, session],
  )

  const read = async (chosen: readonly File[]) => {
    const more = await readPages(chosen)
    if (!more) return
    const paths = new Set(more.map(({ path }) => path))
    setFiles((before) => [...before.filter(({ path }) => !paths.has(path)), ...more])
  }
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    const dropped = [...event.dataTransfer.files]
    if (dropped.length > 0) void read(dropped)
    else setText((before) => before + event.dataTransfer.getData('text/plain'))
  }
  const make = async () => {
    setBusy(true)
    const data = await session.importPages(pages)
    setBusy(false)
    if (!data) return
    const [first] = data.maps
    const imported = counted(data.maps.length, 'map was imported', 'maps were imported')
    if (!isHere.current) {
      const lost = counted(data.unread.length, 'link leads', 'links lead')
      tell(data.unread.length > 0 ? `${imported}; ${lost} to nothing that was imported.` : `${imported}.`)
    } else if (data.unread.length > 0) setReport(data)
    else if (data.maps.length === 1 && first) window.location.assign(`/c/${session.id}/m/${first}`)
    else {
      tell(`${imported}.`)
      setText('')
      setFiles([])
      onBack()
    }
  }
  if (report)
    return (
      <Stack gap="sm">
        <Text size="sm">
          {counted(report.maps.length, 'map was imported', 'maps were imported')}. The text is all there. These links
          lead to nothing that was imported:
        </Text>
        <ul className={styles.unread}>
          {report.unread.slice(0, MOST_UNREAD_SHOWN).map(({ page, address, reason }) => (
            <li key={page + address}>
              {address} in {page}. {reason}
            </li>
          ))}
        </ul>
        {report.unread.length > MOST_UNREAD_SHOWN && (
          <Text size="sm">And {report.unread.length - MOST_UNREAD_SHOWN} more.</Text>
        )}
        <Group justify="flex-end">
          <Button
            component="a"
            href={report.maps.length === 1 ? `/c/${session.id}/m/${report.maps[0]}` : `/c/${session.id}`}
          >
            {report.maps.length === 1 ? 'Open the map' : 'To the maps'}
          </Button>
        </Group>
      </Stack>
    )
  return (
    <Stack gap="sm">
      {!isAlone && (
        <UnstyledButton className={styles.back} onClick={onBack}>
          <IconArrowLeft size={16} aria-hidden /> All ways to begin
        </UnstyledButton>
      )}
      <div
        className={styles.drop}
        data-over={isOver}
        onDragOver={(event) => {
          event.preventDefault()
          setOver(true)
        }}
        onDragLeave={() => setOver(false)}
        onDrop={drop}
      >
        <Textarea
          data-autofocus
          label="A list, an outline or a page of text"
          description="Indented or bulleted lines, or CommonMark with headings. Each file becomes a map; links between files become doorways and cross-links."
          placeholder="Paste it here, or drop files"
          autosize
          minRows={5}
          maxRows={10}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Group gap="xs" mt="xs">
          <FileButton multiple accept={PAGE_TYPES} onChange={(chosen) => void read(chosen)}>
            {(props) => (
              <Button {...props} variant="default" size="xs" leftSection={<IconFileImport size={16} />}>
                Choose files
              </Button>
            )}
          </FileButton>
          {files.length > 0 && (
            <>
              <Text size="sm">{files.length === 1 ? files[0]!.path : counted(files.length, 'file', 'files')}</Text>
              <Button variant="subtle" size="xs" color="gray" c="var(--quiet-ink)" onClick={() => setFiles([])}>
                Without {files.length === 1 ? 'it' : 'them'}
              </Button>
            </>
          )}
        </Group>
      </div>
      {typeof preview === 'string' && (
        <Text size="sm" c="var(--ember-text)" role="alert">
          {preview}
        </Text>
      )}
      {preview && typeof preview !== 'string' && (
        <section className={styles.plates} aria-label="What it would become">
          {preview.shown.map(({ records, map, title, topics }) => (
            <div key={map} className={styles.plate}>
              <span className={styles.picture}>
                <Silhouette records={records} map={map} />
              </span>
              <span className={styles.name}>{title}</span>
              <span className={styles.use}>{counted(topics, 'topic', 'topics')}</span>
            </div>
          ))}
        </section>
      )}
      <Group justify="space-between">
        <Text size="sm" c="dimmed">
          {preview && typeof preview !== 'string'
            ? `${counted(preview.maps, 'map', 'maps')}, ${counted(preview.topics, 'topic', 'topics')}${preview.unread > 0 ? `; ${counted(preview.unread, 'link leads', 'links lead')} to nothing that is here` : ''}`
            : pages.length > 0 && preview === null
              ? `${counted(pages.length, 'text', 'texts')}, too long to be shown before`
              : ''}
        </Text>
        <Button
          loading={isBusy}
          disabled={pages.length === 0 || typeof preview === 'string'}
          onClick={() => void make()}
        >
          {pages.length > 1 ? `Make ${pages.length} maps` : 'Make the map'}
        </Button>
      </Group>
    </Stack>
  )
}
