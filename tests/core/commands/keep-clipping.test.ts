import { expect, test } from 'vitest'
import { type KeptAt, keepClipping } from '../../../src/core/commands/keep-clipping'
import { drawersOf } from '../../../src/core/tree/to-place'
import { Garden, refusal } from '../gardens'

test('an idea, or what was found on a page, is kept in the drawer or below a topic, with where it comes from', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\n  Peas')
  const keep = (at: KeptAt, said: Partial<Parameters<typeof keepClipping>[1]>) =>
    garden.do((r, m) => keepClipping(r, { at, text: '', note: '', quote: '', address: '', ...said }, m))
  const made = ({ select }: { select: readonly string[] }) => garden.records.need('topic', select[0]!)
  const noteOf = (topic: ReturnType<typeof made>) => garden.records.get('note', topic.note)?.text ?? ''
  const idea = made(keep({ drawer: map }, { text: ' Net the peas ', note: 'Before June.' }))
  expect([idea.text, noteOf(idea)]).toEqual(['Net the peas', 'Before June.'])
  expect(idea.place).toMatchObject({ parent: drawersOf(garden.records, map)[0]!.id })
  const page = made(
    keep(
      { topic: garden.topic('Peas') },
      { address: 'https://example.org/pea-moth', quote: 'The moth lays\nits eggs.\n\n# In June' },
    ),
  )
  expect(page.text).toBe('Pea moth')
  expect(garden.records.weblinks(page.id)[0]).toMatchObject({ url: 'https://example.org/pea-moth' })
  expect(noteOf(page)).toBe(
    '> The moth lays its eggs.\n>\n> \\# In June\n\n[example.org/pea-moth](https://example.org/pea-moth)\n',
  )
  const long = made(keep({ drawer: map }, { quote: 'Peas want sun and rain. '.repeat(9) }))
  expect(long.text).toBe('Peas want sun and rain…')
  expect(refusal(() => keep({ drawer: map }, { text: ' ' }))).toContain('nothing to be kept')
  expect(refusal(() => keep({ drawer: map }, { address: 'javascript:alert(1)' }))).toContain('not a web address')
})
