import { isCommandName } from '../../../../../server/commands/compute'
import { CommandAsked } from '../../../../../server/commands/run-command'
import { inThread } from '../../../../../server/heavy/heavy'
import { endpoint } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'

/** Commands that read more of the collection than a browser holds. */
export const POST = endpoint({
  access: 'editor of a map',
  body: CommandAsked,
  cost: 50,
  async handle({ who, params, body }) {
    const name = params.command ?? ''
    if (!isCommandName(name)) throw new Failure(404, 'There is no such command.')
    return inThread('runCommand', who, name, body)
  },
})
