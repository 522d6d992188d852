import fc from 'fast-check'
import { expect, test } from 'vitest'
import { PersonalSettings, PLAIN_SETTINGS, readSettings } from '../../../src/core/personal/settings'

test('settings come back as they were stored', () => {
  const own: PersonalSettings = {
    ...PLAIN_SETTINGS,
    scheme: 'dark',
    reading: { font: 'distinct', size: 20, line: 2, letters: 0.1, width: 900 },
    typing: 'instead',
    weekBegins: 0,
    keys: { note: 'Alt+e' },
  }
  expect(readSettings(JSON.parse(JSON.stringify(own)))).toEqual(own)
})

test('what is not understood is as for who has set nothing, and the rest holds', () => {
  expect(readSettings({ scheme: 'sepia', typing: 'instead', extra: 1 })).toEqual({
    ...PLAIN_SETTINGS,
    typing: 'instead',
  })
  expect(readSettings({ timeZone: 'Nowhere/Bog', dateLanguage: 'not_a_language', typing: 'instead' })).toEqual({
    ...PLAIN_SETTINGS,
    typing: 'instead',
  })
  expect(readSettings({ timeZone: 'Europe/Berlin' }).timeZone).toBe('Europe/Berlin')
  expect(readSettings({ reading: { ...PLAIN_SETTINGS.reading, size: 900 } })).toEqual(PLAIN_SETTINGS)
})

test('whatever was stored, it is read', () => {
  fc.assert(
    fc.property(fc.anything(), (stored) => {
      expect(PersonalSettings.safeParse(readSettings(stored)).success).toBe(true)
    }),
  )
})
