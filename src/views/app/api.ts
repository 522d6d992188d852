import { notifications } from '@mantine/notifications'
import type { ReactNode } from 'react'
import { z } from 'zod'
import { noteBuild } from './new-version'

/** An answer of the server that says no, in its words. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}

/** No answer came in time: the server cannot be reached, or the line is slow. */
export class NoAnswer extends TypeError {}

const Problem = z.object({ error: z.string() })

/** How long an answer may take, unless told otherwise, in ms. */
const ANSWER_MS = 30_000

/** What is sent may outlive the page up to this length; browsers keep 64 kB of all that is on its way. */
const OUTLIVING_LETTERS = 8_000

/** For whom this window asks, once it is known: the server refuses what is asked after somebody else has signed in here. */
let asker: string | null = null
export const askFor = (person: string): void => {
  asker = person
}
export const askerHeaders = (): Record<string, string> => (asker === null ? {} : { 'X-Folvet-Person': asker })

/** What is asked of our own server. */
interface Asked {
  method?: string
  body?: unknown
  /** In ms. */
  limit?: number
  /** Whether it arrives, where it is short, also when the page is left at once. */
  outlivesPage?: boolean
  /** Is given the answer too, as it came. */
  copyTo?(answer: Response): void
}

/** Asks our own server. Throws an ApiError with its words, or a TypeError where it cannot be reached in time. */
export async function ask<Answer>(
  schema: z.ZodType<Answer>,
  path: string,
  { method = 'GET', body, limit = ANSWER_MS, outlivesPage = false, copyTo }: Asked = {},
): Promise<Answer> {
  const text = body === undefined ? undefined : JSON.stringify(body)
  const response = await fetch(path, {
    method,
    signal: AbortSignal.timeout(limit),
    keepalive: outlivesPage && (text?.length ?? 0) <= OUTLIVING_LETTERS,
    headers: { ...askerHeaders(), ...(text === undefined ? {} : { 'Content-Type': 'application/json' }) },
    ...(text === undefined ? {} : { body: text }),
  }).catch((error: unknown) => {
    throw error instanceof DOMException ? new NoAnswer('No answer in time.') : error
  })
  noteBuild(response.headers)
  if (response.ok) copyTo?.(response.clone())
  const value: unknown = await response.json().catch(() => null)
  if (response.ok) return schema.parse(value)
  const problem = Problem.safeParse(value)
  throw new ApiError(
    response.status,
    problem.success ? problem.data.error : `The server answered with ${response.status}.`,
  )
}

/** What to tell a person about something that went wrong. */
export function wordsFor(error: unknown): string {
  if (error instanceof ApiError) return error.message
  if (error instanceof TypeError) return 'The server cannot be reached just now. Nothing was lost; please try again.'
  return error instanceof Error ? error.message : 'Something went wrong.'
}

/** Tells something for a while; gives the way to take the words away before. */
export function tell(message: ReactNode, forMs = 5_000): () => void {
  const id = notifications.show({ message, color: 'spruce', autoClose: forMs })
  return () => void notifications.hide(id)
}

export function tellTrouble(error: unknown): void {
  notifications.show({ message: wordsFor(error), color: 'ember', autoClose: 8_000 })
}

/** Asks once more where the answer was lost on its way: what is asked for carries an id, and is done once. */
export const twice = <Value>(asked: () => Promise<Value>): Promise<Value> =>
  asked().catch((error: unknown) => {
    if (error instanceof TypeError) return asked()
    throw error
  })
