import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { v7 as uuid } from 'uuid'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { PLAIN_MAP } from '../../src/core/commands/maps'
import { BARE_TOPIC } from '../../src/core/records/topic'
import { lookAtPage } from '../../src/server/outgoing/look-at-page'
import { lookupFor, OwnNetwork } from '../../src/server/outgoing/outside'
import { Caller } from './people'

let server: Server
let host = ''
beforeAll(async () => {
  server = createServer((asked, answer) => {
    const [path, status = '200'] = asked.url!.slice(1).split('/')
    if (path === 'loop') answer.writeHead(302, { location: asked.url! })
    else if (path === 'moved') answer.writeHead(301, { location: '/page' })
    else if (path === 'lent') answer.writeHead(302, { location: '/page' })
    else if (path === 'inward') answer.writeHead(302, { location: 'http://169.254.169.254/latest' })
    else if (path === 'script') answer.writeHead(302, { location: 'javascript:alert(1)' })
    else if (path === 'headless' && asked.method === 'HEAD') answer.writeHead(405)
    else answer.writeHead(Number(status))
    // A page that never ends is not read.
    if (path === 'endless' && asked.method === 'GET') answer.write('…')
    else answer.end()
  })
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  host = `127.0.0.1:${(server.address() as AddressInfo).port}`
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})

test.each([
  ['page', null],
  ['headless', null],
  ['endless', null],
  ['lent', null],
  ['page/403', null],
  ['page/404', 'The page is not there any more (404).'],
  ['page/503', 'The server there is in trouble (503).'],
  ['loop', 'It leads on and on.'],
  ['script', 'It leads on to what is no web page.'],
  ['inward', 'It lies in the server’s own network, and is not asked.'],
])('of a page that answers as %s it is said: %s', async (path, words) => {
  expect(await lookAtPage(`http://${host}/${path}`, new Set([host]))).toBe(words)
})

test('a page that moved for good says where to; where nobody listens, that is said', async () => {
  expect(await lookAtPage(`http://${host}/moved`, new Set([host]))).toBe(`It has moved to http://${host}/page`)
  expect(await lookAtPage('http://127.0.0.1:1/', new Set(['127.0.0.1:1']))).toBe('Nobody answers there.')
  expect(await lookAtPage('not an address')).toBe('Nobody answers there.')
})

test.each([
  '127.0.0.1',
  '10.1.2.3',
  '192.168.0.1',
  '172.20.0.1',
  '169.254.169.254',
  '100.64.0.1',
  '0.0.0.0',
  '224.0.0.1',
  '2130706433',
  '0x7f.1',
  '[::1]',
  '[::ffff:10.0.0.1]',
  '[fd00::1]',
  '[fe80::1]',
  '[64:ff9b::a00:1]',
  '[2002:a00:1::]',
])('nobody has %s asked on their behalf', (name) => {
  expect(() => lookupFor(new URL(`http://${name}/`))).toThrow(OwnNetwork)
})

test('a name that leads into the own network is not followed, wherever it stands', async () => {
  expect(await lookAtPage(`http://localhost:${host.split(':')[1]}/page`)).toBe(
    'It lies in the server’s own network, and is not asked.',
  )
})

test('the web links of a collection are looked at by a job, and the ledger says what was found', async () => {
  const person = await Caller.begin()
  const [map, root, link] = [uuid(), uuid(), uuid()]
  const made = await person.change([
    { kind: 'map', id: map, before: null, after: { ...PLAIN_MAP, id: map, title: 'Wells', trashed: false } },
    {
      kind: 'topic',
      id: root,
      before: null,
      after: { ...BARE_TOPIC, id: root, place: { kind: 'root', map }, text: 'Wells' },
    },
    {
      kind: 'weblink',
      id: link,
      before: null,
      after: { id: link, topic: root, url: `http://${host}/page`, title: '', rank: 'a0', trashed: false },
    },
  ] as never)
  expect(made.text).toContain('"ok":true')
  const links = `/api/collections/${person.collection}/links`
  const id = uuid()
  expect((await person.send('POST', links, { id })).status).toBe(202)
  expect((await person.send('POST', links, { id })).status).toBe(202)
  await expect
    .poll(async () => (await person.call('GET', links)).json, { timeout: 10_000 })
    .toMatchObject({ checks: [{ url: `http://${host}/page`, trouble: expect.stringContaining('own network') }] })
})
