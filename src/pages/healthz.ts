import { health } from '../server/health'
import { endpoint } from '../server/http/endpoint'
import { json } from '../server/http/reply'

export const GET = endpoint({
  access: 'anyone',
  async handle() {
    const state = await health()
    return json(state.ok ? 200 : 503, state)
  },
})
