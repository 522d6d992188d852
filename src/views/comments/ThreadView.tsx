import { Badge, Button } from '@mantine/core'
import { useState } from 'react'
import { sayWhen } from '../app/when'
import { CommentField } from './CommentField'
import styles from './comments.module.css'

/** What of a comment is shown, whether it is held or listed. */
export interface ShownComment {
  id: string
  author: string | null
  authorName: string
  at: string
  text: string
  quote: string
}

/** Takes words; false where that could not be done. */
type TakeWords = (text: string) => boolean | Promise<boolean>

/** What somebody may do with a thread; null where they may not. */
export interface ThreadActs {
  answer: TakeWords | null
  settle: ((resolved: boolean) => void) | null
  reword(comment: string): TakeWords | null
  remove(comment: string): (() => void) | null
}

interface Props {
  head: ShownComment
  answers: readonly ShownComment[]
  resolved: boolean
  isNew(comment: string): boolean
  /** Goes to the words of the note that a comment is about; where it is missing, they are only told. */
  showQuote?(words: string): void
  acts: ThreadActs
}

/** A comment with what was answered to it. */
export function ThreadView({ head, answers, resolved, isNew, showQuote, acts }: Props) {
  const [answering, setAnswering] = useState(false)
  const { answer, settle } = acts
  return (
    <article className={styles.thread} data-settled={resolved || undefined}>
      {[head, ...answers].map((comment) => (
        <CommentView
          key={comment.id}
          comment={comment}
          isAnswer={comment !== head}
          isNew={isNew(comment.id)}
          showQuote={showQuote}
          reword={acts.reword(comment.id)}
          remove={acts.remove(comment.id)}
        />
      ))}
      {answering && answer ? (
        <div className={styles.answer}>
          <CommentField
            about={`answer:${head.id}`}
            label={`Answer ${head.authorName}`}
            act="Answer"
            take={async (text) => {
              if (!(await answer(text))) return false
              setAnswering(false)
              return true
            }}
            leave={() => setAnswering(false)}
          />
        </div>
      ) : (
        <div className={styles.acts}>
          {answer && (
            <Button size="compact-sm" variant="subtle" onClick={() => setAnswering(true)}>
              Answer
            </Button>
          )}
          {settle && (
            <Button size="compact-sm" variant="subtle" color="gray" onClick={() => settle(!resolved)}>
              {resolved ? 'Take up again' : 'Mark as settled'}
            </Button>
          )}
        </div>
      )}
    </article>
  )
}

interface CommentProps {
  comment: ShownComment
  isAnswer: boolean
  isNew: boolean
  showQuote: ((words: string) => void) | undefined
  reword: TakeWords | null
  remove: (() => void) | null
}

function CommentView({ comment, isAnswer, isNew, showQuote, reword, remove }: CommentProps) {
  const [rewording, setRewording] = useState(false)
  const { authorName, author, at, text, quote } = comment
  return (
    <div className={isAnswer ? styles.answer : undefined}>
      <div className={styles.who}>
        <b>{authorName || 'Somebody'}</b>
        <span className={styles.when} title={author === null ? 'Brought in from elsewhere' : undefined}>
          {sayWhen(new Date(at))}
        </span>
        {isNew && (
          <Badge size="sm" variant="light">
            new
          </Badge>
        )}
      </div>
      {quote !== '' && (
        <blockquote className={styles.quote}>
          {showQuote ? (
            <button type="button" title="Show it in the note" onClick={() => showQuote(quote)}>
              {quote}
            </button>
          ) : (
            quote
          )}
        </blockquote>
      )}
      {rewording && reword ? (
        <CommentField
          about={`reword:${comment.id}`}
          label="Say it in other words"
          act="Keep"
          before={text}
          take={async (words) => {
            if (!(await reword(words))) return false
            setRewording(false)
            return true
          }}
          leave={() => setRewording(false)}
        />
      ) : (
        <p className={styles.text} dir="auto">
          {text}
        </p>
      )}
      {!rewording && (reword || remove) && (
        <div className={styles.own}>
          {reword && (
            <button type="button" onClick={() => setRewording(true)} aria-label={`Reword: ${text.slice(0, 40)}`}>
              Reword
            </button>
          )}
          {remove && (
            <button type="button" onClick={remove} aria-label={`Remove: ${text.slice(0, 40)}`}>
              Remove
            </button>
          )}
        </div>
      )}
    </div>
  )
}
