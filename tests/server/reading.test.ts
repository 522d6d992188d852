import { beforeAll, expect, test } from 'vitest'
import { database } from '../../src/server/database'
import type { ToldText } from '../../src/server/files/reading/reading-rows'
import { smallDocx, smallPdf } from '../small-documents'
import { Caller } from './people'

let owner: Caller
let topic = ''
let map = ''
beforeAll(async () => {
  owner = await Caller.begin()
  map = await owner.grow('# Garden')
  topic = (await owner.map(map)).topics[0]!.id
})

const at = () => `/api/collections/${owner.collection}`
const upload = (name: string, content: BodyInit, more = '') =>
  owner.call('POST', `${at()}/files?topic=${topic}&name=${encodeURIComponent(name)}${more}`, content)
const fileNamed = async (name: string) => (await owner.map(map)).files.find((file) => file.name === name)!

/** The text of a file, once it has been read. */
async function textOf(name: string): Promise<ToldText> {
  const { id } = await fileNamed(name)
  for (;;) {
    const told = (await owner.call('GET', `${at()}/files/${id}/text`)).json as ToldText
    if (told.state !== 'waiting') return told
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
}
const found = async (words: string) => {
  const { json } = await owner.call('GET', `${at()}/search?kinds=file+text&words=${encodeURIComponent(words)}`)
  return (json as { rows: { file: string; page: number; text: string; map: string }[] }).rows
}

test('a sentence that stands only inside a file is found, with the page it is on', async () => {
  await upload('permit.pdf', smallPdf(['The water permit', 'Weir boards stay in until the fifteenth of October.']))
  await upload(
    'minutes.docx',
    await smallDocx(
      '<w:p><w:r><w:t>Present: five </w:t></w:r><w:r><w:t>people &amp; a dog</w:t></w:r></w:p>' +
        '<w:p><w:r><w:br w:type="page"/><w:t>The culvert is decided.</w:t></w:r></w:p>',
    ),
  )
  await upload('letter.html', '<title>No</title><p>The sluice<br>squeaks</p><script>var hidden = 1</script>')
  await upload('levels.csv', 'day,level\n2025-01-01,piezometer\n')
  expect(await textOf('permit.pdf')).toMatchObject({ state: 'read', pages: [{ page: 1 }, { page: 2 }] })
  expect((await textOf('minutes.docx')).pages).toEqual([
    { page: 1, text: 'Present: five people & a dog' },
    { page: 2, text: 'The culvert is decided.' },
  ])
  expect((await textOf('letter.html')).pages).toEqual([{ page: 1, text: 'The sluice\nsqueaks' }])
  await textOf('levels.csv')
  // Words in any order, as beginnings, and one mistyped.
  for (const words of ['october boards', 'fifteenth weir', 'octobre boards'])
    expect(await found(words)).toMatchObject([{ file: 'permit.pdf', page: 2, map }])
  expect((await found('until')).at(0)?.text).toContain('boards stay in until the fifteenth')
  expect(await found('culvert')).toMatchObject([{ file: 'minutes.docx', page: 2 }])
  expect(await found('sluice')).toMatchObject([{ file: 'letter.html', page: 1 }])
  expect(await found('piezometer')).toMatchObject([{ file: 'levels.csv', page: 1 }])
  expect(await found('hidden')).toEqual([])
})

test('a newer version takes the place of a file; what is no such file, or gone, is refused', async () => {
  const before = await fileNamed('levels.csv')
  const attachment = (await owner.map(map)).attachments.find(({ file }) => file === before.id)!.id
  expect((await upload('levels-2.csv', 'day,level\n2025-01-02,dipmeter\n', `&replaces=${attachment}`)).status).toBe(201)
  await textOf('levels-2.csv')
  expect(await found('dipmeter')).toHaveLength(1)
  // The earlier one is kept, and is not what is found.
  expect((await owner.call('GET', `${at()}/files/${before.id}`)).status).toBe(200)
  expect(await found('piezometer')).toEqual([])
  const other = (await owner.map(await owner.grow('# Other'))).topics[0]!.id
  const elsewhere = await owner.call('POST', `${at()}/files?topic=${other}&name=a&replaces=${attachment}`, 'a')
  expect(elsewhere.status).toBe(404)
})

test('what cannot be read stays a file, and keeps nobody waiting', async () => {
  const deep = `<w:p>${'<w:x>'.repeat(100_000)}`
  const bomb = `<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;">]><w:p><w:t>&b;</w:t></w:p>`
  const hostile: [string, BodyInit][] = [
    ['cut.pdf', smallPdf(['A page']).subarray(0, 120)],
    ['liar.pdf', '%PDF-1.7\nnothing of the kind'],
    ['huge.docx', await smallDocx(`<w:p><w:t>${' a'.repeat(30_000_000)}</w:t></w:p>`)],
    ['deep.docx', await smallDocx(deep)],
    ['bomb.docx', await smallDocx(bomb)],
    ['empty.docx', 'PK\u0003\u0004'],
    ['twice.html', `${'<b><p>'.repeat(40_000)}`],
    ['nothing.bin', new Uint8Array([0, 1, 2, 3])],
  ]
  for (const [name, content] of hostile) expect((await upload(name, content)).status, name).toBe(201)
  for (const [name] of hostile) expect(['failed', 'without text'], name).toContain((await textOf(name)).state)
  await upload('after.txt', 'The hydrometer comes last.')
  await textOf('after.txt')
  expect(await found('hydrometer')).toHaveLength(1)
}, 60_000)

test('a content over which two processes ended is given up', async () => {
  await upload('poison.txt', 'Reading this ends the process')
  await textOf('poison.txt')
  const { sha256 } = await fileNamed('poison.txt')
  await database().query(`UPDATE file_reading SET state = 'waiting', attempts = 2 WHERE sha256 = $1`, [sha256])
  expect((await textOf('poison.txt')).state).toBe('failed')
})
