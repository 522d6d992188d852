import { Button, Group, Stack, Text, Title } from '@mantine/core'
import { useQuery } from '@tanstack/react-query'
import { useState } from 'react'
import { ask, wordsFor } from '../app/api'
import { FindDialog } from '../dialogs/FindDialog'
import type { Found } from '../dialogs/found'
import { useSession } from '../sync/use-session'
import { PlaceLink } from './LedgerTable'
import { WayAnswer } from './ledger-schema'
import styles from './links.module.css'

type End = 'from' | 'to'
const ENDS: readonly End[] = ['from', 'to']
const NAMES: Record<End, string> = { from: 'From', to: 'To' }
const BY = { branch: 'by a branch', crosslink: 'by a cross-link', doorway: 'through a doorway' }

/** The shortest way between two topics, wherever they stand, as a chain of topics. */
export function ShortestWay() {
  const session = useSession()
  const [ends, setEnds] = useState<Partial<Record<End, Found>>>({})
  const [asked, setAsked] = useState<End | null>(null)
  const { from, to } = ends
  const { data, error, isFetching } = useQuery({
    queryKey: ['way', session.id, from?.id, to?.id],
    queryFn: () => ask(WayAnswer, `/api/collections/${session.id}/way?from=${from?.id}&to=${to?.id}`),
    enabled: from !== undefined && to !== undefined,
    staleTime: 0,
  })
  return (
    <Stack gap="sm" component="section" aria-label="Shortest way">
      <Title order={2} size="h4">
        Shortest way between two topics
      </Title>
      <Group>
        {ENDS.map((end) => (
          <Button key={end} variant="default" onClick={() => setAsked(end)} maw={320}>
            {NAMES[end]}: {ends[end]?.text ?? 'choose a topic'}
          </Button>
        ))}
      </Group>
      {error && <Text c="var(--ember-text)">{wordsFor(error)}</Text>}
      {isFetching && !data && <Text c="dimmed">Looking for it …</Text>}
      {data === null && <Text>No way leads from one to the other.</Text>}
      {data && (
        <ol className={styles.way}>
          {data.map((step, i) => (
            <li key={step.topic} className={styles.step}>
              {step.by && <small className={styles.by}>{BY[step.by]} to </small>}
              <PlaceLink place={step} beside={data[i - 1] ?? null} text={step.text} />
            </li>
          ))}
        </ol>
      )}
      {asked && (
        <FindDialog
          collection={session.id}
          title={asked === 'from' ? 'From which topic?' : 'To which topic?'}
          kinds={['topic']}
          onTake={(found) => {
            setEnds({ ...ends, [asked]: found })
            setAsked(null)
          }}
          onClose={() => setAsked(null)}
        />
      )}
    </Stack>
  )
}
