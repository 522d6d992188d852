import { find, findBehind } from '../../../../server/find'
import { endpoint } from '../../../../server/http/endpoint'

export const GET = endpoint({
  access: 'reader of a map',
  cost: 10,
  async handle({ who, url }) {
    const words = (url.searchParams.get('words') ?? '').trim().slice(0, 200).replaceAll('\u0000', '')
    if (words === '') return []
    return url.searchParams.has('behind') ? findBehind(who, words) : find(who, words)
  },
})
