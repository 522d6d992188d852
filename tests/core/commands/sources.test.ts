import { expect, test } from 'vitest'
import { attachFiles, replaceFile } from '../../../src/core/commands/attachments'
import { markRead, moveSource } from '../../../src/core/commands/sources'
import { takePassage } from '../../../src/core/commands/take-passage'
import { addWeblink } from '../../../src/core/commands/weblinks'
import { usesOf } from '../../../src/core/network/file-ledger'
import { type Source, sourcesBelow } from '../../../src/core/network/sources'
import { FileId } from '../../../src/core/records/ids'
import { readCommonMark } from '../../../src/core/text/commonmark'
import { Garden, refusal } from '../gardens'

function withSources() {
  const garden = new Garden()
  garden.grow('Garden\n  Books\n    Peas')
  const file = (name: string, number: number) => {
    const id = FileId.parse(`00000000-0000-7000-a000-00000000000${number}`)
    const sha256 = String(number).repeat(64)
    garden.records.put('file', { id, sha256, name, type: 'text/plain', size: 3, picture: null, trashed: false })
    return id
  }
  const [plan, newPlan, peas] = [file('plan.txt', 1), file('plan-2.txt', 2), file('peas.txt', 3)]
  garden.do((r, m) => attachFiles(r, { topic: garden.topic('Books'), files: [plan] }, m))
  garden.do((r, m) => attachFiles(r, { topic: garden.topic('Peas'), files: [peas] }, m))
  garden.do((r, m) =>
    addWeblink(r, { topic: garden.topic('Books'), url: 'https://example.org/soil', title: 'Soil' }, m),
  )
  garden.do((r, m) => addWeblink(r, { topic: garden.topic('Books'), url: 'https://example.org/rain', title: '' }, m))
  const below = () => sourcesBelow(garden.records, garden.records.need('topic', garden.topic('Books')))
  const named = (name: string): Source => below().find((source) => source.name === name)!
  return { garden, plan, newPlan, below, named }
}

test('what there is to read in a branch is told in its order, and is ticked off', () => {
  const { garden, below, named } = withSources()
  const names = ['plan.txt', 'Soil', 'example.org/rain', 'peas.txt']
  expect(below().map(({ name, read }) => [name, read])).toEqual(names.map((name) => [name, false]))
  const { change } = garden.do((r, m) => markRead(r, { sources: [named('Soil'), named('peas.txt')], read: true }, m))
  expect(change.label).toBe('Mark 2 sources as read')
  expect(below().filter(({ read }) => read)).toHaveLength(2)
  garden.do((r, m) => moveSource(r, { source: named('example.org/rain'), to: 0 }, m))
  expect(below().map(({ name }) => name)).toEqual([names[0], names[2], names[1], names[3]])
})

test('a newer version takes the place of a file, which stays as the earlier one and comes back', () => {
  const { garden, plan, newPlan, named } = withSources()
  const { id } = named('plan.txt') as { id: Parameters<typeof replaceFile>[1]['attachment'] }
  garden.do((r, m) => markRead(r, { sources: [named('plan.txt')], read: true }, m))
  garden.do((r, m) => replaceFile(r, { attachment: id, file: newPlan }, m))
  expect(garden.records.need('attachment', id)).toMatchObject({ file: newPlan, earlier: [plan], read: false })
  expect(usesOf(garden.records, { id: plan })[0]).toMatchObject({ how: 'earlier', topic: garden.topic('Books') })
  garden.do((r, m) => replaceFile(r, { attachment: id, file: plan }, m))
  expect(garden.records.need('attachment', id)).toMatchObject({ file: plan, earlier: [newPlan] })
  expect(refusal(() => garden.do((r, m) => replaceFile(r, { attachment: id, file: plan }, m)))).toContain('already')
})

test('a passage becomes a topic or a part of a note, with its source and page, and never more than its words', () => {
  const { garden, plan, named } = withSources()
  const take = (text: string, becomes: 'topic' | 'note', name = 'plan.txt', page: number | null = 3) =>
    garden.do((r, m) => takePassage(r, { source: named(name), page, text, at: garden.topic('Books'), becomes }, m))
  const noteOf = (topic: string | undefined) => {
    const { note } = garden.records.need('topic', topic!)
    return garden.records.need('note', note).text
  }
  const short = take('  Peas want\nsun. ', 'topic').select[0]
  expect(garden.records.need('topic', short!).text).toBe('Peas want sun.')
  expect(noteOf(short)).toBe(`[plan.txt, page 3](folvet:file/${plan}#page=3)\n`)
  const long = take(`${'Peas want sun and rain. '.repeat(9)}\n\n# No heading`, 'topic').select[0]
  expect(garden.records.need('topic', long!).text).toBe('Peas want sun and rain…')
  expect(readCommonMark(noteOf(long)).map(({ type }) => type)).toEqual(['quote', 'paragraph'])
  expect(noteOf(long)).toContain('\\# No heading')
  take('<script>rain</script>', 'note', 'Soil', null)
  take('Twice', 'note', 'Soil', null)
  const note = noteOf(garden.topic('Books'))
  expect(readCommonMark(note).map(({ type }) => type)).toEqual(['quote', 'paragraph', 'quote', 'paragraph'])
  expect(note).toContain('[Soil](https://example.org/soil)')
  expect(refusal(() => take(' \n ', 'note'))).toContain('Select the words')
  expect(refusal(() => take('a'.repeat(30_000), 'note'))).toContain('too long')
})
