import {
  createAccount,
  createObject,
  type DAVResponse,
  davRequest,
  deleteObject,
  getBasicAuthHeaders,
  propfind,
  updateObject,
} from 'tsdav'
import { storable } from '../../core/records/text'
import { Failure } from '../http/failure'
import { OwnNetwork } from '../outgoing/outside'
import { NotFetched, outsideFetch } from '../outgoing/outside-fetch'

/** Where a calendar is, and who asks there. */
export interface CalendarDoor {
  address: string
  user: string
  password: string
}

/** A calendar elsewhere could not be asked, with a sentence that a person understands. */
export class CalendarTrouble extends Failure {
  constructor(message: string) {
    super(409, message)
  }
}

/** Somebody else changed an entry since it was last seen. */
export class ChangedMeanwhile extends Error {}

/** Of one calendar so many entries are kept in step, of each so many letters are read, so many at a time. */
const [MOST_ENTRIES, MOST_LETTERS, AT_ONCE] = [5_000, 50_000, 50]
/** Longest address of an entry, word for its state, and name of a calendar. */
const [MOST_HREF, MOST_ETAG, MOST_NAME] = [2_000, 500, 200]
/** Of so many calendars on one server one can be chosen. */
const MOST_CALENDARS = 100

const headersOf = ({ user, password }: CalendarDoor): Record<string, string> =>
  user === '' && password === '' ? {} : (getBasicAuthHeaders({ username: user, password }) as Record<string, string>)

/** Asks there, and tells what goes wrong in words. */
async function asking<Answer>(ask: () => Promise<Answer>): Promise<Answer> {
  try {
    return await ask()
  } catch (error) {
    if (error instanceof CalendarTrouble || error instanceof ChangedMeanwhile) throw error
    if (error instanceof OwnNetwork || error instanceof NotFetched) throw new CalendarTrouble(error.message)
    if (error instanceof Error && error.message.includes('401')) throw new CalendarTrouble(NOT_LET_IN)
    throw new CalendarTrouble('No calendar answers there.')
  }
}

const NOT_LET_IN = 'It asks for a name and a password, or these are not the right ones.'

function check(status: number): void {
  if (status === 401 || status === 403) throw new CalendarTrouble(NOT_LET_IN)
  if (status === 404 || status === 410) throw new CalendarTrouble('There is no calendar at this address.')
  if (status >= 500) throw new CalendarTrouble(`The server there is in trouble (${status}).`)
  if (status >= 400) throw new CalendarTrouble(`The server there refuses this (${status}).`)
}

const PROPS = { 'd:displayname': {}, 'd:resourcetype': {}, 'd:getetag': {}, 'c:supported-calendar-component-set': {} }

/** Names are text, and may be written as CDATA or look like a number. */
function wordsIn(value: unknown): string {
  if (typeof value === 'object' && value !== null && '_cdata' in value) return String(value._cdata)
  return typeof value === 'string' || typeof value === 'number' ? String(value) : ''
}

const isCalendar = ({ props }: DAVResponse): boolean => 'calendar' in Object(props?.resourcetype)

/** What a calendar takes; without a word about it, events and to-dos. */
function takesTasks({ props }: DAVResponse): boolean {
  const told = [props?.supportedCalendarComponentSet?.comp ?? []].flat() as { _attributes?: { name?: string } }[]
  return told.length === 0 || told.some((each) => each._attributes?.name === 'VTODO')
}

export interface FoundCalendar {
  address: string
  name: string
}

const nameOf = (response: DAVResponse, address: string): string => {
  const name = wordsIn(response.props?.displayname) || decoded(address.split('/').at(-2) ?? '') || 'Calendar'
  return storable(name.slice(0, MOST_NAME))
}

function decoded(part: string): string {
  try {
    return decodeURIComponent(part)
  } catch {
    return part
  }
}

/** The calendars at an address: itself, those below it, or those of the person whose server it is. Throws a CalendarTrouble. */
export function findCalendars(door: CalendarDoor): Promise<FoundCalendar[]> {
  return asking(async () => {
    const headers = headersOf(door)
    const below = async (url: string): Promise<FoundCalendar[]> => {
      const responses = await propfind({ url, props: PROPS, depth: '1', headers, fetch: outsideFetch })
      if (responses.length === 1 && !responses[0]!.ok) check(responses[0]!.status)
      return responses.filter(isCalendar).map((response) => {
        const { href } = new URL(response.href ?? '', url)
        const address = href.endsWith('/') ? href : `${href}/`
        return { address, name: nameOf(response, address) }
      })
    }
    const own = await below(door.address).catch((error: unknown) => {
      if (error instanceof CalendarTrouble && error.message !== NOT_LET_IN) return []
      throw error
    })
    if (own.length > 0) return own.slice(0, MOST_CALENDARS)
    const account = { accountType: 'caldav' as const, serverUrl: door.address }
    const { homeUrl } = await createAccount({ account, headers, fetch: outsideFetch })
    const found = homeUrl ? await below(homeUrl) : []
    if (found.length === 0) throw new CalendarTrouble('No calendar answers there.')
    return found.slice(0, MOST_CALENDARS)
  })
}

