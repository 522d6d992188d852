import { Alert, Anchor, Loader, Stack, Text, Textarea } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { Suspense, useState } from 'react'
import { z } from 'zod'
import { MOST_PASSAGE } from '../../core/commands/take-passage'
import type { ToldSource } from '../../core/network/sources'
import type { FileRecord } from '../../core/records/file'
import { readableSize } from '../../core/text/readable-size'
import { ask, wordsFor } from '../app/api'
import { late } from '../app/late'
import { NoteView } from '../page/NoteView'
import { useSession } from '../sync/use-session'
import { previewOf } from './file-preview'
import { selectPassage } from './passage'
import styles from './reading.module.css'

const PdfView = late(() => import('./PdfView'))
const TableView = late(() => import('./TableView'))

/** Most bytes of a text that are shown. */
const MOST_BYTES = 1_000_000

interface Props {
  file: FileRecord
  address: string
  /** The page to begin with. */
  page: number | null
  onLink(address: string): void
}

/** A file as it can be read beside the map, by its kind. */
export function Preview(props: Props) {
  const { file, address } = props
  switch (previewOf(file)) {
    case 'picture':
      return <PictureView {...props} />
    case 'pdf':
      return (
        <Suspense fallback={<Loader m="md" aria-label="Opening the file" />}>
          <PdfView address={address} page={props.page} />
        </Suspense>
      )
    case 'audio':
      // biome-ignore lint/a11y/useMediaCaption: what people upload brings no captions along
      return <audio className={styles.media} controls src={address} aria-label={file.name} />
    case 'video':
      // biome-ignore lint/a11y/useMediaCaption: what people upload brings no captions along
      return <video className={styles.media} controls src={address} aria-label={file.name} />
    case 'table':
    case 'commonmark':
    case 'text':
      return <TextFile {...props} />
    case 'words':
      return <WordsInside {...props} />
    default:
      return (
        <Details
          file={file}
          words="There is no preview of this kind of file. It can be downloaded and opened where it was made."
        />
      )
  }
}

function Details({ file, words }: { file: FileRecord; words: string }) {
  return (
    <Stack gap="xs" p="md">
      <Text>{words}</Text>
      <dl className={styles.details}>
        <dt>Kind</dt>
        <dd>{file.type}</dd>
        <dt>Size</dt>
        <dd>{readableSize(file.size)}</dd>
      </dl>
    </Stack>
  )
}

function PictureView({ file, address }: Props) {
  const [isWhole, setWhole] = useState(true)
  return (
    <button
      type="button"
      className={styles.picture}
      data-whole={isWhole}
      onClick={() => setWhole(!isWhole)}
      aria-label={isWhole ? `${file.name}: show in its full size` : `${file.name}: show whole`}
    >
      <img src={`${address}?width=2560`} alt={file.name} />
    </button>
  )
}

/** A file that is text: read as the kind of text that it is. */
function TextFile({ file, address, onLink }: Props) {
  const { data, error } = useQuery({
    queryKey: ['text file', address],
    queryFn: async ({ signal }) => {
      const response = await fetch(address, { headers: { Range: `bytes=0-${MOST_BYTES - 1}` }, signal })
      if (!response.ok && response.status !== 416) throw new Error('This file cannot be opened just now.')
      return response.ok ? response.text() : ''
    },
    staleTime: Number.POSITIVE_INFINITY,
  })
  if (error) return <Trouble error={error} />
  if (data === undefined) return <Loader m="md" aria-label="Opening the file" />
  const kind = previewOf(file)
  return (
    <>
      {kind === 'table' ? (
        <Suspense fallback={<Loader m="md" aria-label="Opening the table" />}>
          <TableView text={data} name={file.name} />
        </Suspense>
      ) : kind === 'commonmark' ? (
        <div className={styles.text}>
          <NoteView text={data} go={onLink} />
        </div>
      ) : (
        <pre className={styles.plain}>{data}</pre>
      )}
      {file.size > MOST_BYTES && (
        <Text size="sm" c="dimmed" p="md">
          This is the beginning of {readableSize(file.size)}; all of it comes with the download.
        </Text>
      )}
    </>
  )
}

const TextInside = z.object({
  state: z.enum(['waiting', 'read', 'without text', 'failed']),
  pages: z.array(z.object({ page: z.number(), text: z.string() })),
})

/** The text inside a document that a browser cannot show. */
function WordsInside({ file, address, page }: Props) {
  const { data, error } = useQuery({
    queryKey: ['text inside', address],
    queryFn: () => ask(TextInside, `${address}/text`),
    refetchInterval: ({ state }) => (state.data?.state === 'waiting' ? 1_000 : false),
  })
  if (error) return <Trouble error={error} />
  if (!data) return <Loader m="md" aria-label="Opening the file" />
  if (data.state === 'waiting')
    return (
      <Stack p="md" align="flex-start">
        <Loader size="sm" />
        <Text>The text is being taken out of this file.</Text>
      </Stack>
    )
  if (data.pages.length === 0) return <Details file={file} words="No text could be found in this file." />
  return (
    <div className={styles.text}>
      {data.pages.map((part) => (
        <section
          key={part.page}
          data-page={data.pages.length > 1 ? part.page : undefined}
          ref={part.page === page ? (element) => element?.scrollIntoView() : undefined}
        >
          {data.pages.length > 1 && <div className={styles.pageNumber}>Page {part.page}</div>}
          <p className={styles.words} dir="auto">
            {part.text}
          </p>
        </section>
      ))}
    </div>
  )
}

const Trouble = ({ error }: { error: unknown }) => (
  <Alert color="ember" m="md">
    {wordsFor(error)}
  </Alert>
)

/** A page of the web cannot be shown here: where it is, and a place for what is taken over from it. */
export function WebSource({ source }: { source: ToldSource & { kind: 'weblink' } }) {
  const session = useSession()
  return (
    <Stack p="md" gap="md">
      <Text>
        <Anchor href={source.url} target="_blank" rel="noopener noreferrer" className={styles.address}>
          {source.url}
        </Anchor>
      </Text>
      <Text size="sm" c="dimmed">
        Pages of the web open in a window of their own. What you copy there can be taken over here, with its address.
      </Text>
      {session.mayEdit && (
        <Textarea
          label="A passage of it"
          placeholder="Paste it here"
          autosize
          minRows={4}
          maxRows={16}
          maxLength={MOST_PASSAGE}
          onChange={(event) => {
            const text = event.currentTarget.value
            selectPassage(text.trim() === '' ? null : { source, page: null, text })
          }}
        />
      )}
    </Stack>
  )
}
