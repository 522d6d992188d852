/** Something that the person who starts Folvet can put right; shown as one sentence, without a stack. */
export class Trouble extends Error {}

export const say = (text) => process.stdout.write(`${text}\n`)

/** Runs a script's main function; trouble ends it with a sentence, anything else with its stack. */
export async function main(work) {
  try {
    await work()
  } catch (error) {
    process.stderr.write(error instanceof Trouble ? `${error.message}\n` : `${error?.stack ?? error}\n`)
    process.exit(1)
  }
}
