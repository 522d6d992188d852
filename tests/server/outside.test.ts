import { request } from 'node:http'
import { connect } from 'node:net'
import pg from 'pg'
import { afterAll, beforeAll, describe, expect, inject, test } from 'vitest'
import { Caller, onlyResult } from './people'

const database = new pg.Client({ connectionString: inject('databaseUrl') })
beforeAll(() => database.connect())
afterAll(() => database.end())

const server = () => new URL(inject('address'))

/** A request as no browser would send it; resolves with its status. */
const send = (method: string, path: string, headers: Record<string, string> = {}): Promise<number> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = server()
    const call = request({ hostname, port, method, path, headers }, (response) => {
      response.resume()
      resolve(response.statusCode!)
    })
    call.on('error', reject)
    call.end()
  })

describe('what comes under another name or in another form', () => {
  test('a name of somebody else that leads here reaches nothing, the demo and files of the build included', async () => {
    for (const host of ['evil.example', `evil.example:${server().port}`, 'localhost.evil.example'])
      for (const path of ['/', '/api/me', '/folvet.svg', '/healthz'])
        expect([host, path, await send('GET', path, { host })]).toEqual([host, path, 421])
    const demo = { host: 'evil.example', origin: 'http://evil.example', 'content-length': '0' }
    expect(await send('POST', '/api/demo-session', demo)).toBe(421)
    for (const host of ['localhost', `127.0.0.1:${server().port}`, '[::1]:99'])
      expect([host, await send('GET', '/healthz', { host })]).toEqual([host, 200])
  })

  test('methods, paths and routes that nobody offers are answered in words, and quickly', async () => {
    const { host } = server()
    expect(await send('TRACE', '/', { host })).toBe(405)
    expect(await send('OPTIONS', '/', { host })).toBe(405)
    for (const path of ['/site/%00/', '/%ff', '/c/%E0%A4%A'])
      expect([path, await send('GET', path, { host })]).toEqual([path, 400])
    const begun = Date.now()
    for (const path of ['/_image?href=/folvet.svg&w=4000&h=4000&f=avif', '/_server-islands/x', '/_actions/x'])
      expect([path, await send('GET', path, { host })]).toEqual([path, 404])
    expect(Date.now() - begun).toBeLessThan(1_000)
  })
})

