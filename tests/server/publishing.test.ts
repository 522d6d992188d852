import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import yauzl from 'yauzl'
import type { ToldJob } from '../../src/core/records/snapshot'
import { Caller } from './people'

interface State {
  publication: { address: string; changeNumber: number } | null
  job: ToldJob | null
}

let owner: Caller
let map = ''
const path = () => `/api/collections/${owner.collection}/publication`

async function publish(): Promise<NonNullable<State['publication']>> {
  const asked = await owner.send('POST', path(), {})
  expect(asked.status).toBe(202)
  expect(await owner.ended((asked.json as State).job!.id)).toMatchObject({ state: 'done' })
  return ((await owner.call('GET', path())).json as State).publication!
}

beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Spring\n  - Sow peas')
})

describe('a publication', () => {
  test('is nothing before the first one', async () => {
    expect((await owner.call('GET', path())).json).toEqual({ publication: null, job: null })
    expect((await owner.call('GET', `${path()}.zip`)).status).toBe(404)
  })

  test('is served to anyone, in a sandbox, with its own page for what is not there', async () => {
    const { address } = await publish()
    const home = await Caller.nobody.call('GET', `/site/${address}/`)
    expect(home.status).toBe(200)
    expect(home.text).toContain('Garden')
    expect(home.headers.get('content-security-policy')).toContain('sandbox allow-scripts allow-popups allow-downloads')
    expect(home.headers.get('content-security-policy')).not.toContain('allow-same-origin')
    expect((await Caller.nobody.call('GET', `/site/${address}/maps/garden.html`)).text).toContain('Sow peas')
    const missing = await Caller.nobody.call('GET', `/site/${address}/maps/nothing.html`)
    expect(missing.status).toBe(404)
    expect(missing.text).toContain('There is no such page')
    expect((await Caller.nobody.call('GET', `/site/${address}/../../healthz`)).text).not.toContain('Sow peas')
  })

  test('changes only when it is published again, at the same address', async () => {
    const before = await publish()
    const topic = (await owner.map(map)).topics.find(({ text }) => text === 'Sow peas')!
    await owner.change([{ kind: 'topic', id: topic.id, before: { text: 'Sow peas' }, after: { text: 'Sow beans' } }])
    const page = `/site/${before.address}/maps/garden.html`
    expect((await Caller.nobody.call('GET', page)).text).toContain('Sow peas')
    const after = await publish()
    expect(after.address).toBe(before.address)
    expect(after.changeNumber).toBeGreaterThan(before.changeNumber)
    expect((await Caller.nobody.call('GET', page)).text).toContain('Sow beans')
    expect((await Caller.nobody.call('GET', page)).text).not.toContain('Sow peas')
  })

  test('holds some maps alone where these are chosen, until all are published again', async () => {
    const shed = await owner.grow('# Shed\n\n- Tools')
    const choose = async (maps: unknown) => owner.send('PUT', path(), { maps })
    expect((await choose([])).status).toBe(400)
    expect((await choose([uuid()])).status).toBe(409)
    const asked = await choose([shed])
    expect(asked.status).toBe(202)
    expect(await owner.ended((asked.json as State).job!.id)).toMatchObject({ state: 'done' })
    const { publication } = (await owner.call('GET', path())).json as State
    expect(publication).toMatchObject({ maps: [shed] })
    const home = `/site/${publication!.address}`
    expect((await Caller.nobody.call('GET', `${home}/`)).text).not.toContain('Garden</a>')
    expect((await Caller.nobody.call('GET', `${home}/maps/shed.html`)).status).toBe(200)
    expect((await Caller.nobody.call('GET', `${home}/maps/garden.html`)).status).toBe(404)
    expect(await publish()).toMatchObject({ maps: null })
    expect((await Caller.nobody.call('GET', `${home}/maps/garden.html`)).status).toBe(200)
  })

  test('is told of each map: one that was made since is not on the site yet', async () => {
    await publish()
    const since = await owner.grow('# Made since\n\n- Later')
    const facts = (await owner.call('GET', `/api/collections/${owner.collection}/maps`)).json as {
      map: string
      published: boolean
      changedAt: string
      files: number
    }[]
    const of = (id: string) => facts.find((each) => each.map === id)!
    expect(of(map)).toMatchObject({ published: true, files: 0 })
    expect(of(since).published).toBe(false)
    expect(Date.parse(of(since).changedAt)).toBeGreaterThan(Date.parse(of(map).changedAt))
    await owner.command('trash-maps', { maps: [since] })
  })

  test('is packed into the same zip each time, with every file of the site', async () => {
    await publish()
    const zip = async () => Buffer.from(await (await owner.raw('GET', `${path()}.zip`)).arrayBuffer())
    const first = await zip()
    expect(first.equals(await zip())).toBe(true)
    const names = await new Promise<string[]>((resolve, reject) =>
      yauzl.fromBuffer(first, { lazyEntries: false }, (error, file) => {
        if (error) return reject(error)
        const found: string[] = []
        file.on('entry', (entry: yauzl.Entry) => found.push(entry.fileName.split('/').slice(1).join('/')))
        file.on('end', () => resolve(found))
      }),
    )
    expect(names).toEqual(expect.arrayContaining(['index.html', '404.html', 'maps/garden.html', 'assets/site.css']))
  })

  test('is refused for an empty collection, in words', async () => {
    const other = await Caller.begin()
    const answer = await other.send('POST', `/api/collections/${other.collection}/publication`, {})
    expect(answer.status).toBe(409)
    expect(answer.text).toContain('There is no map to publish yet.')
  })

  test('leaves out what lies in the trash', async () => {
    const secret = await owner.grow(`# Secret ${uuid().slice(-6)}\n\n- Hidden words`)
    expect((await owner.command('trash-maps', { maps: [secret] })).status).toBe(200)
    const { address } = await publish()
    const search = await Caller.nobody.call('GET', `/site/${address}/search/entries-0.js`)
    expect(search.status).toBe(200)
    expect(search.text).not.toContain('Hidden words')
  })
})
