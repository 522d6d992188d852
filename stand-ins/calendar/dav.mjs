import { SaxesParser } from 'saxes'
import { Refused } from './store.mjs'

/**
 * As much of CalDAV (RFC 4791, over RFC 4918) as it takes to find calendars, to list, read, write and remove entries. Addresses:
 * `/me/` the only person, `/calendars/` where their calendars are, `/calendars/NAME/` a calendar, `/calendars/NAME/ENTRY.ics`.
 */
const DAV = 'DAV:'
const CALDAV = 'urn:ietf:params:xml:ns:caldav'
const SERVER = 'http://calendarserver.org/ns/'
const PREFIXES = { [DAV]: 'd', [CALDAV]: 'c', [SERVER]: 's' }

const escaped = (text) =>
  text.replace(/[&<>"]/g, (sign) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[sign])

/** What a body asks for: the kind of report, the properties by namespace and name, and the addresses it names. */
function asked(body) {
  const found = { root: '', props: [], hrefs: [] }
  if (body.trim() === '') return found
  const parser = new SaxesParser({ xmlns: true })
  const above = []
  let words = ''
  parser.on('error', () => {
    throw new Refused(400, 'This is no XML that can be read.')
  })
  parser.on('opentag', ({ uri, local }) => {
    if (above.length === 0) found.root = local
    if (above.at(-1) === 'prop') found.props.push([uri, local])
    above.push(local)
    words = ''
  })
  parser.on('text', (text) => {
    words += text
  })
  parser.on('closetag', () => {
    if (above.pop() === 'href') found.hrefs.push(words.trim())
  })
  parser.write(body).close()
  return found
}

const name = (uri, local) => (PREFIXES[uri] ? `${PREFIXES[uri]}:${local}` : `x:${local} xmlns:x="${escaped(uri)}"`)

/** An answer about one address: of the properties asked for, those that it has, and those that it has not. */
function response(href, props, wanted) {
  const has = wanted.filter(([uri, local]) => props[`${uri} ${local}`] !== undefined)
  const lacks = wanted.filter(([uri, local]) => props[`${uri} ${local}`] === undefined)
  const group = (tags, status) =>
    tags === '' ? '' : `<d:propstat><d:prop>${tags}</d:prop><d:status>HTTP/1.1 ${status}</d:status></d:propstat>`
  const there = has.map(([uri, local]) => {
    const tag = name(uri, local)
    return `<${tag}>${props[`${uri} ${local}`]}</${tag.split(' ', 1)[0]}>`
  })
  const missing = lacks.map(([uri, local]) => `<${name(uri, local)}/>`)
  const parts = group(there.join(''), '200 OK') + group(missing.join(''), '404 Not Found')
  return `<d:response><d:href>${escaped(href)}</d:href>${parts || '<d:status>HTTP/1.1 200 OK</d:status>'}</d:response>`
}

const multistatus = (responses) => ({
  status: 207,
  headers: { 'Content-Type': 'application/xml; charset=utf-8' },
  body: `<?xml version="1.0" encoding="utf-8"?>\n<d:multistatus xmlns:d="${DAV}" xmlns:c="${CALDAV}" xmlns:s="${SERVER}">${responses.join('')}</d:multistatus>`,
})

const entryProps = ({ text, etag }) => ({
  [`${DAV} getetag`]: escaped(etag),
  [`${DAV} resourcetype`]: '',
  [`${DAV} getcontenttype`]: 'text/calendar; charset=utf-8',
  [`${CALDAV} calendar-data`]: escaped(text),
})

const COMPONENTS = '<c:comp name="VEVENT"/><c:comp name="VTODO"/>'
const REPORTS = ['calendar-multiget', 'calendar-query']
  .map((report) => `<d:supported-report><d:report><c:${report}/></d:report></d:supported-report>`)
  .join('')

const calendarProps = (store, calendar) => ({
  [`${DAV} resourcetype`]: '<d:collection/><c:calendar/>',
  [`${DAV} displayname`]: escaped(calendar.replaceAll('-', ' ')),
  [`${DAV} current-user-principal`]: '<d:href>/me/</d:href>',
  [`${DAV} supported-report-set`]: REPORTS,
  [`${CALDAV} supported-calendar-component-set`]: COMPONENTS,
  [`${SERVER} getctag`]: store.tagOf(calendar),
})

const ROOT_PROPS = {
  [`${DAV} resourcetype`]: '<d:collection/>',
  [`${DAV} current-user-principal`]: '<d:href>/me/</d:href>',
  [`${CALDAV} calendar-home-set`]: '<d:href>/calendars/</d:href>',
}

function propfind(store, path, depth, body) {
  const { props: wanted } = asked(body)
  const [kind, calendar, entry] = path.split('/').slice(1)
  const below = depth !== '0'
  if (kind !== 'calendars') return multistatus([response(path, ROOT_PROPS, wanted)])
  if (!calendar) {
    const calendars = below ? [...store.calendars.keys()] : []
    return multistatus([
      response(path, ROOT_PROPS, wanted),
      ...calendars.map((each) => response(`/calendars/${each}/`, calendarProps(store, each), wanted)),
    ])
  }
  const entries = calendarNamed(store, calendar)
  if (entry) {
    const found = entries.get(entry)
    if (!found) throw new Refused(404, 'There is no such entry.')
    return multistatus([response(path, entryProps(found), wanted)])
  }
  return multistatus([
    response(path, calendarProps(store, calendar), wanted),
    ...(below ? [...entries] : []).map(([each, found]) => response(path + each, entryProps(found), wanted)),
  ])
}

function report(store, path, body) {
  const { root, props: wanted, hrefs } = asked(body)
  const entries = calendarNamed(store, path.split('/')[2])
  if (root === 'calendar-query')
    return multistatus([...entries].map(([each, found]) => response(path + each, entryProps(found), wanted)))
  if (root !== 'calendar-multiget') throw new Refused(403, 'This report is not known here.')
  return multistatus(
    hrefs.map((href) => {
      const each = decodeURIComponent(new URL(href, 'http://x').pathname)
      const found = each.startsWith(path) && entries.get(each.slice(path.length))
      return found
        ? response(each, entryProps(found), wanted)
        : `<d:response><d:href>${escaped(href)}</d:href><d:status>HTTP/1.1 404 Not Found</d:status></d:response>`
    }),
  )
}

function calendarNamed(store, calendar) {
  const entries = store.calendars.get(calendar)
  if (!entries) throw new Refused(404, 'There is no such calendar.')
  return entries
}

/** Whoever writes says which state they have seen: an entry that was changed since is not written over. */
function checkSeen(found, { 'if-match': seen, 'if-none-match': unseen }) {
  if ((seen && seen !== '*' && seen !== found?.etag) || (seen && !found) || (unseen === '*' && found))
    throw new Refused(412, 'This entry was changed meanwhile.')
}

const allow = 'OPTIONS, GET, HEAD, PUT, DELETE, PROPFIND, REPORT, MKCALENDAR'

/** Answers a request `{ method, path, headers, body }`; throws a Refused. */
export function answerDav(store, { method, path, headers, body }) {
  if (method === 'OPTIONS') return { status: 204, headers: { Allow: allow, DAV: '1, calendar-access' } }
  if (path === '/.well-known/caldav') return { status: 301, headers: { Location: '/' } }
  if (method === 'PROPFIND') return propfind(store, path, headers.depth ?? '1', body)
  if (method === 'REPORT') return report(store, path, body)
  const [kind, calendar, entry] = path.split('/').slice(1)
  if (method === 'MKCALENDAR' && kind === 'calendars' && calendar && !entry) {
    store.make(calendar)
    return { status: 201, headers: {} }
  }
  if (kind !== 'calendars' || !entry) throw new Refused(405, 'This cannot be done there.')
  const entries = calendarNamed(store, calendar)
  const found = entries.get(entry)
  if (method === 'PUT') {
    checkSeen(found, headers)
    const isNew = store.put(calendar, entry, body)
    return { status: isNew ? 201 : 204, headers: { ETag: entries.get(entry).etag } }
  }
  if (!found) throw new Refused(404, 'There is no such entry.')
  if (method === 'DELETE') {
    checkSeen(found, headers)
    store.remove(calendar, entry)
    return { status: 204, headers: {} }
  }
  if (method !== 'GET' && method !== 'HEAD') throw new Refused(405, 'This cannot be done there.')
  return {
    status: 200,
    headers: { 'Content-Type': 'text/calendar; charset=utf-8', ETag: found.etag },
    body: found.text,
  }
}
