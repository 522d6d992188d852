import { lookup as resolve } from 'node:dns'
import type { LookupFunction } from 'node:net'
import ipaddr from 'ipaddr.js'

/** An address that lies in the network of this server: nobody may have it asked on their behalf. */
export class OwnNetwork extends Error {
  constructor() {
    super('It lies in the server’s own network, and is not asked.')
  }
}

/** Whether an address is one that anybody on the internet could reach: none of the ranges that IANA keeps for other purposes. */
function isPublic(address: string): boolean {
  return ipaddr.isValid(address) && ipaddr.process(address).range() === 'unicast'
}

/** Hosts, with their port, in the server's own network that may be asked all the same: `FOLVET_OWN_NETWORK=calendar.lan:5232,…`. */
const NAMED = new Set((process.env.FOLVET_OWN_NETWORK ?? '').split(',').filter(Boolean))

/**
 * How a host is looked up for a request to the outside. What the name leads to is checked where the connection is made, so that it cannot
 * lead elsewhere a moment later. Throws OwnNetwork for a host given by a number that is not public.
 */
export function lookupFor({ hostname, host }: URL, named: ReadonlySet<string> = NAMED): LookupFunction {
  const isNamed = named.has(host)
  const bare = hostname.replace(/^\[|\]$/g, '')
  if (!isNamed && ipaddr.isValid(bare) && !isPublic(bare)) throw new OwnNetwork()
  return (name, options, callback) =>
    resolve(name, { ...options, all: true }, (error, found) => {
      const open = found?.filter(({ address }) => isNamed || isPublic(address)) ?? []
      const [first] = open
      if (error || !first) callback(error ?? new OwnNetwork(), '', 0)
      else if (options.all) callback(null, open)
      else callback(null, first.address, first.family)
    })
}
