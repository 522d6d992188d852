import { afterEach, expect, test, vi } from 'vitest'

/** The module as a server with this key loads it. */
async function sealing(key?: string) {
  vi.resetModules()
  vi.stubEnv('FOLVET_KEY', key)
  return import('../../src/server/outgoing/sealed')
}
const [KEY, OTHER] = ['a key of thirty-two characters 1', 'a key of thirty-two characters 2']
afterEach(() => void vi.unstubAllEnvs())

test('words that are sealed open with the key, for what they belong to, and nowhere else', async () => {
  const { isSealed, seal, unseal } = await sealing(KEY)
  for (const words of ['so secret', 'pässwörd ✓', 'x'.repeat(500), 'sealed1:no']) {
    const stored = seal(words, 'calendar 1')
    expect(isSealed(stored)).toBe(true)
    expect(stored).not.toContain(words.slice(0, 9))
    expect(unseal(stored, 'calendar 1')).toBe(words)
    expect(unseal(stored, 'calendar 2')).toBeNull()
    // Twice the same is not seen to be the same.
    expect(seal(words, 'calendar 1')).not.toBe(stored)
    for (const damaged of [stored.slice(0, -2), `${stored}AA`, stored.slice(0, 20), 'sealed1:', 'plain', ''])
      expect(unseal(damaged, 'calendar 1')).toBeNull()
    const { unseal: withOther } = await sealing(OTHER)
    expect(withOther(stored, 'calendar 1')).toBeNull()
  }
  expect(seal('', 'calendar 1')).toBe('')
})

test('without a key nothing is sealed, and one that is short is none', async () => {
  const { canSeal, seal, unseal } = await sealing()
  expect(canSeal).toBe(false)
  expect(() => seal('so secret', 'calendar 1')).toThrow('no key')
  expect(unseal('sealed1:AAAA', 'calendar 1')).toBeNull()
  await expect(sealing('short')).rejects.toThrow('at least 32 characters')
})
