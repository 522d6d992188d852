import { expect, test } from 'vitest'
import type { Edit } from '../../../src/core/changes/edit'
import { addTopic } from '../../../src/core/commands/add-topic'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { deleteTopics } from '../../../src/core/commands/delete-topics'
import { renameMap } from '../../../src/core/commands/maps'
import { moveTopics } from '../../../src/core/commands/move-topics'
import { setText } from '../../../src/core/commands/set-text'
import { splitOff } from '../../../src/core/commands/split-off'
import { digestEffects } from '../../../src/core/network/digest-effects'
import { Garden } from '../gardens'

const effects = (garden: Garden, edits: readonly Edit[]) => {
  const { added, anew, links } = digestEffects(garden.records, edits)
  return { added: Object.fromEntries(added), anew: [...anew].sort(), links }
}

test('adding is counted, writing is not, and a new title only says that there is one', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\n- Bed\n- Path')
  const added = garden.do((records, newIds) =>
    addTopic(records, { parent: garden.topic('Bed'), after: 'last', text: 'Rose' }, newIds),
  )
  expect(effects(garden, added.change.edits)).toEqual({ added: { [map]: 1 }, anew: [], links: false })
  const written = garden.do((records, newIds) =>
    setText(records, { topic: garden.topic('Rose'), text: 'Dog rose' }, newIds),
  )
  expect(effects(garden, written.change.edits)).toEqual({ added: {}, anew: [], links: false })
  const renamed = garden.do((records, newIds) => renameMap(records, { map, title: 'Yard' }, newIds))
  expect(effects(garden, renamed.change.edits).added).toEqual({ [map]: 0 })
})

test('a move within a map changes no row; the trash, a split and links between maps count anew', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\n- Bed\n  - Rose\n- Path')
  const other = garden.grow('Pond\n- Reed')
  const moved = garden.do((records, newIds) =>
    moveTopics(
      records,
      { topics: [garden.topic('Rose')], parent: garden.topic('Path'), after: 'last', side: null },
      newIds,
    ),
  )
  expect(effects(garden, moved.change.edits)).toEqual({ added: {}, anew: [], links: false })
  const linked = garden.do((records, newIds) =>
    addCrosslink(
      records,
      { from: garden.topic('Rose'), to: { kind: 'topic', id: garden.topic('Reed') }, drawn: 'line' },
      newIds,
    ),
  )
  expect(effects(garden, linked.change.edits)).toEqual({ added: {}, anew: [map, other].sort(), links: true })
  const split = garden.do((records, newIds) => splitOff(records, { topic: garden.topic('Path') }, newIds))
  const { anew, links } = effects(garden, split.change.edits)
  // The linked map shows where the link leads now.
  expect([anew.length, links, anew.includes(map), anew.includes(other)]).toEqual([3, true, true, true])
  const gone = garden.do((records, newIds) => deleteTopics(records, { topics: [garden.topic('Bed')] }, newIds))
  expect(effects(garden, gone.change.edits).anew).toEqual([map])
})

test('what is added below the trash counts nothing', () => {
  const garden = new Garden()
  const map = garden.grow('Garden\n- Bed\n  - Rose')
  const rose = garden.topic('Rose')
  garden.do((records, newIds) => deleteTopics(records, { topics: [garden.topic('Bed')] }, newIds))
  const late = garden.do((records, newIds) => addTopic(records, { parent: rose, after: 'last', text: 'Thorn' }, newIds))
  expect(effects(garden, late.change.edits).added).toEqual({ [map]: 0 })
})
