import { createServer, type IncomingMessage, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, expect, test, vi } from 'vitest'

type Caldav = typeof import('../../src/server/calendars/caldav')
type Fetching = typeof import('../../src/server/outgoing/outside-fetch')

/** A server that answers as nobody should. */
let answer: (asked: IncomingMessage, response: ServerResponse) => void = () => {}
const server = createServer((asked, response) => answer(asked, response))
let [address, other] = ['', '']
let caldav: Caldav
let fetching: Fetching
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  const { port } = server.address() as AddressInfo
  address = `http://127.0.0.1:${port}/calendar/`
  other = `http://localhost:${port}/`
  vi.stubEnv('FOLVET_OWN_NETWORK', `127.0.0.1:${port},localhost:${port}`)
  vi.resetModules()
  caldav = await import('../../src/server/calendars/caldav')
  fetching = await import('../../src/server/outgoing/outside-fetch')
})
afterAll(() => {
  vi.unstubAllEnvs()
  server.closeAllConnections()
  server.close()
})

const door = () => ({ address, user: 'ada', password: 'secret' })
const trouble = (work: Promise<unknown>) =>
  work.then(
    () => 'none',
    (error: Error) => error.message,
  )
const xml = (response: ServerResponse, ...responses: string[]) => {
  response.writeHead(207, { 'Content-Type': 'application/xml' })
  response.end(
    `<d:multistatus xmlns:d="DAV:" xmlns:c="urn:ietf:params:xml:ns:caldav">${responses.join('')}</d:multistatus>`,
  )
}
const told = (href: string, props: string) =>
  `<d:response><d:href>${href}</d:href><d:propstat><d:prop>${props}</d:prop><d:status>HTTP/1.1 200 OK</d:status></d:propstat></d:response>`
const itself = (name: string) =>
  told('/calendar/', `<d:displayname>${name}</d:displayname><d:resourcetype><c:calendar/></d:resourcetype>`)

test.each<[string, typeof answer, RegExp]>([
  ['wants to know who asks', (_, response) => response.writeHead(401).end(), /asks for a name and a password/],
  ['is in trouble', (_, response) => response.writeHead(503).end(), /in trouble \(503\)/],
  ['is a page', (_, response) => response.end('<h1>Hello'), /no calendar at this address/],
  [
    'tells nonsense',
    (_, response) => void response.writeHead(207, { 'Content-Type': 'text/xml' }).end('<a><b'),
    /no calendar/,
  ],
  ['hangs up', (asked) => asked.socket.destroy(), /Nobody answers there/],
  ['leads on and on', (asked, response) => void response.writeHead(302, { Location: asked.url! }).end(), /on and on/],
  [
    'leads inward',
    (_, response) => void response.writeHead(302, { Location: 'http://169.254.169.254/' }).end(),
    /own network/,
  ],
  [
    'leads elsewhere',
    (_, response) => void response.writeHead(302, { Location: 'file:///etc/passwd' }).end(),
    /no web address/,
  ],
])('a server that %s is told in words', async (_, answers, words) => {
  answer = answers
  expect(await trouble(caldav.listEntries(door()))).toMatch(words)
})

test('an answer without end is not read to the end', async () => {
  answer = (_, response) => {
    response.writeHead(207, { 'Content-Type': 'text/xml' })
    const more = () => {
      while (!response.destroyed && response.write('<a/>'.repeat(50_000)));
      if (!response.destroyed) response.once('drain', more)
    }
    more()
  }
  expect(await trouble(caldav.listEntries(door()))).toMatch(/larger than what can be read/)
})

test('a name and a password do not go to another host', async () => {
  const seen: (string | undefined)[] = []
  answer = (asked, response) => {
    seen.push(asked.headers.authorization)
    if (asked.url === '/calendar/') response.writeHead(307, { Location: other }).end()
    else response.end()
  }
  await fetching.outsideFetch(address, { headers: { authorization: 'Basic x' } })
  expect(seen).toEqual(['Basic x', undefined])
})

test('names like numbers, entities, and entries that lie elsewhere', async () => {
  answer = (_, response) =>
    xml(
      response,
      itself('2027'),
      told('/calendar/a.ics', '<d:getetag>"1"</d:getetag>'),
      told('http://example.org/evil.ics', '<d:getetag>"1"</d:getetag>'),
      told('/elsewhere/b.ics', '<d:getetag>"1"</d:getetag>'),
      told('/calendar/../../c.ics', '<d:getetag>"1"</d:getetag>'),
    )
  const { name, etags } = await caldav.listEntries(door())
  expect([name, [...etags.keys()]]).toEqual(['2027', [`${address}a.ics`]])
  const bomb = '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]>'
  answer = (_, response) => {
    response.writeHead(207, { 'Content-Type': 'text/xml' })
    response.end(`${bomb}<d:multistatus xmlns:d="DAV:">${itself('&b;'.repeat(1_000))}</d:multistatus>`)
  }
  expect(((await caldav.listEntries(door()).catch(() => null))?.name ?? '').length).toBeLessThan(10_000)
})

test('more entries than can be kept in step are refused; one that is gone meanwhile is left out', async () => {
  const many = Array.from({ length: 5_001 }, (_, i) => told(`/calendar/${i}.ics`, '<d:getetag>"1"</d:getetag>'))
  answer = (_, response) => xml(response, itself('x'), ...many)
  expect(await trouble(caldav.listEntries(door()))).toMatch(/more than 5000 entries/)
  const data = '<d:getetag>"2"</d:getetag><c:calendar-data>BEGIN:VCALENDAR</c:calendar-data>'
  const lost = '<d:response><d:href>/calendar/b.ics</d:href><d:status>HTTP/1.1 404 Not Found</d:status></d:response>'
  answer = (_, response) => xml(response, lost, told('/calendar/a.ics', data))
  const read = []
  for await (const some of caldav.readEntries(door(), [`${address}a.ics`, `${address}b.ics`])) read.push(...some)
  expect(read).toEqual([{ href: `${address}a.ics`, etag: '"2"', body: 'BEGIN:VCALENDAR' }])
})
