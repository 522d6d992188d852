/** An answer that tells what happened and what to do. Anything else that is thrown is a fault of ours. */
export class Failure extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}
