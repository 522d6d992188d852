import { join } from 'node:path'
import sirv from 'sirv'
import { root } from './setup/dependencies.mjs'

/**
 * The process that serves the built application: files of the build from a list read once, everything else by the
 * application. Told by HOST, PORT and DATABASE_URL; SIGTERM lets running requests finish.
 */
const { serverWith } = await import(join(root, 'dist', 'server', 'entry.mjs'))
const files = sirv(join(root, 'dist', 'client'), {
  gzip: true,
  setHeaders(response, path) {
    // Names below _astro tell the content; the rest may change with the next build.
    response.setHeader(
      'Cache-Control',
      path.startsWith('/_astro/') ? 'public, max-age=31536000, immutable' : 'no-cache',
    )
    response.setHeader('X-Content-Type-Options', 'nosniff')
  },
})

const server = serverWith(files)
server.listen(Number(process.env.PORT), process.env.HOST ?? '127.0.0.1')

process.on('SIGTERM', () => {
  server.close(() => process.exit(0))
  server.closeIdleConnections()
  // Change streams stay open for ever: whoever listens comes back by itself.
  setTimeout(() => process.exit(0), 1_500).unref()
})
