import { endpoint } from '../../../../../server/http/endpoint'
import { Failure } from '../../../../../server/http/failure'
import { CommandAsked, isCommandName, runCommand } from '../../../../../server/run-command'

/** Commands that read more of the collection than a browser holds. */
export const POST = endpoint({
  access: 'editor',
  body: CommandAsked,
  cost: 50,
  async handle({ who, params, body }) {
    const name = params.command ?? ''
    if (!isCommandName(name)) throw new Failure(404, 'There is no such command.')
    return runCommand(who, name, body)
  },
})
