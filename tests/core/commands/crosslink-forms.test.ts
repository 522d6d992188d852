import { expect, test } from 'vitest'
import {
  bendCrosslink,
  branchOfCrosslink,
  changeCrosslink,
  crosslinkOfBranch,
  turnCrosslink,
} from '../../../src/core/commands/crosslink-forms'
import { addCrosslink } from '../../../src/core/commands/crosslinks'
import { parentOf } from '../../../src/core/records/place'
import { plot, refusal } from '../gardens'

function linked() {
  const { garden, map } = plot()
  const [from, to] = [garden.topic('Sow peas'), garden.topic('Dwarf')]
  garden.do((r, m) => addCrosslink(r, { from, to: { kind: 'topic', id: to }, drawn: 'line' }, m))
  const crosslink = garden.records.crosslinksFrom(from)[0]!.id
  return { garden, map, from, to, crosslink }
}

test('a link is labelled, leads both ways, and is turned around', () => {
  const { garden, from, to, crosslink } = linked()
  garden.do((r, m) => changeCrosslink(r, { crosslink, label: ' follows ' }, m))
  garden.do((r, m) => changeCrosslink(r, { crosslink, bothWays: true }, m))
  garden.do((r, m) => turnCrosslink(r, { crosslink }, m))
  expect(garden.records.need('crosslink', crosslink)).toMatchObject({
    from: to,
    to: { kind: 'topic', id: from },
    label: 'follows',
    bothWays: true,
  })
})

test('a line is bent, keeps its place when the link is turned around, and finds its own way again', () => {
  const { garden, crosslink } = linked()
  const bent = () => garden.records.need('crosslink', crosslink).bend
  garden.do((r, m) => bendCrosslink(r, { crosslink, bend: { along: 0.25, aside: 80 } }, m))
  garden.do((r, m) => turnCrosslink(r, { crosslink }, m))
  expect(bent()).toEqual({ along: 0.75, aside: -80 })
  garden.do((r, m) => bendCrosslink(r, { crosslink, bend: null }, m))
  expect(bent()).toBeNull()
})

test('a link becomes a branch, and a branch a link', () => {
  const { garden, from, to, crosslink } = linked()
  garden.do((r, m) => branchOfCrosslink(r, { crosslink }, m))
  expect(parentOf(garden.records.need('topic', to))).toBe(from)
  expect(garden.records.crosslinksFrom(from)).toEqual([])
  garden.do((r, m) => crosslinkOfBranch(r, { topic: to, at: { x: 0, y: 0 } }, m))
  expect(parentOf(garden.records.need('topic', to))).toBe(garden.topic('Spring'))
  expect(garden.records.crosslinksFrom(from)).toMatchObject([{ to: { id: to }, drawn: 'line' }])
  // What hangs on a root stands alone then.
  const spring = garden.topic('Spring')
  garden.do((r, m) => crosslinkOfBranch(r, { topic: spring, at: { x: 400, y: 0 } }, m))
  expect(garden.records.need('topic', spring).place).toMatchObject({ kind: 'loose', x: 400 })
})

test('a link that leads up its own branch cannot become a branch', () => {
  const { garden } = plot()
  const [spring, peas] = [garden.topic('Spring'), garden.topic('Sow peas')]
  garden.do((r, m) => addCrosslink(r, { from: peas, to: { kind: 'topic', id: spring }, drawn: 'line' }, m))
  const crosslink = garden.records.crosslinksFrom(peas)[0]!.id
  expect(refusal(() => garden.do((r, m) => branchOfCrosslink(r, { crosslink }, m)))).toBe(
    'A topic cannot hang below itself.',
  )
})