/** What is in a calendar: its name, whether it takes to-dos, and its entries with a word that changes when they do. */
export interface Listing {
  name: string
  takesTasks: boolean
  etags: Map<string, string>
}

/** Lists a calendar. Addresses of entries are whole. Throws a CalendarTrouble. */
export function listEntries(door: CalendarDoor): Promise<Listing> {
  return asking(async () => {
    const responses = await propfind({
      url: door.address,
      props: PROPS,
      depth: '1',
      headers: headersOf(door),
      fetch: outsideFetch,
    })
    const itself = responses.find(isCalendar)
    if (!itself) {
      check(responses[0]?.status ?? 0)
      throw new CalendarTrouble('There is no calendar at this address.')
    }
    const etags = new Map<string, string>()
    for (const response of responses) {
      if (response === itself || !response.href) continue
      const { href } = new URL(response.href, door.address)
      const etag = wordsIn(response.props?.getetag)
      const isBelow = href.startsWith(door.address) && href !== door.address
      if (isBelow && href.length <= MOST_HREF && etag.length <= MOST_ETAG) etags.set(href, etag)
    }
    if (etags.size > MOST_ENTRIES)
      throw new CalendarTrouble(`This calendar has more than ${MOST_ENTRIES} entries, too many to be kept in step.`)
    return { name: nameOf(itself, door.address), takesTasks: takesTasks(itself), etags }
  })
}

const wholeOf = ({ address }: CalendarDoor, { href }: DAVResponse): string => new URL(href ?? '', address).href

export interface ReadEntry {
  href: string
  etag: string
  /** In iCalendar; empty where it is too long to be read. */
  body: string
}

/** Reads entries, a few at a time. What is gone meanwhile is left out. Throws a CalendarTrouble. */
export async function* readEntries(door: CalendarDoor, hrefs: readonly string[]): AsyncGenerator<ReadEntry[]> {
  for (let first = 0; first < hrefs.length; first += AT_ONCE) {
    const some = hrefs.slice(first, first + AT_ONCE)
    yield await asking(async () => {
      const responses = await davRequest({
        url: door.address,
        init: {
          method: 'REPORT',
          namespace: 'c',
          headers: { ...headersOf(door), depth: '1' },
          body: {
            'calendar-multiget': {
              _attributes: { 'xmlns:d': 'DAV:', 'xmlns:c': 'urn:ietf:params:xml:ns:caldav' },
              'd:prop': { 'd:getetag': {}, 'c:calendar-data': {} },
              'd:href': some.map((href) => new URL(href).pathname),
            },
          },
        },
        fetch: outsideFetch,
      })
      // Of entries that are gone meanwhile each says so; what is told of no entry is about all of them.
      if (responses.length === 1 && responses[0]!.props === undefined && !some.includes(wholeOf(door, responses[0]!)))
        check(responses[0]!.status)
      return responses.flatMap(({ href, props }) => {
        const body = wordsIn(props?.calendarData)
        if (!href || body === '') return []
        return {
          href: new URL(href, door.address).href,
          etag: wordsIn(props?.getetag),
          body: body.length > MOST_LETTERS ? '' : body,
        }
      })
    })
  }
}

/**
 * Writes an entry; `etag` is the word under which it was last seen, null where there is to be none yet. Returns the new word, empty
 * where none is told. Throws ChangedMeanwhile, or a CalendarTrouble.
 */
export function putEntry(door: CalendarDoor, href: string, body: string, etag: string | null): Promise<string> {
  return asking(async () => {
    const headers = { ...headersOf(door), 'Content-Type': 'text/calendar; charset=utf-8' }
    const response =
      etag === null
        ? await createObject({
            url: href,
            data: body,
            headers: { ...headers, 'If-None-Match': '*' },
            fetch: outsideFetch,
          })
        : await updateObject({ url: href, data: body, etag, headers, fetch: outsideFetch })
    if (response.status === 412) throw new ChangedMeanwhile()
    check(response.status)
    return response.headers.get('etag') ?? ''
  })
}

/** Removes an entry as it was last seen; one that is gone already is well. Throws ChangedMeanwhile, or a CalendarTrouble. */
export function removeEntry(door: CalendarDoor, href: string, etag: string): Promise<void> {
  return asking(async () => {
    const { status } = await deleteObject({ url: href, etag, headers: headersOf(door), fetch: outsideFetch })
    if (status === 412) throw new ChangedMeanwhile()
    if (status !== 404 && status !== 410) check(status)
  })
}
