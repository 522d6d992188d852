import { Button, Checkbox, FileButton, Group, Radio, Stack, Text, Textarea, UnstyledButton } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconArrowLeft, IconFileImport, IconFolder } from '@tabler/icons-react'
import { type DragEvent, useEffect, useMemo, useRef, useState } from 'react'
import { filesLedTo, importPages, titleOfPage } from '../../core/commands/import-pages'
import { fileTitle, type Page } from '../../core/formats/page-file'
import { counted } from '../../core/text/counted'
import { tell, tellTrouble } from '../app/api'
import { useHalfWritten } from '../app/half-written'
import { fetchAhead, openInPlace } from '../app/in-place'
import { Silhouette } from '../pictures/Silhouette'
import { droppedFiles } from '../sheet/dropped-files'
import { upload } from '../sheet/upload'
import type { CollectionSession } from '../sync/collection-session'
import { type ImportedFile, ImportResult } from '../sync/on-server'
import { useSession } from '../sync/use-session'
import styles from './beginning.module.css'
import { Differences } from './Differences'
import { useKnownPages } from './known-pages'
import { previewImport } from './previews'
import { asChosen, CHOICE_TYPES, type ReadChoice, readChoice } from './read-pages'

/** The title of a longer page is not looked for in its text: of many such that would take as long as the import. */
const MOST_TITLED = 4_000
/** More text than this is imported without being shown before: looking at it would take as long as the import. */
const MOST_SHOWN = 60_000
const MOST_UNREAD_SHOWN = 100
/** Letters of text up to which maps are made here at once, and not by the server as a job. */
const MOST_AT_ONCE = 20_000

/** Makes maps of little text in this window; null where that is refused, which has been told then. */
function importHere(session: CollectionSession, pages: readonly Page[]): ImportResult | null {
  let result: ImportResult | null = null
  const made = session.run((records, newIds) => {
    const outcome = importPages(records, { collection: session.collection.id, pages, files: new Map() }, newIds)
    result = { maps: outcome.maps, unread: outcome.unread }
    return outcome
  })
  return made && result
}

