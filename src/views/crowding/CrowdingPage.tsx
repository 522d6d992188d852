import { Alert, Anchor, Button, Checkbox, Group, Loader, Stack, Text, TextInput, Title } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useDeferredValue, useState } from 'react'
import { z } from 'zod'
import { setLimits } from '../../core/commands/set-limits'
import type { SplitPart } from '../../core/commands/split-off'
import { limitsOf } from '../../core/crowding/piece-cost'
import { LIMITS } from '../../core/records/collection'
import { MapId, TopicId } from '../../core/records/ids'
import { MAX_TITLE } from '../../core/records/text'
import { counted } from '../../core/text/counted'
import { ask, tell, wordsFor } from '../app/api'
import { NumberField } from '../app/fields/NumberField'
import { useRowsInView } from '../app/rows-in-view'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { ThumbnailPicture } from '../pictures/ThumbnailPicture'
import { useSession } from '../sync/use-session'
import styles from './crowding.module.css'

const Numbers = z.object({ maps: z.number(), largest: z.number(), px: z.number(), between: z.number() })
const Part = z.union([
  z.object({ topic: TopicId, name: z.string().optional() }),
  z.object({ row: z.array(TopicId), name: z.string() }),
])
const Crowded = z.object({
  map: MapId,
  words: z.string(),
  before: Numbers,
  after: Numbers,
  parts: z.array(z.object({ part: Part, topics: z.number(), share: z.number(), leaving: z.number() })),
})
type Crowded = z.infer<typeof Crowded>
const Review = z.object({ count: z.number(), maps: z.array(Crowded) })

const REVIEW_MS = 120_000

/** The height of a map with what could be split off, before it is measured, in px. */
const ONE_MAP = 260

export default function CrowdingPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Crowding />
    </OpenedCollection>
  )
}

const keyOf = (part: SplitPart): string => ('row' in part ? part.row.join(' ') : part.topic)

/** What a person has said of a proposal: left out, or named. */
interface Said {
  isLeft: boolean
  name: string | null
}

/** The split review of a whole collection: maps that are hard to read, worst first, each with what could be split off. */
function Crowding() {
  const session = useSession()
  const queries = useQueryClient()
  const key = ['crowding', session.id]
  const { data: told, error } = useQuery({
    queryKey: key,
    queryFn: () => ask(Review, `/api/collections/${session.id}/crowding`, { limit: REVIEW_MS }),
    staleTime: 0,
  })
  const review = useDeferredValue(told)
  const data = review?.maps
  const {
    body,
    visible,
    before: rowsBefore,
    after: rowsAfter,
    measure,
  } = useRowsInView<HTMLDivElement>(data?.length ?? 0, (index) => data![index]!.map, ONE_MAP)
  const [said, setSaid] = useState<ReadonlyMap<string, Said>>(new Map())
  const [busy, setBusy] = useState(false)
  const again = () => void queries.invalidateQueries({ queryKey: key })
  const taken = (of: Crowded): SplitPart[] =>
    of.parts.flatMap(({ part }) => {
      const { isLeft, name } = said.get(keyOf(part)) ?? { isLeft: false, name: null }
      return isLeft ? [] : [name === null ? part : { ...part, name }]
    })
  const all = (data ?? []).flatMap(taken)
  const split = async () => {
    setBusy(true)
    const done = await session.server.command('split-off', { parts: all })
    setBusy(false)
    if (done) tell(`Split off ${counted(all.length, 'branch', 'branches')}.`)
    again()
  }
  const say = (part: SplitPart, change: Partial<Said>) =>
    setSaid((before) => {
      const known = before.get(keyOf(part)) ?? { isLeft: false, name: null }
      return new Map(before).set(keyOf(part), { ...known, ...change })
    })
  return (
    <CollectionFrame place="crowding">
      <Stack gap="lg">
        <Title order={1} size="h2">
          {review ? titleFor(review.count) : 'Crowding'}
        </Title>
        <LimitsForm onDone={again} />
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader aria-label="Looking at all maps" />}
        {data?.length === 0 && (
          <Text>
            Every map can be read as it is. <Anchor href={`/c/${session.id}`}>All maps</Anchor>
          </Text>
        )}
        {review && review.count > review.maps.length && (
          <Text size="sm">
            Here are the {review.maps.length} of them that are hardest to read. The others follow when these are split.
          </Text>
        )}
        <div ref={body}>
          <div style={{ height: rowsBefore }} />
          {visible.map(({ index }) => {
            const crowded = data![index]!
            return (
              <div key={crowded.map} ref={measure} data-index={index} className={styles.row}>
                <OneMap
                  crowded={crowded}
                  taken={taken(crowded)}
                  saidOf={(part) => said.get(keyOf(part)) ?? { isLeft: false, name: null }}
                  say={say}
                />
              </div>
            )
          })}
          <div style={{ height: rowsAfter }} />
        </div>
        {session.mayEdit && all.length > 0 && (
          <Group justify="flex-end" className={styles.foot}>
            <Button loading={busy} onClick={() => void split()}>
              Split off {counted(all.length, 'branch', 'branches')}
            </Button>
          </Group>
        )}
      </Stack>
    </CollectionFrame>
  )
}

const titleFor = (count: number): string =>
  count === 0 ? 'Nothing is crowded' : count === 1 ? 'One map is hard to read' : `${count} maps are hard to read`

