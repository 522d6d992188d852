import { Text } from '@mantine/core'
import { useCallback, useState } from 'react'
import { threadsAt } from '../../core/network/comments'
import type { TopicRecord } from '../../core/records/topic'
import { showPassage } from '../note-editor/show-passage'
import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { CommentField } from './CommentField'
import { useNewComments, usePeople, useSeen } from './comments'
import styles from './comments.module.css'
import { quoteNothing, useQuoted } from './quoted'
import { say, threadActs } from './say'
import { ThreadView } from './ThreadView'

/** What was said about a topic, thread by thread; what is settled is folded away. */
export default function CommentsSection({ topic }: { topic: TopicRecord }) {
  const session = useSessionHandle()
  const people = usePeople()
  const [showsSettled, setShowsSettled] = useState(false)
  const { threads, mayComment } = useCalmPart(
    useCallback(
      (now: CollectionSession) => ({
        threads: threadsAt(now.records, topic.id),
        mayComment: now.mayCommentOn(topic.place.map),
      }),
      [topic.id, topic.place.map],
    ),
  )
  const quoted = useQuoted(({ quoted }) => quoted)
  const quote = quoted?.topic === topic.id ? quoted.words : ''
  const fresh = new Set((useNewComments() ?? []).map(({ id }) => id))
  const open = threads.filter(({ head }) => !head.resolved)
  const settled = threads.filter(({ head }) => head.resolved)
  const shown = showsSettled ? threads : open
  useSeen(shown.flatMap(({ head, answers }) => [head, ...answers]).flatMap(({ id }) => (fresh.has(id) ? id : [])))
  return (
    <div className={styles.threads}>
      {shown.map(({ head, answers }) => (
        <ThreadView
          key={head.id}
          head={head}
          answers={answers}
          resolved={head.resolved}
          isNew={(id) => fresh.has(id)}
          showQuote={(words) => showPassage(topic.id, words)}
          acts={threadActs(session, people, { topic: topic.id, map: topic.place.map }, head.id, [head, ...answers])}
        />
      ))}
      {settled.length > 0 && (
        <button type="button" className={styles.settled} onClick={() => setShowsSettled(!showsSettled)}>
          {showsSettled
            ? 'Fold away what is settled'
            : settled.length === 1
              ? 'One that is settled'
              : `${settled.length} that are settled`}
        </button>
      )}
      {mayComment ? (
        <>
          {quote !== '' && <blockquote className={styles.quote}>{quote}</blockquote>}
          <CommentField
            key={`${topic.id} ${quote}`}
            about={`${topic.id}:${quote}`}
            label={quote === '' ? 'Say something about this topic' : 'Say something about these words'}
            act="Comment"
            take={(text) => {
              const isSaid = say(session, people, { topic: topic.id, text, quote, answers: null })
              if (isSaid) quoteNothing()
              return isSaid
            }}
            leave={quote === '' ? undefined : quoteNothing}
          />
        </>
      ) : (
        threads.length === 0 && (
          <Text size="sm" c="dimmed">
            Nothing was said about this topic.
          </Text>
        )
      )}
    </div>
  )
}
