import { beforeEach, describe, expect, test } from 'vitest'
import { writeNote } from '../../../src/core/commands/write-note'
import type { Situation } from '../../../src/views/acts/act'
import { CollectionSession } from '../../../src/views/sync/collection-session'
import { clipboardHandlers, itemsOf } from '../../../src/views/workspace/clipboard'
import { type Pane, useWorkspace } from '../../../src/views/workspace/workspace-store'
import { COLLECTION, type Garden, plot } from '../../core/gardens'

/** A clipboard as the browser hands it over with an event. */
function clipboard(filled: Record<string, string> = {}) {
  const data = new Map(Object.entries(filled))
  const clipboardData = {
    getData: (type: string) => data.get(type) ?? '',
    setData: (type: string, text: string) => void data.set(type, text),
    files: [],
  }
  let isTaken = false
  const event: Parameters<ReturnType<typeof clipboardHandlers>['onCopy']>[0] = Object.create(null, {
    clipboardData: { value: clipboardData },
    preventDefault: { value: () => (isTaken = true) },
  })
  return { data, event, isTaken: () => isTaken }
}

/** A stage with some topics selected, in a collection held here alone. */
function stage(garden: Garden, map: string, ...selected: string[]) {
  const session: CollectionSession = Object.create(CollectionSession.prototype, {
    id: { value: COLLECTION },
    records: { value: garden.records },
    mayEdit: { value: true },
    run: { value: (command: Parameters<Garden['do']>[0]) => garden.do(command).select },
  })
  const pane: Pane = { ...useWorkspace.getState().panes[0]!, map: garden.records.need('map', map).id, editing: null }
  const situation = (): Situation => ({
    session,
    pane,
    index: 0,
    topics: selected.map((text) => garden.records.need('topic', garden.topic(text))),
  })
  return clipboardHandlers(situation, pane)
}

const BRANCHES = 'application/x-folvet-branches'

beforeEach(() => useWorkspace.setState({ carried: null }))

describe('copying', () => {
  test('gives a clean list for every editor, and the branches for ourselves, each branch once', () => {
    const { garden, map } = plot()
    const { event, data, isTaken } = clipboard()
    stage(garden, map, 'Summer', 'Dwarf').onCopy(event)
    expect(isTaken()).toBe(true)
    expect(data.get('text/plain')).toBe('- Summer\n  - Pick beans\n    - Dwarf\n    - Climbing')
    expect(JSON.parse(data.get(BRANCHES)!)).toEqual({ collection: COLLECTION, topics: [garden.topic('Summer')] })
  })

  test('of nothing leaves the clipboard alone', () => {
    const { garden, map } = plot()
    const { event, isTaken } = clipboard()
    stage(garden, map).onCopy(event)
    expect(isTaken()).toBe(false)
  })
})

describe('pasting', () => {
  const copied = (garden: Garden, map: string, text: string, cut: boolean) => {
    const { event, data } = clipboard()
    const handlers = stage(garden, map, text)
    if (cut) handlers.onCut(event)
    else handlers.onCopy(event)
    return Object.fromEntries(data)
  }

  test('what was copied here hangs there with its notes; what was cut moves, and only once', () => {
    const { garden, map } = plot()
    const beans = garden.topic('Pick beans')
    garden.do((r, n) => writeNote(r, { topic: beans, base: '', text: 'Daily.' }, n))
    stage(garden, map, 'Spring').onPaste(clipboard(copied(garden, map, 'Pick beans', false)).event)
    const [, , copy] = garden.records.children(garden.topic('Spring'))
    expect(copy!.id).not.toBe(beans)
    expect(garden.records.need('note', copy!.note).text).toBe('Daily.')

    const cut = copied(garden, map, 'Summer', true)
    stage(garden, map, 'Autumn').onPaste(clipboard(cut).event)
    expect(garden.records.children(garden.topic('Autumn')).map(({ text }) => text)).toEqual(['Summer'])
    stage(garden, map, 'Autumn').onPaste(clipboard(cut).event)
    expect(garden.records.children(garden.topic('Autumn')).map(({ text }) => text)).toEqual(['Summer', 'Summer'])
  })

  test.each([
    [
      'of another collection',
      JSON.stringify({ collection: 'elsewhere', topics: ['00000000-0000-7000-8000-000000000001'] }),
    ],
    ['that are no JSON', '{"collection":'],
    ['that name nothing', JSON.stringify({ collection: COLLECTION, topics: [] })],
    ['that are gone', JSON.stringify({ collection: COLLECTION, topics: ['00000000-0000-7000-8000-00000000dead'] })],
  ])('branches %s come as the text beside them', async (_, branches) => {
    const { garden, map } = plot()
    stage(garden, map, 'Autumn').onPaste(clipboard({ [BRANCHES]: branches, 'text/plain': 'Leaves\n\tRake' }).event)
    await expect.poll(() => garden.text(map)).toContain('  - Autumn\n    - Leaves\n      - Rake')
  })

  test('with nothing selected hangs on the root', async () => {
    const { garden, map } = plot()
    stage(garden, map).onPaste(clipboard({ 'text/plain': 'Winter' }).event)
    await expect.poll(() => garden.text(map)).toMatch(/\n {2}- Winter$/)
  })

  test('reads structure where there is some, else line by line', async () => {
    const texts = async (contents: Parameters<typeof itemsOf>[0]) =>
      (await itemsOf(contents)).map(({ text, children }) => [text, children.map((child) => child.text)])
    const html = '<ul><li>Spring<ul><li>Dig</li></ul></li></ul>'
    expect(await texts({ html, text: 'Spring Dig' })).toEqual([['Spring', ['Dig']]])
    expect(await texts({ html: '', text: 'Spring\n  Dig' })).toEqual([['Spring', ['Dig']]])
  })
})
