import { Alert, Button, Chip, Group, Loader, Stack, Text, Title } from '@mantine/core'
import { useDebouncedValue } from '@mantine/hooks'
import { useQuery } from '@tanstack/react-query'
import { useEffect, useState } from 'react'
import { askedWords, isAsking } from '../../core/gathering/asked'
import { readAsked, writeAsked } from '../../core/gathering/asked-address'
import { TagId } from '../../core/records/ids'
import { NOTHING_ASKED, type SearchAsked } from '../../core/records/search'
import { ask, wordsFor } from '../app/api'
import { today } from '../app/when'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { useSession } from '../sync/use-session'
import { AskedFields } from './AskedFields'
import { FoundList } from './FoundList'
import { KeepSearch, KeptSearches } from './KeptSearches'
import { keepSearch, keptSearches } from './kept-searches'
import { KIND_NAMES, KINDS, type Kind, SearchAnswer } from './search-answer'
import { TagList } from './TagList'
import { useTags } from './use-tags'

export default function SearchPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Search />
    </OpenedCollection>
  )
}

const askedInAddress = (): SearchAsked => readAsked(new URL(window.location.href).searchParams) ?? NOTHING_ASKED

/** Everything in a collection that has some words, or a tag: topics, notes, files, web links, maps, with where they stand. */
function Search() {
  const session = useSession()
  const [asked, setAsked] = useState(askedInAddress)
  const [kind, setKind] = useState<Kind | null>(null)
  const [settled] = useDebouncedValue(asked, 200)
  const asks = isAsking(settled)
  const parameters = writeAsked(settled).toString()
  const { data, error, isFetching } = useQuery({
    queryKey: ['search', session.id, parameters],
    queryFn: () => ask(SearchAnswer, `/api/collections/${session.id}/search?${parameters}&today=${today()}`),
    enabled: asks,
    placeholderData: (before) => before,
    staleTime: 0,
  })
  useEffect(() => {
    window.history.replaceState(null, '', `${window.location.pathname}${parameters === '' ? '' : `?${parameters}`}`)
  }, [parameters])
  const found = asks && data ? data.rows : []
  const shown = found.filter((row) => kind === null || row.kind === kind)
  const tags = useTags(session.id) ?? []
  const names = {
    tag: (id: string) => tags.find((tag) => tag.id === id)?.name ?? 'a tag that is gone',
    map: (id: string) => session.titleOf(id),
  }
  const change = (part: Partial<SearchAsked>) => setAsked((before) => ({ ...before, ...part }))
  return (
    <CollectionFrame place="search">
      <Stack gap="md">
        <Title order={1} size="h2">
          Search
        </Title>
        <AskedFields
          label="Words to search for"
          asked={asked}
          change={change}
          rightSection={isFetching ? <Loader size={16} aria-label="Searching" /> : null}
        />
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {asks && data && (
          <>
            <Group gap="xs" justify="space-between">
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
              <KeepSearch asked={settled} proposed={askedWords(settled, names)} />
            </Group>
            {data.isPartial && (
              <Text size="sm" c="dimmed">
                The words of this collection are still being gathered: there may be more. Search again in a moment.
              </Text>
            )}
            <FoundList
              rows={shown}
              words={data.words}
              onTag={(tag) => setAsked({ ...NOTHING_ASKED, tag: TagId.parse(tag) })}
              onTaken={() => keepSearch(session.id, settled.words)}
            />
            {shown.length === 0 && !isFetching && (
              <Text c="dimmed">
                {settled.words.trim() === ''
                  ? `Nothing has all of this: ${askedWords(settled, names)}.`
                  : `Nothing has “${settled.words.trim()}”, or words close to it${isAsking({ ...settled, words: '' }) ? ', and all else that is asked for' : ''}.`}
              </Text>
            )}
          </>
        )}
        {!asks && (
          <>
            <Lately collection={session.id} onChoose={(words) => change({ words })} />
            <KeptSearches names={names} onChoose={setAsked} />
            <TagList onShow={(tag) => change({ tag: TagId.parse(tag) })} />
          </>
        )}
      </Stack>
    </CollectionFrame>
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
