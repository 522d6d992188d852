import { PersonalSettings, readSettings } from '../../core/personal/settings'
import { database } from '../database'

/** What is asked to be kept. */
export const SettingsAsked = PersonalSettings

/** What somebody has set for themselves. */
export async function settingsOf(person: string): Promise<PersonalSettings> {
  const { rows } = await database().query<{ settings: unknown }>('SELECT settings FROM person WHERE id = $1', [person])
  return readSettings(rows[0]?.settings)
}

export async function keepSettings(person: string, settings: PersonalSettings): Promise<void> {
  await database().query('UPDATE person SET settings = $2 WHERE id = $1', [person, JSON.stringify(settings)])
}
