import {
  ActionIcon,
  Alert,
  Anchor,
  Button,
  Chip,
  Group,
  Loader,
  Menu,
  Stack,
  Table,
  Text,
  Title,
  VisuallyHidden,
} from '@mantine/core'
import { IconDots } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { z } from 'zod'
import { foldForFinding } from '../../core/text/folding'
import { readableSize } from '../../core/text/readable-size'
import { ask, wordsFor } from '../app/api'
import { FindField } from '../app/fields/FindField'
import { NameDialog } from '../app/NameDialog'
import { RowSpace, useRowsInView } from '../app/rows-in-view'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { useSession } from '../sync/use-session'
import styles from './files.module.css'

const FileUse = z.object({
  how: z.enum(['file', 'earlier', 'picture', 'background', 'collection']),
  topic: z.string().nullable(),
  map: z.string().nullable(),
  text: z.string(),
  read: z.boolean().nullable(),
})
const FileRows = z.array(
  z.object({
    id: z.string(),
    name: z.string(),
    type: z.string(),
    size: z.number(),
    uses: z.array(FileUse),
    same: z.number(),
  }),
)
type FileRow = z.infer<typeof FileRows>[number]

const FACETS = {
  all: { name: 'All', fits: () => true },
  pictures: { name: 'Pictures', fits: ({ type }: FileRow) => type.startsWith('image/') },
  unread: { name: 'Still to be read', fits: ({ uses }: FileRow) => uses.some(({ read }) => read === false) },
  same: { name: 'The same content', fits: ({ same }: FileRow) => same > 0 },
  nowhere: { name: 'Nowhere', fits: ({ uses }: FileRow) => uses.length === 0 },
} as const
type Facet = keyof typeof FACETS
const NAMES = Object.keys(FACETS) as Facet[]

export default function FilesPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Files />
    </OpenedCollection>
  )
}

/** The files ledger: every file, where it is, its size and kind, what has the same content, and what is nowhere. */
function Files() {
  const session = useSession()
  const queries = useQueryClient()
  const key = ['files', session.id]
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => ask(FileRows, `/api/collections/${session.id}/files`),
    staleTime: 0,
  })
  const [facet, setFacet] = useState<Facet>('all')
  const [words, setWords] = useState('')
  const [renamed, setRenamed] = useState<FileRow | null>(null)
  const rows = useMemo(() => {
    const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
    return (data ?? []).filter((row) => {
      const said = foldForFinding([row.name, row.type, ...row.uses.map(({ text }) => text)].join(' '))
      return FACETS[facet].fits(row) && wanted.every((word) => said.includes(word))
    })
  }, [data, facet, words])
  const refresh = () => queries.invalidateQueries({ queryKey: key })
  const command = (name: string, args: object) => session.server.command(name, args).then(refresh)
  const strays = (data ?? []).filter(FACETS.nowhere.fits)
  const bytes = rows.reduce((sum, { size }) => sum + size, 0)
  return (
    <CollectionFrame place="files">
      <Stack gap="md">
        <Title order={1} size="h2">
          Files
        </Title>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader aria-label="Reading all files" />}
        {data && (
          <>
            <Group gap="sm" justify="space-between">
              <Chip.Group
                multiple={false}
                value={facet}
                onChange={(value) => setFacet(NAMES.find((each) => each === value) ?? 'all')}
              >
                <Group gap="xs" role="group" aria-label="Which files">
                  {NAMES.map((each) => (
                    <Chip key={each} value={each} size="sm">
                      {FACETS[each].name} {data.filter(FACETS[each].fits).length}
                    </Chip>
                  ))}
                </Group>
              </Chip.Group>
              {facet === 'nowhere' && session.mayEditAll && strays.length > 0 && (
                <Button
                  variant="default"
                  onClick={() => void command('trash-files', { files: strays.map(({ id }) => id) })}
                >
                  {strays.length === 1 ? 'Remove it' : `Remove all ${strays.length}`}
                </Button>
              )}
            </Group>
            <FindField words={words} setWords={setWords} />
            {rows.length === 0 ? (
              <Text c="dimmed">
                {data.length === 0
                  ? 'There is no file here yet. On a map, drop one onto a topic, or choose it in the topic sheet.'
                  : 'No file is like this.'}
              </Text>
            ) : (
              <>
                <Text size="sm" c="dimmed">
                  {rows.length === 1 ? '1 file' : `${rows.length} files`}, {readableSize(bytes)}
                </Text>
                <FileTable
                  rows={rows}
                  rename={session.mayEditAll ? setRenamed : null}
                  remove={(row) => void command('trash-files', { files: [row.id] })}
                />
              </>
            )}
          </>
        )}
      </Stack>
      {renamed && (
        <NameDialog
          title={`Rename ${renamed.name}`}
          name={renamed.name}
          most={200}
          onClose={() => setRenamed(null)}
          onName={(name) => {
            setRenamed(null)
            void command('rename-file', { file: renamed.id, name })
          }}
        />
      )}
    </CollectionFrame>
  )
}