describe('what would keep everybody waiting', () => {
  test('twelve uploads of which the rest never comes hold up nobody', async () => {
    const owner = await Caller.begin()
    const map = await owner.grow('# Garden\n\n- Spring')
    const [topic] = (await owner.map(map)).topics
    const { hostname, port, host } = server()
    const sockets = Array.from({ length: 12 }, () => {
      const socket = connect(Number(port), hostname)
      socket.on('error', () => {})
      socket.write(
        `POST /api/collections/${owner.collection}/files?topic=${topic!.id}&name=a.bin HTTP/1.1\r\nHost: ${host}\r\nCookie: ${owner.cookie}\r\nContent-Length: 5000000\r\n\r\n${'x'.repeat(1_500_000)}`,
      )
      return socket
    })
    await new Promise((resolve) => setTimeout(resolve, 500))
    const begun = Date.now()
    expect((await owner.call('GET', '/healthz')).status).toBe(200)
    expect((await owner.grow('# Pond\n\n- Reed')).length).toBe(36)
    expect(Date.now() - begun).toBeLessThan(3_000)
    for (const socket of sockets) socket.destroy()
    await new Promise((resolve) => setTimeout(resolve, 800))
    const { rows } = await database.query(`SELECT 1 FROM content WHERE sha256 LIKE 'interim-%'`)
    expect(rows.length).toBe(0)
  })

  test('somebody who imports a great deal is alone in waiting for it', async () => {
    const [importer, other] = [await Caller.begin(), await Caller.begin()]
    const pages = Array.from({ length: 300 }, (_, i) => ({
      path: `p${i}.md`,
      text: `# Page ${i}\n\n${Array.from({ length: 54 }, (_, j) => `- Topic ${j} of the page`).join('\n')}`,
    }))
    let isDone = false
    const importing = importer.import(pages).finally(() => {
      isDone = true
    })
    const waits: number[] = []
    while (!isDone) {
      const begun = performance.now()
      expect((await other.call('GET', '/api/collections')).status).toBe(200)
      waits.push(performance.now() - begun)
      await new Promise((resolve) => setTimeout(resolve, 20))
    }
    expect((await importing).state).toBe('done')
    expect(waits.length).toBeGreaterThan(10)
    expect(Math.max(...waits)).toBeLessThan(1_000)
  }, 60_000)

  test('drawings that take for ever to draw are given up, and one that is far too tall is shown', async () => {
    const owner = await Caller.begin()
    const map = await owner.grow('# Garden\n\n- Spring')
    const [topic] = (await owner.map(map)).topics
    const upload = async (name: string, text: string) => {
      const path = `/api/collections/${owner.collection}/files?topic=${topic!.id}&name=${name}&use=file`
      const answer = await owner.call('POST', path, text)
      const { change } = answer.json as { change: { edits: { kind: string; id: string }[] } }
      return change.edits.find(({ kind }) => kind === 'file')!.id
    }
    const filters = Array.from({ length: 40 }, (_, i) => `<feTurbulence baseFrequency="0.${i + 1}" numOctaves="60"/>`)
    const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="100" height="100"><filter id="f">${filters.join('')}</filter><rect width="100" height="100" filter="url(#f)"/></svg>`
    const file = await upload('slow.svg', svg)
    const begun = Date.now()
    const asked = owner.call('GET', `/api/collections/${owner.collection}/files/${file}?width=2560`)
    expect((await owner.call('GET', '/healthz')).status).toBe(200)
    expect(Date.now() - begun).toBeLessThan(1_500)
    expect((await asked).status).toBe(422)
    expect(Date.now() - begun).toBeLessThan(15_000)
    // It is not tried again at every look.
    const again = Date.now()
    expect((await owner.call('GET', `/api/collections/${owner.collection}/files/${file}?width=2560`)).status).toBe(422)
    expect(Date.now() - again).toBeLessThan(1_000)
    const tall = await upload(
      'tall.svg',
      '<svg xmlns="http://www.w3.org/2000/svg" width="10" height="100000"><rect width="10" height="100000"/></svg>',
    )
    expect(
      (await owner.call('GET', `/api/collections/${owner.collection}/files/${tall}?width=160`)).status,
    ).toBeLessThan(500)
  }, 60_000)
})

describe('what nobody may do', () => {
  test('an editor cannot undo that the owner put the collection into the trash, nor do it again', async () => {
    const owner = await Caller.begin()
    const editor = await owner.invite('editor')
    const trashed = onlyResult(
      await owner.change([
        { kind: 'collection', id: owner.collection, before: { trashed: false }, after: { trashed: true } },
      ]),
    )
    expect(trashed.ok).toBe(true)
    const change = trashed.ok && trashed.change.id
    const undone = await editor.command('undo', { change })
    expect([undone.status, undone.text]).toEqual([403, expect.stringContaining('Only the owner')])
    expect((await owner.command('undo', { change })).status).toBe(200)
  })

  test('the site of a collection in the trash is not to be read, not published again, and can be taken down', async () => {
    const owner = await Caller.begin()
    await owner.grow('# Garden\n\n- Spring')
    const path = `/api/collections/${owner.collection}/publication`
    const { job } = (await owner.call('POST', path)).json as { job: { id: string } }
    await owner.ended(job.id)
    const state = async () =>
      ((await owner.call('GET', path)).json as { publication: { address: string } | null }).publication
    const { address } = (await state())!
    const read = async () => (await Caller.nobody.call('GET', `/site/${address}/`)).status
    expect(await read()).toBe(200)
    await owner.change([
      { kind: 'collection', id: owner.collection, before: { trashed: false }, after: { trashed: true } },
    ])
    expect(await read()).toBe(404)
    expect((await owner.call('POST', path)).status).toBe(409)
    await owner.change([
      { kind: 'collection', id: owner.collection, before: { trashed: true }, after: { trashed: false } },
    ])
    expect(await read()).toBe(200)
    expect((await owner.call('DELETE', path)).status).toBe(200)
    expect([await read(), await state()]).toEqual([404, null])
  })

  test('what is asked for in a form that would cost without end is refused', async () => {
    const owner = await Caller.begin()
    const [target, source] = [await owner.grow('# Garden\n\n- Spring'), await owner.grow('# Pond\n\n- Spring')]
    const plan = { target, sources: Array(50).fill(source), way: 'combined' }
    const answer = await owner.send('POST', `/api/collections/${owner.collection}/merge-plan`, plan)
    expect([answer.status, answer.text]).toEqual([400, expect.stringContaining('A map is named once.')])
  })

  test('a command that is sent twice is carried out once', async () => {
    const owner = await Caller.begin()
    const id = crypto.randomUUID()
    const pages = [{ path: 'a.md', text: '# Garden\n\n- Spring' }]
    const [first, second] = [await owner.import(pages, id), await owner.import(pages, id)]
    expect(first.state).toBe('done')
    expect(second).toEqual(first)
    const { rows } = await database.query('SELECT 1 FROM map WHERE collection = $1', [owner.collection])
    expect(rows.length).toBe(1)
  })
})
