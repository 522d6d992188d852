import { Alert, Anchor, Chip, Group, Loader, Stack, Text, Title } from '@mantine/core'
import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useState } from 'react'
import { MapId, TopicId } from '../../core/records/ids'
import { ask, tellTrouble, wordsFor } from '../app/api'
import { CollectionFrame } from '../frame/CollectionFrame'
import { OpenedCollection } from '../frame/OpenedCollection'
import { useSession } from '../sync/use-session'
import { CommentsAnswer, commentsKey, type ListedComment, usePeople, useSeen } from './comments'
import styles from './comments.module.css'
import { threadActs } from './say'
import { type ThreadActs, ThreadView } from './ThreadView'

interface ListedThread {
  head: ListedComment
  answers: ListedComment[]
}

const all = ({ head, answers }: ListedThread) => [head, ...answers]

const FACETS = {
  open: { name: 'Open', fits: ({ head }: ListedThread) => !head.resolved },
  new: { name: 'New to you', fits: (thread: ListedThread) => all(thread).some(({ isNew }) => isNew) },
  mine: { name: 'Naming you', fits: (thread: ListedThread) => all(thread).some(({ isForMe }) => isForMe) },
  settled: { name: 'Settled', fits: ({ head }: ListedThread) => head.resolved },
} as const
type Facet = keyof typeof FACETS
const NAMES = Object.keys(FACETS) as Facet[]

export default function CommentsPage({ collection }: { collection: string }) {
  return (
    <OpenedCollection collection={collection}>
      <Comments />
    </OpenedCollection>
  )
}

/** What was said in all maps, the newest thread first. */
function Comments() {
  const session = useSession()
  const queries = useQueryClient()
  const key = commentsKey(session.id)
  const { data, error } = useQuery({
    queryKey: key,
    queryFn: () => ask(CommentsAnswer, `/api/collections/${session.id}/comments`),
    staleTime: 0,
  })
  const [facet, setFacet] = useState<Facet>('open')
  const threads = threadsIn(data ?? [])
  const shown = threads.filter(FACETS[facet].fits)
  // Who looks at what is new to them has seen it when they leave.
  useSeen(facet === 'new' ? [] : shown.flatMap(all).flatMap(({ id, isNew }) => (isNew ? id : [])))
  const refresh = () => queries.invalidateQueries({ queryKey: key })
  return (
    <CollectionFrame place="comments">
      <Stack gap="md">
        <Title order={1} size="h2">
          Comments
        </Title>
        {error && <Alert color="ember">{wordsFor(error)}</Alert>}
        {!data && !error && <Loader aria-label="Reading the comments" />}
        {data && (
          <>
            <Chip.Group
              multiple={false}
              value={facet}
              onChange={(value) => setFacet(NAMES.find((each) => each === value) ?? 'open')}
            >
              <Group gap="xs" role="group" aria-label="Which comments">
                {NAMES.map((each) => (
                  <Chip key={each} value={each} size="sm">
                    {FACETS[each].name} {threads.filter(FACETS[each].fits).length}
                  </Chip>
                ))}
              </Group>
            </Chip.Group>
            {shown.length === 0 && (
              <Text c="dimmed">
                {threads.length === 0
                  ? 'Nothing was said here yet. On a map, select a topic and open Comments in the topic sheet.'
                  : 'No comment is like this.'}
              </Text>
            )}
            <div className={styles.threads}>
              {shown.map((thread) => (
                <PlacedThread key={thread.head.id} thread={thread} refresh={refresh} />
              ))}
            </div>
          </>
        )}
      </Stack>
    </CollectionFrame>
  )
}

function threadsIn(comments: readonly ListedComment[]): ListedThread[] {
  const heads = comments.filter(({ answers }) => answers === null)
  return heads.map((head) => ({ head, answers: comments.filter(({ answers }) => answers === head.id) })).reverse()
}

/** A thread with the way to its topic. */
function PlacedThread({ thread, refresh }: { thread: ListedThread; refresh(): Promise<void> }) {
  const session = useSession()
  const people = usePeople()
  const { head, answers } = thread
  const map = MapId.parse(head.map)
  const topic = TopicId.parse(head.topic)
  const own = threadActs(session, people, { topic, map }, head.id, all(thread))
  /** What is done to a comment is done to what is held: its map is fetched for it. */
  const held =
    <Arg,>(act: (arg: Arg) => unknown) =>
    async (arg: Arg): Promise<boolean> => {
      try {
        if (!session.isOpen(map)) await session.openMap(map)
        if ((await act(arg)) === false) return false
      } catch (error) {
        tellTrouble(error)
        return false
      }
      void session.whenSaved().then(refresh).catch(tellTrouble)
      return true
    }
  const acts: ThreadActs = {
    answer: own.answer && held(own.answer),
    settle: own.settle && held(own.settle),
    reword: (id) => {
      const reword = own.reword(id)
      return reword && held(reword)
    },
    remove: (id) => {
      const remove = own.remove(id)
      return remove && (() => void held(remove)(undefined))
    },
  }
  return (
    <div>
      <p className={styles.place}>
        <Anchor href={`/c/${session.id}/m/${map}?topic=${topic}&section=comments`}>
          {head.topicText || 'Untitled'}
        </Anchor>{' '}
        in {head.mapTitle}
      </p>
      <ThreadView
        head={head}
        answers={answers}
        resolved={head.resolved}
        isNew={(id) => all(thread).some((comment) => comment.id === id && comment.isNew)}
        acts={acts}
      />
    </div>
  )
}