const HOW = {
  file: '',
  earlier: 'as an earlier version on',
  picture: 'as the picture of',
  background: 'behind the map',
  collection: 'in the look of the collection',
}

/** Beside the map where it hangs on a topic, else in a window of its own. */
function wayTo(collection: string, { id, uses }: FileRow, address: string) {
  const use = uses.find(({ how }) => how === 'file')
  if (!use?.topic) return { href: address, target: '_blank', rel: 'noreferrer' }
  return {
    href: `/c/${collection}/m/${use.map}?${new URLSearchParams({ topic: use.topic, section: 'files', read: id })}`,
  }
}

interface TableProps {
  rows: readonly FileRow[]
  rename: ((row: FileRow) => void) | null
  remove(row: FileRow): void
}

function FileTable({ rows, rename, remove }: TableProps) {
  const session = useSession()
  const { id: collection } = session
  const { body, visible, before, after, measure } = useRowsInView(rows.length, (index) => rows[index]!.id)
  return (
    <Table.ScrollContainer minWidth={340}>
      <Table layout="fixed" aria-rowcount={rows.length + 1}>
        <Table.Thead>
          <Table.Tr>
            <Table.Th>File</Table.Th>
            <Table.Th visibleFrom="sm" w={90}>
              Size
            </Table.Th>
            <Table.Th>Where it is</Table.Th>
            <Table.Th w={52}>
              <VisuallyHidden>What can be done</VisuallyHidden>
            </Table.Th>
          </Table.Tr>
        </Table.Thead>
        <Table.Tbody ref={body}>
          <RowSpace height={before} columns={4} />
          {visible.map(({ index }) => {
            const row = rows[index]!
            const address = `/api/collections/${collection}/files/${row.id}`
            return (
              <Table.Tr key={row.id} ref={measure} data-index={index} aria-rowindex={index + 2}>
                <Table.Td className={styles.text}>
                  <Group gap="xs" wrap="nowrap" align="flex-start">
                    {row.type.startsWith('image/') && row.type !== 'image/svg+xml' && (
                      <img className={styles.small} src={`${address}?width=80`} alt="" loading="lazy" />
                    )}
                    <span>
                      <Anchor {...wayTo(collection, row, address)} className={styles.text}>
                        {row.name}
                      </Anchor>
                      <span className={styles.quiet}>
                        {row.type}
                        {row.same > 0 &&
                          (row.same === 1 ? ', another file is the same' : `, ${row.same} others are the same`)}
                      </span>
                    </span>
                  </Group>
                </Table.Td>
                <Table.Td visibleFrom="sm">{readableSize(row.size)}</Table.Td>
                <Table.Td className={styles.text}>
                  {row.uses.length === 0 && <span className={styles.quiet}>nowhere</span>}
                  {row.uses.map(({ how, topic, map, text }) => (
                    <div key={`${how} ${topic} ${map}`}>
                      <span className={styles.how}>{HOW[how]} </span>
                      {map && (
                        <Anchor href={`/c/${collection}/m/${map}${topic ? `?topic=${topic}&section=files` : ''}`}>
                          {text || 'Untitled'}
                        </Anchor>
                      )}
                      {map && topic && <span className={styles.how}> in {session.titleOf(map)}</span>}
                    </div>
                  ))}
                </Table.Td>
                <Table.Td>
                  <Menu position="bottom-end" transitionProps={{ duration: 0 }}>
                    <Menu.Target>
                      <ActionIcon variant="subtle" color="gray" aria-label={`${row.name}: what can be done`}>
                        <IconDots size={16} />
                      </ActionIcon>
                    </Menu.Target>
                    <Menu.Dropdown>
                      <Menu.Item component="a" href={address} download={row.name}>
                        Download
                      </Menu.Item>
                      {rename && <Menu.Item onClick={() => rename(row)}>Rename …</Menu.Item>}
                      {rename && row.uses.length === 0 && <Menu.Item onClick={() => remove(row)}>Remove</Menu.Item>}
                    </Menu.Dropdown>
                  </Menu>
                </Table.Td>
              </Table.Tr>
            )
          })}
          <RowSpace height={after} columns={4} />
        </Table.Tbody>
      </Table>
    </Table.ScrollContainer>
  )
}
