import sharp from 'sharp'
import { beforeAll, describe, expect, test } from 'vitest'
import { type Answer, Caller } from './people'

let owner: Caller
let map = ''
let topic = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden\n\n- Spring\n  - Sow peas')
  topic = (await owner.map(map)).topics.find(({ text }) => text === 'Spring')!.id
})

const send = (name: string, content: BodyInit, use: string): Promise<Answer> =>
  owner.call(
    'POST',
    `/api/collections/${owner.collection}/files?use=${use}&topic=${topic}&name=${encodeURIComponent(name)}`,
    content,
  )
const photo = async (width: number, height: number): Promise<Blob> => {
  const image = sharp({ create: { width, height, channels: 3, background: '#2d8f86' } })
  return new Blob([new Uint8Array(await image.png().toBuffer())])
}
const spring = async () => (await owner.map(map)).topics.find(({ id }) => id === topic)!

describe('pictures', () => {
  test('stand on a topic in a sensible size, and come in about the width that is asked for', async () => {
    const answer = await send('meadow.png', await photo(2_000, 1_000), 'picture')
    expect(answer.status, answer.text).toBe(201)
    const { picture } = await spring()
    expect(picture).toMatchObject({ width: 240, height: 120 })
    const held = await owner.map(map)
    expect(held.files.find(({ id }) => id === picture!.file)?.picture).toEqual({ width: 2_000, height: 1_000 })
    const address = `/api/collections/${owner.collection}/files/${picture!.file}`
    for (const [asked, given] of [
      [100, 160],
      [480, 640],
      [9_000, 2_000],
    ]) {
      const response = await owner.raw('GET', `${address}?width=${asked}`)
      expect([response.status, response.headers.get('content-type')]).toEqual([200, 'image/webp'])
      const { width } = await sharp(Buffer.from(await response.arrayBuffer())).metadata()
      expect([asked, width]).toEqual([asked, given])
      const etag = response.headers.get('etag')!
      expect((await owner.call('GET', `${address}?width=${asked}`, null, { 'if-none-match': etag })).status).toBe(304)
    }
    expect((await owner.call('GET', `${address}?width=nonsense`)).status).toBe(200)
  })

  test('lie behind a map, which keeps its pattern', async () => {
    expect((await send('fen.png', await photo(800, 600), 'background')).status).toBe(201)
    const { look } = (await owner.map(map)).map
    expect(look?.background).toMatchObject({ pattern: 'plain', tone: null })
    expect((await owner.map(map)).files.map(({ id }) => id)).toContain(look?.background?.picture)
  })

  test('drawings in SVG are handed out as pixels, and never run', async () => {
    const hostile =
      '<svg xmlns="http://www.w3.org/2000/svg" width="40" height="20"><script>alert(1)</script><rect width="40" height="20"/></svg>'
    expect((await send('bog.svg', hostile, 'picture')).status).toBe(201)
    const { picture } = await spring()
    expect(picture).toMatchObject({ width: 40, height: 20 })
    const response = await owner.raw('GET', `/api/collections/${owner.collection}/files/${picture!.file}?width=160`)
    const { format, width } = await sharp(Buffer.from(await response.arrayBuffer())).metadata()
    expect([format, width]).toEqual(['webp', 160])
  })

  test.each([
    ['a text', 'notes.png', 'this is no picture'],
    ['half a picture', 'half.png', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0])],
    ['markup that is no drawing', 'broken.svg', '<svg xmlns="http://www.w3.org/2000/svg"><unclosed'],
  ])('%s that claims to be one is refused in words, and nothing changes', async (_, name, content) => {
    const before = await spring()
    const answer = await send(name, content, 'picture')
    expect(answer.status).toBe(415)
    expect(answer.text).toContain('Nothing was changed')
    expect(await spring()).toEqual(before)
  })

  test('an unknown use is refused', async () => {
    expect((await send('meadow.png', 'x', 'wallpaper')).status).toBe(400)
  })
})
