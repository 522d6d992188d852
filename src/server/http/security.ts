import type { Asked } from './asked'
import type { Reply } from './reply'

const POLICY = [
  "default-src 'none'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self'",
  "media-src 'self'",
  "connect-src 'self'",
  "worker-src 'self'",
  "base-uri 'none'",
  "form-action 'self'",
  "frame-ancestors 'none'",
].join('; ')

const ALWAYS = {
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'same-origin',
  'Cross-Origin-Opener-Policy': 'same-origin',
  'X-Frame-Options': 'DENY',
}

/**
 * An answer with the headers that every one carries. The framework's own `script-src`, with the hashes of its inline
 * scripts, is kept; an answer that sets a stricter policy of its own, as files and published sites do, keeps that.
 */
export function secured(reply: Reply): Reply {
  const { 'content-security-policy': framework = '', ...rest } = reply.headers
  const headers: Record<string, string> = { 'Cross-Origin-Resource-Policy': 'same-origin', ...rest, ...ALWAYS }
  if (!rest['Content-Security-Policy'])
    headers['Content-Security-Policy'] = `${POLICY}; ${/script-src [^;]+/.exec(framework)?.[0] ?? "script-src 'self'"}`
  return { ...reply, headers }
}

/** Whether a write comes from our own pages. A browser always tells where from; a program may leave it out. */
export function fromOurPages(asked: Asked): boolean {
  if (asked.isReading) return true
  const origin = asked.header('origin')
  const site = asked.header('sec-fetch-site')
  if (origin === null) return site === null || site === 'same-origin'
  return URL.canParse(origin) && new URL(origin).host === asked.header('host')
}
