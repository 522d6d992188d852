import { endpoint } from '../../../server/http/endpoint'
import { serveSite } from '../../../server/publications/serve-site'

/** The published sites, open to anyone. */
export const GET = endpoint({
  access: 'anyone',
  async handle({ request, url, params }) {
    const address = params.address ?? ''
    // Relative links need the slash after the address.
    if (params.path === undefined && !url.pathname.endsWith('/'))
      return new Response(null, { status: 308, headers: { Location: `${url.pathname}/` } })
    return serveSite(request, address, params.path ?? '')
  },
})