function OneMap({
  crowded,
  taken,
  saidOf,
  say,
}: {
  crowded: Crowded
  taken: readonly SplitPart[]
  saidOf(part: SplitPart): Said
  say(part: SplitPart, change: Partial<Said>): void
}) {
  const session = useSession()
  const { map, words, before, parts } = crowded
  const isAsProposed = taken.length === parts.length
  const keys = taken.map(keyOf)
  const { data: after = crowded.after } = useQuery({
    queryKey: ['comes-to', session.id, map, keys],
    queryFn: () =>
      ask(Numbers, `/api/collections/${session.id}/crowding`, { method: 'POST', body: { map, parts: taken } }),
    enabled: !isAsProposed,
    placeholderData: (known) => known,
    staleTime: Number.POSITIVE_INFINITY,
  })
  const shown = isAsProposed ? crowded.after : after
  const title = session.titleOf(map)
  return (
    <section className={styles.map} aria-label={title}>
      <div className={styles.picture} aria-hidden>
        <ThumbnailPicture collection={session.id} map={map} version={String(before.largest)} />
      </div>
      <Stack gap={6} className={styles.told}>
        <Title order={2} size="h4" style={{ overflowWrap: 'anywhere' }}>
          <Anchor href={`/c/${session.id}/m/${map}`}>{title}</Anchor>
        </Title>
        <Text size="sm">{words.charAt(0).toUpperCase() + words.slice(1)}.</Text>
        <Text size="sm" role="status">
          largest map <b>{before.largest}</b> → <b>{shown.largest}</b> topics, smallest text{' '}
          <b>{Math.max(1, Math.floor(before.px))}</b> → <b>{Math.max(1, Math.floor(shown.px))}</b> px, maps <b>1</b> →{' '}
          <b>{shown.maps}</b>, links between them <b>{shown.between}</b>
        </Text>
        {parts.length === 0 && <Text size="sm">Nothing on it could be split off so that it is easier to read.</Text>}
        <ul className={styles.parts}>
          {parts.map(({ part, topics, share, leaving }) => {
            const { isLeft, name } = saidOf(part)
            const shownName = name ?? part.name ?? ''
            return (
              <li key={keyOf(part)}>
                <Checkbox
                  checked={!isLeft}
                  disabled={!session.mayEdit}
                  aria-label={`Split off ${shownName}`}
                  onChange={(event) => say(part, { isLeft: !event.currentTarget.checked })}
                />
                <TextInput
                  size="xs"
                  className={styles.name}
                  aria-label={`Name of the map for ${part.name}`}
                  value={shownName}
                  maxLength={MAX_TITLE}
                  readOnly={!session.mayEdit}
                  onChange={(event) => say(part, { name: event.currentTarget.value })}
                />
                <Text size="sm" c="dimmed">
                  {counted(topics, 'topic', 'topics')}, {Math.round(share * 100)} % of the map
                  {leaving > 0 && `, ${counted(leaving, 'link leaves', 'links leave')} it`}
                </Text>
              </li>
            )
          })}
        </ul>
      </Stack>
    </section>
  )
}

/** From when on a map is called crowded, for this collection. */
function LimitsForm({ onDone }: { onDone(): void }) {
  const session = useSession()
  const { limit, px } = limitsOf(session.records)
  const [asked, setAsked] = useState<{ topics: number; px: number } | null>(null)
  const shown = asked ?? { topics: limit, px }
  const set = (limits: { topics: number; px: number } | null) => {
    const { id } = session.collection
    if (session.run((records, newIds) => setLimits(records, { collection: id, limits }, newIds)) === null) return
    setAsked(null)
    // What was set here is known there when it is saved.
    setTimeout(onDone, 600)
  }
  return (
    <Group gap="xs" align="center">
      <Text size="sm">A map is crowded beyond</Text>
      <NumberField
        size="xs"
        w={84}
        aria-label="Topics"
        min={LIMITS.topics.least}
        max={LIMITS.topics.most}
        allowDecimal={false}
        value={shown.topics}
        readOnly={!session.mayEditAll}
        take={(topics) => setAsked({ ...shown, topics: topics ?? LIMITS.topics.least })}
      />
      <Text size="sm">topics, or when its text falls under</Text>
      <NumberField
        size="xs"
        w={76}
        aria-label="Size of text in px"
        min={LIMITS.px.least}
        max={LIMITS.px.most}
        value={shown.px}
        readOnly={!session.mayEditAll}
        take={(px) => setAsked({ ...shown, px: px ?? LIMITS.px.least })}
      />
      <Text size="sm">px when fitted.</Text>
      {asked && (
        <Button size="compact-sm" onClick={() => set(clamped(asked))}>
          Set
        </Button>
      )}
      {!asked && session.collection.limits && session.mayEditAll && (
        <Button size="compact-sm" variant="default" onClick={() => set(null)}>
          As usual
        </Button>
      )}
    </Group>
  )
}

const within = (value: number, { least, most }: { least: number; most: number }) =>
  Math.min(most, Math.max(least, value))
const clamped = ({ topics, px }: { topics: number; px: number }) => ({
  topics: Math.round(within(topics, LIMITS.topics)),
  px: within(px, LIMITS.px),
})
