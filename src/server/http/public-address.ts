import { isIP } from 'node:net'

/** Where people reach this server, when it stands behind a proxy: `FOLVET_ADDRESS`, such as `https://maps.example`. */
const address = process.env.FOLVET_ADDRESS ? new URL(process.env.FOLVET_ADDRESS) : null

/**
 * Whether a Host header names this server. A name that somebody else lets resolve to this machine is not ours, so that
 * no page from elsewhere can talk to it under a name of its own; an address in numbers cannot be lent like that.
 */
export function isOurHost(host: string): boolean {
  if (address && host === address.host) return true
  const name = /^(\[[^\]]*\]|[^:]*)(?::\d+)?$/.exec(host)?.[1]?.toLowerCase()
  if (!name) return false
  return name === 'localhost' || isIP(name.replace(/^\[|\]$/g, '')) !== 0
}

export const isSecure = (host: string): boolean => address?.protocol === 'https:' && host === address.host

/** Whether the server is started so that only this computer reaches it. */
export const listensOnLoopback = (): boolean => !address && isLoopback(process.env.HOST ?? '127.0.0.1')

const isLoopback = (host: string): boolean => /^(127\.|localhost$|::1$|::ffff:127\.)/.test(host)

/**
 * From where a request came: the address at the far end of its connection or, behind a proxy on this machine, the one
 * that the proxy itself added last. What stands before that anybody can write.
 */
export function networkAddress(peer: string | undefined, forwarded: string | null): string {
  const near = peer ?? 'unknown'
  if (!address || !forwarded || !isLoopback(near)) return near
  return forwarded.split(',').at(-1)!.trim().slice(0, 100)
}
