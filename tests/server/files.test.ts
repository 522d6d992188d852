import { beforeAll, describe, expect, test } from 'vitest'
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

  test('larger than the limit are refused and leave nothing', async () => {
    const before = (await owner.map(map)).files.length
    async function* tooMuch() {
      for (let i = 0; i < 102; i++) yield new Uint8Array(1024 * 1024)
    }
    const answer = await fetchStream(tooMuch())
    expect(answer).toBe(413)
    expect((await owner.map(map)).files.length).toBe(before)
  }, 60_000)

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
