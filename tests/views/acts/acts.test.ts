import { describe, expect, test } from 'vitest'
import { ACTS, keyName, mostDone, readableKey, sectionsOf } from '../../../src/views/acts/acts'
import type { CollectionSession } from '../../../src/views/sync/collection-session'
import { GROUPS, type Pane } from '../../../src/views/workspace/workspace-store'
import { Garden } from '../../core/gardens'

const press = (key: string, change: Partial<Parameters<typeof keyName>[0]> = {}) =>
  keyName({ key, code: '', ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...change })

describe('keys', () => {
  test('are named with their modifiers in one order; Command counts as Ctrl', () => {
    expect(press('z', { ctrlKey: true })).toBe('Ctrl+z')
    expect(press('Z', { metaKey: true, shiftKey: true })).toBe('Ctrl+Shift+z')
    expect(press('Tab', { shiftKey: true })).toBe('Shift+Tab')
    expect(press('A', { shiftKey: true })).toBe('a')
    expect(press(' ')).toBe(' ')
  })

  test('with Alt are told by their place, whatever letter a system types', () => {
    expect(press('ƒ', { altKey: true, code: 'KeyF' })).toBe('Alt+f')
    expect(press('¡', { altKey: true, code: 'Digit1' })).toBe('Alt+1')
    expect(press('ArrowUp', { altKey: true, code: 'ArrowUp' })).toBe('Alt+ArrowUp')
  })

  test('are read as a person reads them', () => {
    expect(['Ctrl+Shift+z', 'Alt+ArrowUp', ' '].map(readableKey)).toEqual(['Ctrl + Shift + Z', 'Alt + ↑', 'Space'])
  })
})

describe('acts', () => {
  test('have a name for code of their own, and no key means two things at once', () => {
    expect(new Set(ACTS.map(({ id }) => id)).size).toBe(ACTS.length)
    const keys = ACTS.flatMap((act) => act.keys)
    expect(keys.filter((key, i) => keys.indexOf(key) !== i)).toEqual([])
  })

  test('leave every plain letter and digit for writing', () => {
    for (const key of ACTS.flatMap((act) => act.keys)) expect(key).not.toMatch(/^[a-z0-9]$/i)
  })
})

describe('panels', () => {
  const situation = (topics: readonly string[]) => {
    const garden = new Garden()
    const map = garden.grow('Garden\n- Bed\n  - Rose\n- Path')
    return {
      session: {
        records: garden.records,
        mayEdit: true,
        steps: () => [],
      } as unknown as CollectionSession,
      pane: { map, face: 'map', only: null } as unknown as Pane,
      index: 0,
      topics: topics.map((text) => garden.records.need('topic', garden.topic(text))),
    }
  }
  const why = (id: string, topics: readonly string[]) => ACTS.find((act) => act.id === id)!.whyNot(situation(topics))

  test('hold every act once, below a heading', () => {
    const listed = [...GROUPS, 'view' as const].flatMap((group) => sectionsOf(group).flatMap(({ acts }) => acts))
    expect(listed).toEqual(ACTS)
  })

  test('say in a sentence why something cannot be done', () => {
    expect(why('split-off', ['Bed'])).toBe(null)
    expect(why('split-off', ['Path'])).toBe('Nothing hangs below it.')
    expect(why('split-off', [])).toBe('Select a topic first.')
    expect(why('split-off', ['Bed', 'Path'])).toBe('Select one topic only.')
    expect(why('join', ['Bed'])).toBe('Select two topics or more.')
    expect(why('delete', ['Garden'])).toMatch(/keeps its root/)
    for (const act of ACTS)
      for (const topics of [[], ['Garden'], ['Bed', 'Path']]) {
        const reason = act.whyNot(situation(topics))
        if (reason !== null) expect(reason, act.id).toMatch(/^[A-Z].*\.$/)
      }
  })

  test('leave at most seven rows to the menu of a topic, and five to the groups', () => {
    for (const topics of [['Garden'], ['Bed'], ['Rose'], ['Bed', 'Path']])
      expect(mostDone(situation(topics)).length).toBeLessThanOrEqual(7)
  })
})
