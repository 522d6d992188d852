import { v7 as uuid } from 'uuid'
import { beforeAll, describe, expect, test } from 'vitest'
import { BARE_TOPIC } from '../../src/core/records/topic'
import { database } from '../../src/server/database'
import { removeUnused } from '../../src/server/files/contents'
import { Caller } from './people'

let owner: Caller
let topic = ''
let map = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden')
  topic = (await owner.map(map)).topics[0]!.id
})

const upload = (name: string, content: BodyInit) =>
  owner.call(
    'POST',
    `/api/collections/${owner.collection}/files?topic=${topic}&name=${encodeURIComponent(name)}`,
    content,
  )
const uploaded = async (name: string) => (await owner.map(map)).files.find((file) => file.name === name)!
const address = (id: string) => `/api/collections/${owner.collection}/files/${id}`

describe('files', () => {
  test('come back as they went in, also in part', async () => {
    const content = new Uint8Array(3_000_000).map((_, i) => i % 251)
    expect((await upload('numbers.bin', content)).status).toBe(201)
    const { id } = await uploaded('numbers.bin')
    const part = await owner.call('GET', address(id), null, { range: 'bytes=1048570-1048580' })
    expect(part.status).toBe(206)
    expect(part.headers.get('content-range')).toBe('bytes 1048570-1048580/3000000')
    expect(part.headers.get('content-length')).toBe('11')
    expect((await owner.call('GET', address(id), null, { range: 'bytes=4000000-' })).status).toBe(416)
    expect((await owner.call('GET', address(id))).headers.get('content-length')).toBe('3000000')
  })

  test('sent again after a lost answer are there once', async () => {
    const at = `/api/collections/${owner.collection}/files`
    const [onTopic, forPages] = [uuid(), uuid()]
    const twice = async (query: string) => {
      const answers = [
        await owner.call('POST', `${at}?${query}`, 'once'),
        await owner.call('POST', `${at}?${query}`, 'once'),
      ]
      expect(answers.map(({ status }) => status)).toEqual([201, 201])
      expect(answers[1]!.json).toEqual(answers[0]!.json)
    }
    await twice(`topic=${topic}&name=once.txt&id=${onTopic}`)
    await twice(`use=pages&name=page.txt&id=${forPages}`)
    expect((await owner.map(map)).files.filter(({ name }) => name === 'once.txt')).toHaveLength(1)
    expect((await owner.call('POST', `${at}?topic=${topic}&name=a.txt&id=nonsense`, 'a')).status).toBe(404)
  })

  test('cannot run as our page, whatever they claim to be', async () => {
    await upload('page.html', '<!doctype html><script>alert(1)</script>')
    await upload('drawing.svg', '<svg xmlns="http://www.w3.org/2000/svg"><script>alert(1)</script></svg>')
    await upload('photo.png', '<script>alert(1)</script>')
    for (const name of ['page.html', 'drawing.svg', 'photo.png']) {
      const { headers } = await owner.call('GET', address((await uploaded(name)).id))
      expect(headers.get('content-security-policy')).toContain('sandbox')
      expect(headers.get('x-content-type-options')).toBe('nosniff')
      expect(headers.get('content-type')).toMatch(/^(text\/plain|image\/svg\+xml|application\/octet-stream)/)
      if (name.endsWith('.svg')) expect(headers.get('content-disposition')).toContain('attachment')
    }
  })

  test('that come by one gesture are one step, which nobody else can join', async () => {
    const step = crypto.randomUUID()
    const at = `/api/collections/${owner.collection}/files?topic=${topic}&step=${step}&of=3`
    for (const [name, first] of [
      ['one.txt', '&first='],
      ['two.txt', ''],
    ])
      expect((await owner.call('POST', `${at}&name=${name}${first}`, name)).status).toBe(201)
    // Sent again, the first is what it was; somebody else's file stands by itself.
    const again = await owner.call('POST', `${at}&name=one.txt&first=`, 'one.txt')
    expect(again.json).toMatchObject({ change: { id: step, label: expect.stringMatching(/^Attach 3 files/) } })
    const editor = await owner.invite('editor')
    expect((await editor.call('POST', `${at}&name=theirs.txt`, 'theirs')).status).toBe(201)
    expect((await editor.call('POST', `${at}&name=theirs.txt&first=`, 'theirs')).status).toBe(409)
    const { rows } = await database().query('SELECT step, label FROM change WHERE collection = $1 AND step = $2', [
      owner.collection,
      step,
    ])
    expect(rows).toHaveLength(2)
    expect((await owner.command('undo', { change: step })).status).toBe(200)
    const { rows: hanging } = await database().query(
      `SELECT f.name FROM attachment a JOIN file f ON f.collection = a.collection AND f.id = a.file
       WHERE a.collection = $1 AND NOT a.trashed AND f.name IN ('one.txt', 'two.txt', 'theirs.txt')`,
      [owner.collection],
    )
    expect(hanging).toEqual([{ name: 'theirs.txt' }])
  })

  test('join the change that made their topics, and are taken back with it', async () => {
    const made = crypto.randomUUID()
    const spot = crypto.randomUUID()
    const after = { ...BARE_TOPIC, id: spot, place: { kind: 'loose', map, x: 10, y: 10 }, text: 'photo' }
    const change = { id: made, label: 'Lay down photo', edits: [{ kind: 'topic', id: spot, before: null, after }] }
    const at = `/api/collections/${owner.collection}`
    const sent = await owner.call('POST', `${at}/changes`, JSON.stringify({ changes: [{ ...change, undoes: null }] }))
    expect(sent.status).toBe(200)
    const upload = await owner.call('POST', `${at}/files?topic=${spot}&name=photo.txt&step=${made}&of=1`, 'photo')
    expect(upload.json).toMatchObject({ change: { step: made } })
    // Of a step of several changes nobody is told the edits of the first alone.
    const told = (await owner.call('GET', `${at}/changes`)).json as { id: string; edits: unknown }[]
    expect(told.find(({ id }) => id === made)).toMatchObject({ edits: null })
    expect((await owner.command('undo', { change: made })).status).toBe(200)
    const { rows } = await database().query('SELECT trashed FROM topic WHERE id = $1', [spot])
    expect(rows).toEqual([{ trashed: true }])
  })

  test('larger than the limit are refused and leave nothing', async () => {
    const before = (await owner.map(map)).files.length
    async function* tooMuch() {
      for (let i = 0; i < 102; i++) yield new Uint8Array(1024 * 1024)
    }
    const answer = await fetchStream(tooMuch())
    expect(answer).toBe(413)
    expect((await owner.map(map)).files.length).toBe(before)
  }, 60_000)

  test('beyond what somebody without an account may keep are refused, in whatever collection of theirs', async () => {
    const guest = await Caller.begin()
    const garden = await guest.grow('# Garden')
    const [root] = (await guest.map(garden)).topics
    const sha256 = `full-${guest.collection}`
    await database().query('INSERT INTO content (sha256, size) VALUES ($1, 1)', [sha256])
    const { collection: other } = (await guest.send('POST', '/api/collections', { title: 'Other' })).json as {
      collection: string
    }
    await database().query(
      `INSERT INTO file (collection, id, sha256, name, type, size) VALUES ($1, gen_random_uuid(), $2, 'a', 'text/plain', $3)`,
      [other, sha256, 200 * 1024 * 1024 - 4],
    )
    const upload = (content: string) =>
      guest.call('POST', `/api/collections/${guest.collection}/files?topic=${root!.id}&name=a.txt`, content)
    expect((await upload('Four')).status).toBe(201)
    const refused = await upload('More')
    expect([refused.status, refused.text]).toEqual([413, expect.stringMatching(/200 MB together.* With an account/)])
  })

  test('that nobody names are removed after an hour, and not before', async () => {
    const content = async (age: string, isNamed = false) => {
      const sha256 = `unused-${crypto.randomUUID()}`
      await database().query(`INSERT INTO content (sha256, size, stored_at) VALUES ($1, 1, now() - $2::interval)`, [
        sha256,
        age,
      ])
      if (isNamed)
        await database().query(
          `INSERT INTO file (collection, id, sha256, name, type, size) VALUES ($1, gen_random_uuid(), $2, 'a', 'text/plain', 1)`,
          [owner.collection, sha256],
        )
      return sha256
    }
    const all = [await content('59 minutes'), await content('61 minutes'), await content('2 days', true)]
    await removeUnused()
    const { rows } = await database().query('SELECT sha256 FROM content WHERE sha256 = ANY($1)', [all])
    expect(rows.map(({ sha256 }) => sha256).sort()).toEqual([all[0], all[2]].sort())
  })

  test('on topics that are gone are refused', async () => {
    const answer = await owner.call('POST', `/api/collections/${owner.collection}/files?topic=nonsense&name=a`, 'a')
    expect(answer.status).toBe(404)
  })
})

async function fetchStream(pieces: AsyncIterable<Uint8Array>): Promise<number> {
  const { inject } = await import('vitest')
  const cookie = (owner as unknown as { cookie: string }).cookie
  const request = {
    method: 'POST',
    headers: { cookie },
    body: pieces as unknown as BodyInit,
    duplex: 'half',
  } as RequestInit
  const response = await fetch(
    `${inject('address')}/api/collections/${owner.collection}/files?topic=${topic}&name=big.bin`,
    request,
  )
  return response.status
}
