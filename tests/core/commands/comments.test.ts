import { expect, test } from 'vitest'
import type { Edit } from '../../../src/core/changes/edit'
import { addComment, removeComment, rewordComment, settleThread } from '../../../src/core/commands/comments'
import { duplicateBranches } from '../../../src/core/commands/duplicate-branches'
import { joinTopics } from '../../../src/core/commands/regroup'
import { openThreads, threadsAt } from '../../../src/core/network/comments'
import { type CommentId, PersonId } from '../../../src/core/records/ids'
import { problemWithAuthorship } from '../../../src/core/rights/authorship'
import { Garden, refusal } from '../gardens'

const person = (name: string, number: number) => ({
  id: PersonId.parse(`00000000-0000-7000-b000-00000000000${number}`),
  name,
})
const [ada, ben] = [person('Ada', 1), person('Ben', 2)]

function talk() {
  const garden = new Garden()
  garden.grow('Garden\n  Peas\n  Beans')
  const topic = garden.topic('Peas')
  const say = (author: typeof ada, text: string, answers: CommentId | null = null) =>
    garden.do((r, m) =>
      addComment(r, { topic, quote: '', answers, author, at: '2026-05-01T10:00:00Z', text, mentions: [] }, m),
    )
  const threads = () => threadsAt(garden.records, topic).map(({ head, answers }) => [head.text, answers.length])
  return { garden, topic, say, threads }
}

test('comments are threads: answered, settled, taken up again by an answer, removed with what was answered', () => {
  const { garden, topic, say, threads } = talk()
  say(ada, ' Too early? ')
  say(ben, 'Which kind?')
  const [first, second] = threadsAt(garden.records, topic)
  say(ben, 'No, look at the soil.', first!.head.id)
  // An answer to an answer stands in the same thread.
  say(ada, 'I see.', threadsAt(garden.records, topic)[0]!.answers[0]!.id)
  expect(threads()).toEqual([
    ['Too early?', 2],
    ['Which kind?', 0],
  ])
  garden.do((r, m) => settleThread(r, { comment: first!.head.id, resolved: true }, m))
  expect(openThreads(garden.records, topic)).toHaveLength(1)
  say(ben, 'Still cold.', first!.head.id)
  expect(openThreads(garden.records, topic)).toHaveLength(2)
  garden.do((r, m) => rewordComment(r, { comment: second!.head.id, text: 'Which variety?', mentions: [ada.id] }, m))
  garden.do((r, m) => removeComment(r, { comment: first!.head.id }, m))
  expect(threads()).toEqual([['Which variety?', 0]])
  expect(refusal(() => say(ada, '  '))).toContain('needs words')
  expect(refusal(() => say(ada, 'a'.repeat(6_000)))).toContain('too long')
  expect(refusal(() => say(ada, 'Hello', first!.head.id))).toContain('gone')
})

test('a copy takes no comments along, and topics that are joined keep them', () => {
  const { garden, topic, say } = talk()
  say(ada, 'Too early?')
  const { select } = garden.do((r, m) => duplicateBranches(r, { topics: [topic], onto: null }, m))
  expect(garden.records.comments(select[0]!)).toEqual([])
  const beans = garden.topic('Beans')
  garden.do((r, m) => joinTopics(r, { topics: [beans, topic] }, m))
  expect(garden.records.comments(beans)).toHaveLength(1)
})

test('nobody says something in the name of somebody else, or alters what they said', () => {
  const { garden, topic, say } = talk()
  const made = say(ada, 'Too early?').change.edits
  const { id } = garden.records.comments(topic)[0]!
  const may = (edits: readonly Edit[], who: typeof ada, isEditor: boolean) =>
    problemWithAuthorship(garden.records, edits, who.id, () => isEditor) === null
  const edit = (after: object) => [{ kind: 'comment', id, before: {}, after } as unknown as Edit]
  expect([may(made, ada, false), may(made, ben, true)]).toEqual([true, false])
  for (const [fields, byCommenter, byEditor] of [
    [{ text: 'Never!' }, false, false],
    [{ author: ben.id }, false, false],
    [{ resolved: true }, true, true],
    [{ trashed: true }, false, true],
    [{ topic: garden.topic('Beans') }, false, true],
    [{ resolved: true, authorName: 'Ben' }, false, false],
  ] as const) {
    expect([may(edit(fields), ben, false), may(edit(fields), ben, true)], JSON.stringify(fields)).toEqual([
      byCommenter,
      byEditor,
    ])
    // One's own words are one's own, the name below them is not.
    expect(may(edit(fields), ada, false)).toBe(!('author' in fields || 'authorName' in fields))
  }
})
