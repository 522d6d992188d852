import pino from 'pino'
import type { z } from 'zod'
import { Refusal } from '../../core/changes/problem'
import { CollectionId } from '../../core/records/ids'
import type { Role } from '../../core/records/snapshot'
import { allows, type Reach, strongestOf } from '../../core/rights/grant'
import { isAway } from '../database'
import { TooLarge } from '../files/contents'
import type { Person } from '../people/person'
import { reachIn } from '../people/rights'
import type { Asked } from './asked'
import { Failure } from './failure'
import { chargeFor } from './rate'
import { json, type Reply } from './reply'

export const log = pino({ level: process.env.LOG_LEVEL ?? 'info' })

/** The header in which a window says, by their id, for whom it asks. Scripts may leave it out. */
const ASKER = 'x-folvet-person'

/**
 * Who may call an endpoint: anyone, anyone with a session, who has a role in all of the collection in its path, or who has it
 * on some map there. What the last ones are answered is for `handle` to keep within their reach.
 */
type SomewhereRole = `${Role} of a map`
export type Access = 'anyone' | 'person' | Role | SomewhereRole

interface Call<Body, Who> {
  asked: Asked
  url: URL
  params: Record<string, string>
  body: Body
  who: Who
}

export interface Member {
  person: Person
  /** The strongest role that they have anywhere in the collection. */
  role: Role
  reach: Reach
  collection: string
}

type WhoFor<A extends Access> = A extends 'anyone' ? Person | null : A extends 'person' ? Person : Member

/**
 * What an endpoint asks for and does: who may call it, the form of its body, and `handle`, which may return a Reply or
 * anything that can be written as JSON; it may throw a Failure or a Refusal.
 */
interface Spec<A extends Access, Body> {
  access: A
  body?: z.ZodType<Body>
  /** How much it counts against what one person may ask for: see `rate.ts`. A small write unless told. */
  cost?: number
  handle(call: Call<Body, WhoFor<A>>): Promise<unknown>
}

/** An endpoint that can be answered without the framework. */
export const specified = <A extends Access, Body = undefined>(spec: Spec<A, Body>): Spec<A, Body> => spec

/** A request with what is known of it. */
interface Incoming {
  asked: Asked
  params: Record<string, string | undefined>
  person: Person | null
}

/** Asks for session and rights, parses path and body, handles, and answers. */
export async function answer<A extends Access, Body>(
  spec: Spec<A, Body>,
  { asked, params, person }: Incoming,
): Promise<Reply> {
  try {
    const ids: Record<string, string> = {}
    for (const [name, value] of Object.entries(params)) if (value !== undefined) ids[name] = value
    const who = (await admit(spec.access, { asked, params: ids, person })) as WhoFor<A>
    const cost = spec.cost ?? (asked.isReading ? 0 : 1)
    if (cost > 0) await chargeFor(person?.id ?? asked.from, cost)
    const body = spec.body ? parse(spec.body, await readJson(asked)) : (undefined as Body)
    const value = await spec.handle({ asked, url: asked.url, params: ids, body, who })
    return isReply(value) ? value : json(200, value ?? { ok: true })
  } catch (error) {
    return failed(error, asked)
  }
}

const isReply = (value: unknown): value is Reply =>
  typeof value === 'object' && value !== null && 'status' in value && 'headers' in value && 'body' in value

/**
 * An endpoint as a route of the framework. What it answers is handed past the framework to who sends it, so that nothing is
 * wrapped on the way and a slow reader holds back the source.
 */
export function endpoint<A extends Access, Body = undefined>(spec: Spec<A, Body>) {
  return async (context: { params: Incoming['params']; locals: App.Locals }): Promise<Response> => {
    const { params, locals } = context
    locals.reply = await answer(spec, { asked: locals.asked, params, person: locals.person })
    return new Response('')
  }
}

async function admit(access: Access, { asked, params, person }: Incoming): Promise<Person | null | Member> {
  if (access === 'anyone') return person
  if (!person) throw new Failure(401, 'Please sign in, or start without an account.')
  if (access === 'person') return person
  const { collection } = params
  // A window that was opened by somebody else, who has signed out since: what they did is not done as by who is here now.
  const asker = asked.header(ASKER)
  if (asker !== null && asker !== person.id) throw new Failure(401, 'Somebody else is signed in here now.')
  const reach = collection && CollectionId.safeParse(collection).success ? await reachIn(person.id, collection) : null
  const role = reach && strongestOf(reach)
  // Somebody to whom nothing is open learns nothing: not even whether the collection exists.
  if (!role || !collection) throw new Failure(404, 'There is no such collection, or it is not open to you.')
  const [needed, somewhere] = neededFor(access)
  if (!allows(role, needed))
    throw new Failure(403, `Your role in this collection is ${role}, which does not allow this.`)
  if (!somewhere && !allows(reach.everywhere, needed))
    throw new Failure(403, 'Only some maps of this collection are open to you, which does not allow this.')
  return { person, role, reach, collection }
}

/** The role that is needed, and whether it is enough to have it on some map. */
function neededFor(access: Role | SomewhereRole): [Role, boolean] {
  const [role, somewhere] = access.split(' of ', 2)
  return [role as Role, somewhere !== undefined]
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

async function readJson(asked: Asked): Promise<unknown> {
  const bytes = await readBody(asked)
  try {
    return JSON.parse(new TextDecoder('utf-8', { fatal: true }).decode(bytes))
  } catch {
    throw new Failure(400, 'This request is not JSON in UTF-8.')
  }
}

const MAX_BODY = 20 * 1024 * 1024

/** The whole body. Whoever is still sending hears no answer: what is not far too large is read to its end, and dropped. */
async function readBody(asked: Asked): Promise<Buffer> {
  const body = await asked.whole(MAX_BODY)
  if (!body) throw new Failure(413, 'This is too much at once: at most 20 MB.')
  return body
}

function failed(error: unknown, asked: Asked): Reply {
  // The rest of a body that is too large is not read: the connection cannot be used again.
  if (error instanceof TooLarge) return json(413, { error: error.message }, { Connection: 'close' })
  if (error instanceof Failure)
    return json(
      error.status,
      { error: error.message },
      error.status === 413 || error.status === 408 ? { Connection: 'close' } : {},
    )
  if (error instanceof Refusal) return json(409, { error: error.problem.message, code: error.problem.code })
  if (isAway(error)) return json(503, { error: DATABASE_AWAY }, { 'Retry-After': '1' })
  log.error({ error, method: asked.method, path: asked.url.pathname }, 'request failed')
  return json(500, { error: 'Something went wrong on our side. Nothing was changed; please try again.' })
}

export const DATABASE_AWAY = 'The database is away just now. Nothing was changed; please try again.'

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
