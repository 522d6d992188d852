import { Alert, Button, Chip, Group, Loader, Select, Stack, Text, TextInput, Title } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { IconSearch } from '@tabler/icons-react'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { ask, wordsFor } from '../app/api'
import { OpenedCollection } from '../app/OpenedCollection'
import { PageFrame } from '../app/PageFrame'
import { UndoButton } from '../collection/UndoButton'
import { useSession } from '../sync/use-session'
import { FoundList } from './FoundList'
import { keepSearch, keptSearches } from './kept-searches'
import styles from './search.module.css'
import { KIND_NAMES, KINDS, type Kind, SearchAnswer } from './search-answer'
import { TagList } from './TagList'
import { tagsKey, useTags } from './use-tags'

export default function SearchPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Search />
    </OpenedCollection>
  )
}

/** What is asked for, as it stands in the address of the page. */
interface Asked {
  words: string
  map: string | null
  tag: string | null
}

function askedInAddress(): Asked {
  const asked = new URL(window.location.href).searchParams
  return { words: asked.get('words') ?? '', map: asked.get('map'), tag: asked.get('tag') }
}

const parametersOf = ({ words, map, tag }: Asked) =>
  new URLSearchParams({ ...(words ? { words } : {}), ...(map ? { map } : {}), ...(tag ? { tag } : {}) }).toString()

/** Everything in a collection that has some words, or a tag: topics, notes, files, web links, maps, with where they stand. */
function Search() {
  const session = useSession()
  const queries = useQueryClient()
  const [asked, setAsked] = useState<Asked>(askedInAddress)
  const [kind, setKind] = useState<Kind | null>(null)
  const [settled] = useDebouncedValue(asked, 200)
  const isAsking = settled.words.trim() !== '' || settled.tag !== null
  const parameters = parametersOf({ ...settled, words: settled.words.trim() })
  const { data, error, isFetching } = useQuery({
    queryKey: ['search', session.id, parameters],
    queryFn: () => ask(SearchAnswer, `/api/collections/${session.id}/search?${parameters}`),
    enabled: isAsking,
    placeholderData: (before) => before,
    staleTime: 0,
  })
  useEffect(() => {
    window.history.replaceState(null, '', `${window.location.pathname}${parameters === '' ? '' : `?${parameters}`}`)
  }, [parameters])
  const found = isAsking && data ? data.rows : []
  const shown = found.filter((row) => kind === null || row.kind === kind)
  const tags = useTags(session.id) ?? []
  const tag = tags.find(({ id }) => id === asked.tag)
  const change = (part: Partial<Asked>) => setAsked({ ...asked, ...part })
  return (
    <PageFrame
      trail={[
        { name: session.collection.title, address: `/c/${session.id}` },
        { name: 'Search', address: `/c/${session.id}/search` },
      ]}
    >
      <Stack gap="md">
        <Group justify="space-between">
          <Title order={1} size="h2">
            Search
          </Title>
          {!isAsking && <UndoButton onDone={() => void queries.invalidateQueries({ queryKey: tagsKey(session.id) })} />}
        </Group>
        <Group gap="sm" align="flex-end">
          <TextInput
            className={styles.words}
            aria-label="Words to search for"
            placeholder="Words in topics, notes, files, web links and maps"
            leftSection={<IconSearch size={18} aria-hidden />}
            rightSection={isFetching ? <Loader size={16} aria-label="Searching" /> : null}
            value={asked.words}
            maxLength={200}
            autoFocus
            onChange={(event) => change({ words: event.currentTarget.value })}
          />
          <Select
            aria-label="In which map"
            placeholder="In all maps"
            searchable
            clearable
            data={session.maps
              .filter(({ trashed }) => !trashed)
              .map(({ id, title }) => ({ value: id, label: title || 'Untitled' }))}
            value={asked.map}
            onChange={(map) => change({ map })}
          />
          <Select
            aria-label="With which tag"
            placeholder="With any tag"
            searchable
            clearable
            data={tags.map(({ id, name }) => ({ value: id, label: name }))}
            value={asked.tag}
            onChange={(value) => change({ tag: value })}
          />
        </Group>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {isAsking && data && (
          <>
            <Chip.Group
              multiple={false}
              value={kind ?? 'all'}
              onChange={(value) => setKind(KINDS.find((each) => each === value) ?? null)}
            >
              <Group gap="xs" role="group" aria-label="Which kinds">
                <Chip value="all" size="sm">
                  All {found.length}
                </Chip>
                {KINDS.map((each) => ({ each, count: found.filter((row) => row.kind === each).length }))
                  .filter(({ count }) => count > 0)
                  .map(({ each, count }) => (
                    <Chip key={each} value={each} size="sm">
                      {KIND_NAMES[each]} {count}
                    </Chip>
                  ))}
              </Group>
            </Chip.Group>
            {data.isPartial && (
              <Text size="sm" c="dimmed">
                The words of this collection are still being gathered: there may be more. Search again in a moment.
              </Text>
            )}
            <FoundList
              rows={shown}
              words={data.words}
              onTag={(value) => change({ tag: value, words: '' })}
              onTaken={() => keepSearch(session.id, settled.words)}
            />
            {shown.length === 0 && !isFetching && (
              <Text c="dimmed">
                {tag && settled.words.trim() === ''
                  ? `Nothing carries the tag ${tag.name}.`
                  : `Nothing has “${settled.words.trim()}”, or words close to it${tag || asked.map ? ', here' : ''}.`}
              </Text>
            )}
          </>
        )}
        {!isAsking && (
          <>
            <Lately collection={session.id} onChoose={(words) => change({ words })} />
            <TagList onShow={(value) => change({ tag: value })} />
          </>
        )}
      </Stack>
    </PageFrame>
  )
}

/** What was searched for lately in this browser. */
function Lately({ collection, onChoose }: { collection: string; onChoose(words: string): void }) {
  const [kept] = useState(() => keptSearches(collection))
  if (kept.length === 0) return null
  return (
    <section aria-label="Searched for lately">
      <Text fw={600} size="sm">
        Searched for lately
      </Text>
      <Group gap="xs">
        {kept.map((words) => (
          <Button key={words} size="compact-sm" variant="default" onClick={() => onChoose(words)}>
            {words}
          </Button>
        ))}
      </Group>
    </section>
  )
}
