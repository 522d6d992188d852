import { parseArgs } from 'node:util'
import { isNearly } from '../core/text/nearly'

/** What the command line can be asked to do. */
const JOBS = ['import', 'export', 'publish', 'check', 'split', 'compare', 'demo'] as const

const OPTIONS = {
  out: { type: 'string' },
  collection: { type: 'string' },
  title: { type: 'string' },
  owner: { type: 'string' },
  json: { type: 'boolean', default: false },
  help: { type: 'boolean', short: 'h', default: false },
} as const

/** A call as it was understood, or, in a sentence, why it was not. */
export type Asked = ReturnType<typeof parsed> | { problem: string }

const parsed = (args: readonly string[]) => parseArgs({ args: [...args], allowPositionals: true, options: OPTIONS })

const perhaps = (written: string, known: readonly string[], before = ''): string => {
  const meant = known.find((name) => name.startsWith(written) || written.startsWith(name) || isNearly(written, name))
  return meant ? ` Did you mean ${before}${meant}?` : ''
}

/** Reads what was written after `folvet`. */
export function readArguments(args: readonly string[]): Asked {
  try {
    const asked = parsed(args)
    const [job] = asked.positionals
    const isKnown = job === undefined || JOBS.some((known) => known === job)
    return isKnown ? asked : { problem: `There is no job ${job}.${perhaps(job, JOBS)}` }
  } catch (error) {
    return { problem: wordsFor(error) }
  }
}

/** What is wrong with an option, in words. */
function wordsFor(error: unknown): string {
  if (!(error instanceof TypeError)) throw error
  const code = 'code' in error ? error.code : ''
  const option = /'(-[^' ]*)/.exec(error.message)?.[1] ?? ''
  if (code === 'ERR_PARSE_ARGS_UNKNOWN_OPTION')
    return `There is no option ${option}.${perhaps(option.replace(/^-+/, ''), Object.keys(OPTIONS), '--')}`
  if (code === 'ERR_PARSE_ARGS_INVALID_OPTION_VALUE')
    return `The option ${/--[\w-]+/.exec(error.message)?.[0] ?? option} is not written like this: ${error.message}`
  throw error
}
