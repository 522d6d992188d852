import { endpoint } from '../../../server/http/endpoint'
import { serveSite } from '../../../server/publications/serve-site'

/** The published sites, open to anyone. */
export const GET = endpoint({
  access: 'anyone',
  async handle({ asked, url, params }) {
    const address = params.address ?? ''
    // Relative links need the slash after the address.
    if (params.path === undefined && !url.pathname.endsWith('/'))
      return { status: 308, headers: { Location: `${url.pathname}/` }, body: null }
    return serveSite(asked, address, params.path ?? '')
  },
})
