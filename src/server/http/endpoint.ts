import pino from 'pino'
import { z } from 'zod'
import { Refusal } from '../../core/changes/problem'
import type { Role } from '../../core/records/snapshot'
import { TooLarge } from '../files/contents'
import type { Person } from '../people/people'
import { allows, roleIn } from '../people/rights'
import { Failure } from './failure'
import { allowWrite } from './rate'
import { bytesOf } from './streams'

export const log = pino({ level: process.env.LOG_LEVEL ?? 'info' })

/** Who may call an endpoint: anyone, anyone with a session, or a member of the collection in its path. */
export type Access = 'anyone' | 'person' | Role

interface Call<Body, Who> {
  request: Request
  url: URL
  params: Record<string, string>
  body: Body
  who: Who
}

export interface Member {
  person: Person
  role: Role
  collection: string
}

/** What Astro hands to an endpoint, as far as we use it. */
interface Context {
  request: Request
  url: URL
  params: Record<string, string | undefined>
  locals: { person: Person | null }
}

type WhoFor<A extends Access> = A extends 'anyone' ? Person | null : A extends 'person' ? Person : Member

const MAX_BODY = 20 * 1024 * 1024
const MOST_DROPPED = 5 * MAX_BODY

/**
 * An endpoint: asks for session and membership, parses path and body, calls `handle`, and answers in JSON.
 * `handle` may return a Response or anything that can be written as JSON; it may throw a Failure or a Refusal.
 */
export function endpoint<A extends Access, Body = undefined>(spec: {
  access: A
  body?: z.ZodType<Body>
  handle(call: Call<Body, WhoFor<A>>): Promise<unknown>
}): (context: Context) => Promise<Response> {
  return async ({ request, url, params, locals }) => {
    try {
      const ids: Record<string, string> = {}
      for (const [name, value] of Object.entries(params)) if (value !== undefined) ids[name] = value
      const who = (await admit(spec.access, locals.person, ids.collection)) as WhoFor<A>
      const isWrite = request.method !== 'GET' && request.method !== 'HEAD'
      if (isWrite && !(await allowWrite(locals.person?.id ?? 'nobody')))
        throw new Failure(429, 'Too much at once. Wait a moment and try again.')
      const body = spec.body ? parse(spec.body, await readJson(request)) : (undefined as Body)
      const answer = await spec.handle({ request, url, params: ids, body, who })
      return answer instanceof Response ? answer : json(200, answer ?? { ok: true })
    } catch (error) {
      return failed(error, request)
    }
  }
}

async function admit(
  access: Access,
  person: Person | null,
  collection: string | undefined,
): Promise<Person | null | Member> {
  if (access === 'anyone') return person
  if (!person) throw new Failure(401, 'Please sign in, or start without an account.')
  if (access === 'person') return person
  const known = collection && z.uuid().safeParse(collection).success ? await roleIn(person.id, collection) : null
  // Somebody who is no member learns nothing: not even whether the collection exists.
  if (!known || !collection) throw new Failure(404, 'There is no such collection, or you are not a member of it.')
  if (!allows(known, access))
    throw new Failure(403, `Your role in this collection is ${known}, which does not allow this.`)
  return { person, role: known, collection }
}

function parse<Body>(schema: z.ZodType<Body>, value: unknown): Body {
  const parsed = schema.safeParse(value)
  if (parsed.success) return parsed.data
  const issue = parsed.error.issues[0]
  throw new Failure(
    400,
    `This request cannot be understood: ${issue?.path.join('.') || 'body'}: ${issue?.message ?? 'invalid'}`,
  )
}

async function readJson(request: Request): Promise<unknown> {
  const bytes = await readBody(request)
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw new Failure(400, 'This request is not JSON in UTF-8.')
  }
}

async function drop(request: Request): Promise<number> {
  let dropped = 0
  for await (const chunk of bytesOf(request)) dropped += chunk.length
  return dropped
}

/** The whole body. One that tells its length is taken at once; any other is counted as it comes. */
async function readBody(request: Request): Promise<ArrayBuffer | Buffer> {
  const tooMuch = () => new Failure(413, 'This is too much at once: at most 20 MB.')
  const told = request.headers.get('content-length')
  if (told !== null) {
    if (Number(told) <= MAX_BODY) return request.arrayBuffer()
    // Whoever is still sending hears no answer: what is not far too large is read to its end, and dropped.
    if (Number(told) <= MOST_DROPPED) await drop(request)
    throw tooMuch()
  }
  const chunks: Uint8Array[] = []
  let length = 0
  for await (const chunk of bytesOf(request)) {
    length += chunk.length
    if (length > MAX_BODY) throw tooMuch()
    chunks.push(chunk)
  }
  return Buffer.concat(chunks)
}

export const json = (status: number, value: unknown, headers: Record<string, string> = {}): Response =>
  new Response(JSON.stringify(value), {
    status,
    headers: { 'Content-Type': 'application/json', 'Cache-Control': 'no-store', ...headers },
  })

function failed(error: unknown, request: Request): Response {
  // The rest of a body that is too large is not read: the connection cannot be used again.
  if (error instanceof TooLarge) return json(413, { error: error.message }, { Connection: 'close' })
  if (error instanceof Failure)
    return json(error.status, { error: error.message }, error.status === 413 ? { Connection: 'close' } : {})
  if (error instanceof Refusal) return json(409, { error: error.problem.message, code: error.problem.code })
  log.error({ error, method: request.method, path: new URL(request.url).pathname }, 'request failed')
  return json(500, { error: 'Something went wrong on our side. Nothing was changed; please try again.' })
}

/** An id from the path; anything else is answered as not found. */
export function pathId<Id>(
  schema: { safeParse(value: unknown): { success: true; data: Id } | { success: false } },
  value: string | undefined,
  what: string,
): Id {
  const parsed = schema.safeParse(value)
  if (!parsed.success) throw new Failure(404, `There is no such ${what}.`)
  return parsed.data
}
