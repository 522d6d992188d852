import { Alert, Button, Chip, Group, Loader, Stack, Text, Title } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useMemo, useState } from 'react'
import { foldForFinding } from '../../core/text/folding'
import { ask, wordsFor } from '../app/api'
import { FindField } from '../app/fields/FindField'
import { sayWhen } from '../app/when'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { useSession } from '../sync/use-session'
import { ClutterBand } from './ClutterBand'
import { LedgerTable } from './LedgerTable'
import { LedgerAnswer } from './ledger-schema'
import { countsOf, FACET_NAMES, FACETS, type Facet, rowsOf } from './rows'
import { ShortestWay } from './ShortestWay'

export default function LinksPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Links />
    </OpenedCollection>
  )
}

/** The links ledger: clutter and what would help, all links as a table, and the shortest way between two topics. */
function Links() {
  const session = useSession()
  const queries = useQueryClient()
  const key = ['links', session.id]
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => ask(LedgerAnswer, `/api/collections/${session.id}/links`, { limit: LEDGER_MS }),
    staleTime: 0,
  })
  const [isBusy, setBusy] = useState(false)
  /** Has the server change something, and shows the links as they then are. */
  const change = (command: string, args: object) => {
    setBusy(true)
    void session.server
      .command(command, args)
      .then(() => queries.invalidateQueries({ queryKey: key }))
      .finally(() => setBusy(false))
  }
  return (
    <CollectionFrame place="links">
      <Stack gap="lg">
        <Title order={1} size="h2">
          Links
        </Title>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader aria-label="Reading all links" />}
        {data && <ClutterBand clutter={data.clutter} isBusy={isBusy} change={change} />}
        <ShortestWay />
        {data && <Table ledger={data} isBusy={isBusy} change={change} />}
      </Stack>
    </CollectionFrame>
  )
}

const LEDGER_MS = 120_000

interface Parts {
  ledger: LedgerAnswer
  isBusy: boolean
  change(command: string, args: object): void
}

function Table({ ledger, isBusy, change }: Parts) {
  const counts = useMemo(() => countsOf(ledger), [ledger])
  const [chosen, setChosen] = useState<Facet | null>(null)
  const [words, setWords] = useState('')
  // What asks for a decision comes first.
  const facet = chosen ?? FACETS.find((each) => each === 'broken' && counts[each] > 0) ?? 'drawn'
  const rows = useMemo(() => {
    const wanted = foldForFinding(words).split(/\s+/).filter(Boolean)
    return rowsOf(ledger, facet).filter(({ from, toWords, how }) => {
      const said = foldForFinding(`${from.text} ${toWords} ${how}`)
      return wanted.every((word) => said.includes(word))
    })
  }, [ledger, facet, words])
  return (
    <Stack gap="sm">
      <Chip.Group multiple={false} value={facet} onChange={(value) => setChosen(value as Facet)}>
        <Group gap="xs" role="group" aria-label="Which links">
          {FACETS.map((each) => (
            <Chip key={each} value={each} size="sm">
              {FACET_NAMES[each]} {counts[each]}
            </Chip>
          ))}
        </Group>
      </Chip.Group>
      <FindField words={words} setWords={setWords} />
      {(facet === 'web' || facet === 'stale') && counts.web > 0 && <LookAtPages checkedAt={ledger.checkedAt} />}
      {rows.length === 0 ? (
        <Text c="dimmed">{words.trim() === '' ? EMPTY[facet] : 'None of these has such words.'}</Text>
      ) : (
        <LedgerTable rows={rows} facet={facet} isBusy={isBusy} change={change} />
      )}
      {rows.length < counts[facet] && words.trim() === '' && (
        <Text c="dimmed">
          The first {rows.length} of {counts[facet]} are shown.
        </Text>
      )}
    </Stack>
  )
}

/** Has all web links looked at, and tells when that was last done. */
function LookAtPages({ checkedAt }: { checkedAt: string | null }) {
  const session = useSession()
  const queries = useQueryClient()
  const [isLooking, setLooking] = useState(false)
  const look = async () => {
    setLooking(true)
    if (await session.server.checkWeblinks()) await queries.invalidateQueries({ queryKey: ['links', session.id] })
    setLooking(false)
  }
  return (
    <Group gap="sm">
      {session.mayEditAll && (
        <Button size="compact-sm" variant="default" loading={isLooking} onClick={() => void look()}>
          Look whether the pages are there
        </Button>
      )}
      <Text size="sm" c="dimmed">
        {checkedAt
          ? `Last looked at ${sayWhen(new Date(checkedAt))}.`
          : 'Nobody has looked yet whether they are there.'}
      </Text>
    </Group>
  )
}

const EMPTY: Record<Facet, string> = {
  drawn: 'No cross-link is drawn as a line.',
  quiet: 'No cross-link is quiet.',
  broken: 'Every cross-link leads somewhere.',
  named: 'Nothing is named somewhere without being linked there.',
  close: 'No two topics are close in meaning without being linked.',
  overlaps: 'No two branches or maps say much the same.',
  stale: 'Nothing is known against any web link.',
  web: 'No topic has a web link.',
}
