const POLICY = [
  "default-src 'none'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
]

/**
 * Sets the headers that every response carries. Astro's own `script-src`, with the hashes of its inline scripts, is
 * kept; a response that sets a stricter policy of its own, as files and published sites do, keeps that.
 */
export function secure(response: Response): Response {
  const { headers } = response
  const existing = headers.get('Content-Security-Policy') ?? ''
  if (!existing.includes('sandbox')) {
    const scripts = /script-src [^;]+/.exec(existing)?.[0] ?? "script-src 'self'"
    headers.set('Content-Security-Policy', [...POLICY, scripts].join('; '))
  }
  headers.set('X-Content-Type-Options', 'nosniff')
  headers.set('Referrer-Policy', 'same-origin')
  headers.set('Cross-Origin-Opener-Policy', 'same-origin')
  if (!headers.has('Cross-Origin-Resource-Policy')) headers.set('Cross-Origin-Resource-Policy', 'same-origin')
  headers.set('X-Frame-Options', 'DENY')
  return response
}

/** Whether a write comes from our own pages. A browser always tells where from; a program may leave it out. */
export function fromOurPages(request: Request, host: string): boolean {
  if (request.method === 'GET' || request.method === 'HEAD' || request.method === 'OPTIONS') return true
  const origin = request.headers.get('origin')
  if (origin === null)
    return request.headers.get('sec-fetch-site') === null || request.headers.get('sec-fetch-site') === 'same-origin'
  try {
    return new URL(origin).host === host
  } catch {
    return false
  }
}
