import { defineMiddleware } from 'astro:middleware'
import { json } from './server/http/endpoint'
import { fromOurPages, secure } from './server/http/security'
import { personOfSession, tokenFrom } from './server/people/sessions'

/** Every request: whose session it is, whether a write comes from our own pages, and the headers of the answer. */
export const onRequest = defineMiddleware(async ({ request, url, locals }, next) => {
  if (!fromOurPages(request, request.headers.get('host') ?? url.host))
    return secure(json(403, { error: 'This request comes from another site and was not carried out.' }))
  const token = tokenFrom(request.headers.get('cookie'))
  locals.person = token ? await personOfSession(token).catch(() => null) : null
  return secure(await next())
})
