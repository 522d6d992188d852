import { health } from '../server/health'
import { endpoint, json } from '../server/http/endpoint'

export const GET = endpoint({
  access: 'anyone',
  async handle() {
    const state = await health()
    return json(state.ok ? 200 : 503, state)
  },
})
