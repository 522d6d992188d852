import { useQuery, useQueryClient } from '@tanstack/react-query'
import { useEffect } from 'react'
import { z } from 'zod'
import { ask } from '../app/api'
import { useSessionHandle } from '../sync/use-session'

const Comment = z.object({
  id: z.string(),
  answers: z.string().nullable(),
  topic: z.string(),
  topicText: z.string(),
  map: z.string(),
  mapTitle: z.string(),
  author: z.string().nullable(),
  authorName: z.string(),
  at: z.string(),
  text: z.string(),
  quote: z.string(),
  resolved: z.boolean(),
  isNew: z.boolean(),
  isForMe: z.boolean(),
})
export type ListedComment = z.infer<typeof Comment>
export const CommentsAnswer = z.array(Comment)

export const commentsKey = (collection: string) => ['comments', collection]

/** What others said may have come from anywhere: it is asked for again after so long, in ms. */
const AGAIN_MS = 60_000

/** What was said and this person has not seen; null until that is known. */
export function useNewComments(): { id: string; topic: string; isForMe: boolean }[] | null {
  const { id } = useSessionHandle()
  const { data } = useQuery({
    queryKey: [...commentsKey(id), 'new'],
    queryFn: () => ask(CommentsAnswer, `/api/collections/${id}/comments?new`),
    refetchInterval: AGAIN_MS,
  })
  return data ?? null
}

/** Notes that this person sees some comments, once they have had a moment for it. */
export function useSeen(comments: readonly string[]): void {
  const { id } = useSessionHandle()
  const queries = useQueryClient()
  const seen = comments.join(' ')
  useEffect(() => {
    if (seen === '') return
    const timer = setTimeout(() => {
      ask(z.unknown(), `/api/collections/${id}/comments/seen`, {
        method: 'POST',
        body: { comments: seen.split(' ').slice(0, 1_000) },
      }).then(
        () => queries.invalidateQueries({ queryKey: commentsKey(id) }),
        // It is new once more when it is looked at next.
        () => {},
      )
    }, 1_500)
    return () => clearTimeout(timer)
  }, [seen, id, queries])
}

const People = z.array(z.object({ id: z.string(), name: z.string() }))
export type NamedPerson = z.infer<typeof People>[number]

/** Whoever has a role in the collection, by name. */
export function usePeople(): NamedPerson[] {
  const { id } = useSessionHandle()
  const { data } = useQuery({
    queryKey: ['people', id],
    queryFn: () => ask(People, `/api/collections/${id}/people`),
    staleTime: 60_000,
  })
  return data ?? []
}

/** The people whom a text names, with an @ before their name. */
export const namedIn = (text: string, people: readonly NamedPerson[]): NamedPerson[] =>
  people.filter(({ name }) => name !== '' && text.toLowerCase().includes(`@${name.toLowerCase()}`))
