import { z } from 'zod'
import { create } from 'zustand'
import {
  type PersonalSettings,
  PLAIN_SETTINGS,
  type Reading,
  type ReadingFont,
  readSettings,
} from '../../core/personal/settings'
import { ask, tellTrouble } from './api'

/** Under what the settings are kept in the browser, so that they hold before the server has told them. */
const KEPT = 'folvet-settings'
/** So long after the last change they are sent, in ms. */
const SEND_AFTER_MS = 600

/** The style sheet's names of the fonts for reading. */
const FAMILIES: Record<ReadingFont, string> = {
  reading: 'var(--reading-font)',
  plain: 'var(--interface-font)',
  hand: 'var(--hand-font)',
  distinct: '"OpenDyslexic", var(--interface-font)',
}

function kept(): PersonalSettings {
  try {
    return readSettings(JSON.parse(localStorage.getItem(KEPT) ?? '{}'))
  } catch {
    return PLAIN_SETTINGS
  }
}

const usePersonal = create<{ settings: PersonalSettings }>(() => ({
  settings: typeof window === 'undefined' ? PLAIN_SETTINGS : kept(),
}))

/** What whoever is here has set for themselves, now: for handlers and for what is not drawn anew by it. */
export const settingsNow = (): PersonalSettings => usePersonal.getState().settings

/** The same, or a part of it, drawn anew when it changes. */
export const usePersonalSettings = <Part>(part: (settings: PersonalSettings) => Part): Part =>
  usePersonal(({ settings }) => part(settings))

/** Has notes, pages and outlines look as they are read, and what moves move as little as asked. */
export function applySettings({ reading, motion }: Pick<PersonalSettings, 'reading' | 'motion'>): void {
  const { style, dataset } = document.documentElement
  for (const [name, value] of Object.entries(readingVariables(reading))) style.setProperty(name, value)
  if (motion === 'less') dataset.motion = 'less'
  else delete dataset.motion
}

/** The variables of the style sheets in which text is read. */
export const readingVariables = ({ font, size, line, letters, width }: Reading): Record<string, string> => ({
  '--text-font': FAMILIES[font],
  '--text-size': `${size}px`,
  '--text-line': String(line),
  '--text-letters': letters === 0 ? 'normal' : `${letters}em`,
  '--text-width': `${width}px`,
  // An outline is set as the application, as long as nobody wants it otherwise.
  '--outline-font': font === 'reading' ? FAMILIES.plain : FAMILIES[font],
})

function take(settings: PersonalSettings): void {
  usePersonal.setState({ settings })
  applySettings(settings)
  try {
    localStorage.setItem(KEPT, JSON.stringify(settings))
  } catch {
    // A browser that keeps nothing asks the server each time.
  }
}

/** How often something was set here. */
let changes = 0
let timer: ReturnType<typeof setTimeout> | undefined

const send = (): Promise<unknown> =>
  ask(z.unknown(), '/api/me/settings', { method: 'PUT', body: settingsNow(), outlivesPage: true }).catch(tellTrouble)

/** Sets something; it holds at once, here and soon on every computer of this person. */
export function changeSettings(part: Partial<PersonalSettings>): void {
  changes++
  take({ ...settingsNow(), ...part })
  clearTimeout(timer)
  timer = setTimeout(() => {
    timer = undefined
    void send()
  }, SEND_AFTER_MS)
}

/** Sends at once what waits to be sent, where a page is left. */
export function flushSettings(): void {
  if (timer === undefined) return
  clearTimeout(timer)
  timer = undefined
  void send()
}

/** Takes over what the server knows of whoever is here, unless they have set something meanwhile. */
export async function fetchSettings(): Promise<void> {
  const before = changes
  // What this browser does not know, such as a time zone, is as for who has set nothing.
  const told = readSettings(await ask(z.unknown(), '/api/me/settings'))
  if (changes === before) take(told)
}
