import { endpoint } from '../../../server/http/endpoint'
import { json } from '../../../server/http/reply'
import { keepSettings, SettingsAsked, settingsOf } from '../../../server/people/settings'

/** What the person who asks has set for themselves. */
export const GET = endpoint({ access: 'person', handle: async ({ who }) => json(200, await settingsOf(who.id)) })

/** Keeps it, in the place of what was set before. */
export const PUT = endpoint({
  access: 'person',
  body: SettingsAsked,
  async handle({ who, body }) {
    await keepSettings(who.id, body)
    return json(200, body)
  },
})