/** Brings text in as maps: what is taken, what it would become, and, afterwards, what could not be followed. */
export default function ImportPanel({ onBack, isAlone = false }: { onBack(): void; isAlone?: boolean }) {
  const session = useSession()
  const [text, setText] = useHalfWritten(`import:${session.person}:${session.id}`)
  const [files, setFiles] = useState<readonly Page[]>([])
  const [others, setOthers] = useState<ReadChoice['files']>([])
  /** Whether a folder was taken, or a zip of one: then what is not in it is not there any more. */
  const [isWhole, setWhole] = useState(false)
  const [left, setLeft] = useState<ReadonlySet<string>>(new Set())
  const [isAgain, setAgain] = useState(true)
  const [gone, setGone] = useState<ReadonlySet<string>>(new Set())
  const known = useKnownPages(session.id)
  const [isOver, setOver] = useState(false)
  const [isBusy, setBusy] = useState(false)
  const [report, setReport] = useState<ImportResult | null>(null)
  const [asked] = useDebouncedValue(text, 200)
  // The import goes on where the panel is closed meanwhile.
  const isHere = useRef(true)
  useEffect(fetchAhead, [])
  useEffect(() => {
    isHere.current = true
    return () => {
      isHere.current = false
    }
  }, [])
  const named = useMemo(() => inOrder(files), [files])
  // They are brought in as they were chosen: the first becomes the home map of an empty collection.
  const pages = useMemo(
    () => [
      ...files.filter(({ path }) => !left.has(path)),
      ...(asked.trim() === '' ? [] : [{ path: 'Pasted text', text: asked }]),
    ],
    [files, left, asked],
  )
  const size = pages.reduce((sum, page) => sum + page.text.length, 0)
  const preview = useMemo(
    () =>
      pages.length === 0 || size > MOST_SHOWN
        ? null
        : previewImport(
            session.records,
            session.collection.id,
            inOrder(pages).map(({ page }) => page),
            others.map(({ path }) => path),
          ),
    [pages, others, size, session],
  )

  const read = async (chosen: readonly File[]) => {
    const more = await readChoice(asChosen(chosen))
    if (!more) return
    if (more.pages.length === 0) {
      tell('There is no page among these: texts, CommonMark and HTML are read.')
      return
    }
    setWhole(chosen.some(({ name, webkitRelativePath }) => webkitRelativePath !== '' || /\.zip$/i.test(name)))
    const paths = new Set([...more.pages, ...more.files].map(({ path }) => path))
    setFiles((before) => [...before.filter(({ path }) => !paths.has(path)), ...more.pages])
    setOthers((before) => [...before.filter(({ path }) => !paths.has(path)), ...more.files])
  }
  // The same file was brought in before: it is told what is different, unless somebody wants another map.
  const knownHere = files.filter(({ path }) => known.has(path))
  const brings = isAgain && knownHere.length > 0
  const inFolder = new Set(files.map(({ path }) => path))
  const missing = !isWhole ? [] : [...known].flatMap(([path, page]) => (inFolder.has(path) ? [] : { path, ...page }))
  const drop = (event: DragEvent) => {
    event.preventDefault()
    setOver(false)
    if (event.dataTransfer.files.length > 0) void droppedFiles(event.dataTransfer).then(read)
    else setText(text + event.dataTransfer.getData('text/plain'))
  }
  /** Uploads the files to which pages lead, then has the pages brought in. */
  const bringIn = async (): Promise<ImportResult | null> => {
    const wanted = filesLedTo(
      pages,
      others.map(({ path }) => path),
    )
    const uploaded: ImportedFile[] = []
    try {
      for (const { path, file } of others) {
        if (!wanted.has(path)) continue
        const id = await upload(session.id, '', file, () => {}, { use: 'pages' })
        if (id) uploaded.push({ path, file: id })
      }
    } catch (error) {
      tellTrouble(error)
      return null
    }
    if (!brings && uploaded.length === 0 && size <= MOST_AT_ONCE) return importHere(session, pages)
    if (!brings) return session.server.importPages(pages, uploaded)
    const answer = await session.server.command('bring-again', { pages, files: uploaded, gone: [...gone] })
    return answer && ImportResult.parse(answer.report)
  }
  const make = async () => {
    setBusy(true)
    const data = await bringIn()
    setBusy(false)
    if (!data) return
    const [first] = data.maps
    setText('')
    const imported = brings
      ? 'What was changed is brought in'
      : counted(data.maps.length, 'map was imported', 'maps were imported')
    if (!isHere.current) {
      const lost = counted(data.unread.length, 'link leads', 'links lead')
      tell(data.unread.length > 0 ? `${imported}; ${lost} to nothing that was imported.` : `${imported}.`)
    } else if (data.unread.length > 0 || (data.maps.length > 1 && !isAlone)) setReport(data)
    else if (data.maps.length === 1 && first) await openInPlace(session, first)
    else {
      tell(`${imported}.`)
      setFiles([])
      onBack()
    }
  }
  if (report)
    return (
      <Stack gap="sm">
        <Text size="sm">
          {brings ? 'It is brought in' : counted(report.maps.length, 'map was imported', 'maps were imported')}. The
          text is all there{report.unread.length > 0 && '. These links lead to nothing that was imported:'}
          {report.unread.length === 0 && '.'}
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
            onClick={(event) => {
              if (report.maps.length !== 1) return
              // In place: what was made here is shown before the server has it.
              event.preventDefault()
              void openInPlace(session, report.maps[0]!)
            }}
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
          description="Indented or bulleted lines, CommonMark with headings, or HTML; files, a folder or a zip. Each page becomes a map, the files to which it leads hang on it; links between files become doorways and cross-links."
          placeholder="Paste it here, or drop files"
          autosize
          minRows={files.length > 0 ? 2 : 5}
          maxRows={10}
          value={text}
          onChange={(event) => setText(event.currentTarget.value)}
        />
        <Group gap="xs" mt="xs">
          <FileButton multiple accept={CHOICE_TYPES} onChange={(chosen) => void read(chosen)}>
            {(props) => (
              <Button {...props} variant="default" size="xs" leftSection={<IconFileImport size={16} />}>
                Choose files
              </Button>
            )}
          </FileButton>
          <FileButton multiple inputProps={{ webkitdirectory: '' } as object} onChange={(chosen) => void read(chosen)}>
            {(props) => (
              <Button {...props} variant="default" size="xs" leftSection={<IconFolder size={16} />}>
                Choose a folder
              </Button>
            )}
          </FileButton>
          {files.length > 0 && (
            <>
              <Text size="sm">{files.length === 1 ? files[0]!.path : counted(files.length, 'file', 'files')}</Text>
              <Button
                variant="subtle"
                size="xs"
                color="gray"
                c="var(--quiet-ink)"
                onClick={() => {
                  setFiles([])
                  setOthers([])
                  setLeft(new Set())
                  setGone(new Set())
                }}
              >
                Without {files.length === 1 ? 'it' : 'them'}
              </Button>
            </>
          )}
        </Group>
      </div>
      {files.length > 1 && (
        <ChoosePages pages={named} left={left} setLeft={setLeft} known={known} files={others.length} />
      )}
      {knownHere.length > 0 && (
        <Radio.Group
          label={knownHere.length === 1 ? 'This page was brought in before' : 'Pages of these were brought in before'}
          value={isAgain ? 'again' : 'new'}
          onChange={(value) => setAgain(value === 'again')}
        >
          <Stack gap={4} mt={4}>
            <Radio value="again" size="sm" label="Take what was changed since then into the maps that are there" />
            <Radio value="new" size="sm" label="Make new maps of all of them" />
          </Stack>
        </Radio.Group>
      )}
      {brings && <Differences pages={pages} missing={missing} gone={gone} setGone={setGone} />}
      {typeof preview === 'string' && (
        <Text size="sm" c="var(--ember-text)" role="alert">
          {preview}
        </Text>
      )}
      {!brings && preview && typeof preview !== 'string' && (
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
      <Group justify="space-between" className={styles.ends}>
        <Text size="sm" c="dimmed">
          {brings
            ? ''
            : preview && typeof preview !== 'string'
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
          {brings ? 'Take the changes' : pages.length > 1 ? `Make ${pages.length} maps` : 'Make the map'}
        </Button>
      </Group>
    </Stack>
  )
}

interface Named {
  page: Page
  title: string
}

interface ChooseProps {
  pages: readonly Named[]
  left: ReadonlySet<string>
  setLeft(left: ReadonlySet<string>): void
  known: ReadonlyMap<string, unknown>
  /** How many other files came along. */
  files: number
}

/** Pages by the titles that their maps will have, in the order in which people count: Page 2 before Page 10. */
const inOrder = (pages: readonly Page[]): Named[] =>
  pages
    .map((page) => ({
      page,
      title: page.text.length > MOST_TITLED ? fileTitle(page.path) : titleOfPage(page),
    }))
    .sort((a, b) => COUNTING.compare(a.title, b.title) || COUNTING.compare(a.page.path, b.page.path))
const COUNTING = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' })

/** Which of several pages are brought in. */
function ChoosePages({ pages, left, setLeft, known, files }: ChooseProps) {
  const taken = pages.length - pages.filter(({ page }) => left.has(page.path)).length
  return (
    <section className={styles.pages} aria-label="Which pages" tabIndex={0}>
      <Checkbox
        size="sm"
        label={`${taken} of ${pages.length} pages${files > 0 ? `, and of ${files === 1 ? '1 file' : `${files} files`} those to which they lead` : ''}`}
        checked={taken === pages.length}
        indeterminate={taken > 0 && taken < pages.length}
        onChange={() => setLeft(taken === pages.length ? new Set(pages.map(({ page }) => page.path)) : new Set())}
      />
      {pages.map(({ page: { path }, title }) => (
        <Checkbox
          key={path}
          size="sm"
          label={
            <>
              {title}{' '}
              <Text span size="sm" c="dimmed">
                {path}
                {known.has(path) && ', brought in before'}
              </Text>
            </>
          }
          checked={!left.has(path)}
          onChange={(event) => {
            const next = new Set(left)
            if (event.currentTarget.checked) next.delete(path)
            else next.add(path)
            setLeft(next)
          }}
        />
      ))}
    </section>
  )
}
