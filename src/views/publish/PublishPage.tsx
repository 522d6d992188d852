import { Alert, Button, Group, Loader, Stack, Text, Title } from '@mantine/core'
import { IconDownload, IconExternalLink, IconWorldUpload } from '@tabler/icons-react'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect, useRef, useState } from 'react'
import { z } from 'zod'
import { MapId } from '../../core/records/ids'
import { CollectionDigest, ToldJob } from '../../core/records/snapshot'
import { counted } from '../../core/text/counted'
import { announce } from '../app/announce'
import { ask, tell, tellTrouble, wordsFor } from '../app/api'
import { Modal } from '../app/Modal'
import { sayWhen } from '../app/when'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { JobLine } from '../jobs/JobLine'

const State = z.object({
  /** The site as anybody can read it now. */
  publication: z
    .object({
      address: z.string(),
      changeNumber: z.number(),
      changesSince: z.number(),
      finishedAt: z.string().nullable(),
      /** The maps in it; null for all. */
      maps: z.array(MapId).nullable(),
    })
    .nullable(),
  /** The publishing that goes on, or ended last. */
  job: ToldJob.nullable(),
})

const isRunning = (job: ToldJob | null | undefined) =>
  job?.state === 'waiting' || job?.state === 'running' || job?.state === 'ending'

export default function PublishPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Desk collection={collection} />
    </OpenedCollection>
  )
}

const POLL_MS = 400

/** The maps that somebody chose elsewhere to publish. */
function mapsInAddress(): MapId[] | null | undefined {
  const named = new URL(window.location.href).searchParams.get('maps')?.split(',') ?? []
  const maps = named.flatMap((map) => MapId.safeParse(map).data ?? [])
  return maps.length > 0 ? maps : undefined
}

/** What a site lacks, or has too much, by now. */
function sinceThen(
  { changesSince, changeNumber }: { changesSince: number; changeNumber: number },
  last: number,
): string {
  if (changesSince > 0)
    return ` Since then ${changesSince === 1 ? '1 change was' : `${changesSince} changes were`} made that ${changesSince === 1 ? 'is' : 'are'} not in it.`
  return changeNumber < last
    ? ' Since then maps were removed for good that are still in it.'
    : ' Nothing has changed since.'
}

/** The publish desk: publish, see how far it is, open and download the site. */
function Desk({ collection }: { collection: string }) {
  const queries = useQueryClient()
  const path = `/api/collections/${collection}/publication`
  const { data: digest, error } = useQuery({
    queryKey: ['digest', collection],
    queryFn: () => ask(CollectionDigest, `/api/collections/${collection}`),
  })
  const { data } = useQuery({
    queryKey: ['publication', collection],
    queryFn: () => ask(State, path),
    refetchInterval: (query) => (isRunning(query.state.data?.job) ? POLL_MS : false),
  })
  const publish = useMutation({
    mutationFn: (maps: readonly string[] | null) =>
      maps ? ask(State, path, { method: 'PUT', body: { maps } }) : ask(State, path, { method: 'POST' }),
    onSuccess: (state) => queries.setQueryData(['publication', collection], state),
    onError: tellTrouble,
  })
  const takeDown = useMutation({
    mutationFn: () => ask(State, path, { method: 'DELETE' }),
    onSuccess: (state) => {
      queries.setQueryData(['publication', collection], state)
      setAsking(false)
      tell('The site was taken down. Its address stays yours for when you publish again.')
    },
    onError: tellTrouble,
  })
  const [asking, setAsking] = useState(false)
  /** What the person has said of it here; undefined where that is what was published before. */
  const [said, setSaid] = useState(mapsInAddress)
  const state = data?.job?.state
  const before = useRef(state)
  useEffect(() => {
    if (state === 'done' && before.current !== undefined && before.current !== 'done')
      announce('The site is published.')
    before.current = state
    void queries.invalidateQueries({ queryKey: ['waiting', collection] })
  }, [state, queries, collection])
  if (error)
    return (
      <CollectionFrame place="publish">
        <Alert color="ember">{wordsFor(error)}</Alert>
      </CollectionFrame>
    )
  if (!digest || !data)
    return (
      <CollectionFrame place="publish">
        <Loader aria-label="Opening the publish desk" />
      </CollectionFrame>
    )
  const { publication, job } = data
  const all = digest.maps.filter((map) => !map.trashed)
  const choice = said === undefined ? (publication?.maps ?? null) : said
  const maps = choice ? all.filter(({ id }) => choice.includes(id)) : all
  const running = isRunning(job)
  const published = publication !== null
  const mayPublish = (digest.role === 'owner' || digest.role === 'editor') && digest.roles === null
  return (
    <CollectionFrame place="publish">
      <Stack gap="lg">
        <Title order={1} size="h2">
          Publish {digest.collection.title}
        </Title>
        <Text>
          The site will hold {maps.length === 1 ? 'one map' : `${maps.length} maps`} with{' '}
          {counted(
            maps.reduce((sum, map) => sum + map.topics, 0),
            'topic',
            'topics',
          )}
          , with their notes, links and files. Anyone who knows its address can read it.
        </Text>
        {choice && (
          <Group gap="xs">
            <Text size="sm" style={{ overflowWrap: 'anywhere' }}>
              Only {maps.map(({ title }) => title || 'Untitled').join(', ')}. Nothing of the other{' '}
              {all.length - maps.length} is in it.
            </Text>
            <Button variant="subtle" size="compact-sm" onClick={() => setSaid(null)}>
              All maps instead
            </Button>
          </Group>
        )}
        {job?.state === 'failed' && <Alert color="ember">{job.message}</Alert>}
        {job?.state === 'cancelled' && (
          <Alert color="gray">Publishing was cancelled. {published ? 'The site is as it was before.' : ''}</Alert>
        )}
        {job && running ? (
          <JobLine job={job} collection={collection} mayCancel={mayPublish} />
        ) : (
          <Group>
            <Button
              leftSection={<IconWorldUpload size={18} />}
              onClick={() => publish.mutate(choice && maps.map(({ id }) => id))}
              loading={publish.isPending}
              disabled={!mayPublish || maps.length === 0}
            >
              {published ? 'Publish again' : 'Publish'}
            </Button>
            {published && (
              <>
                <Button
                  variant="light"
                  component="a"
                  href={`/site/${publication.address}/`}
                  target="_blank"
                  leftSection={<IconExternalLink size={18} />}
                >
                  Open the site
                </Button>
                <Button variant="default" component="a" href={`${path}.zip`} leftSection={<IconDownload size={18} />}>
                  Download as zip
                </Button>
                {mayPublish && (
                  <Button variant="subtle" color="ember" onClick={() => setAsking(true)}>
                    Take the site down
                  </Button>
                )}
              </>
            )}
          </Group>
        )}
        {published && !running && (
          <Text c="dimmed" size="sm">
            Published {publication.finishedAt ? sayWhen(new Date(publication.finishedAt)) : ''}.
            {sinceThen(publication, digest.number)}
          </Text>
        )}
      </Stack>
      <Modal opened={asking} onClose={() => setAsking(false)} title="Take the site down?">
        <Stack>
          <Text>Nobody will be able to read it until you publish again. Your maps stay as they are.</Text>
          <Group justify="flex-end">
            <Button variant="default" onClick={() => setAsking(false)}>
              Leave it
            </Button>
            <Button color="ember" onClick={() => takeDown.mutate()} loading={takeDown.isPending}>
              Take it down
            </Button>
          </Group>
        </Stack>
      </Modal>
    </CollectionFrame>
  )
}
