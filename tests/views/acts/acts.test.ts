import { describe, expect, test } from 'vitest'
import { ACTS, keyName, readableKey } from '../../../src/views/acts/acts'

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
