/** Why a change cannot be committed, in words for the person who made it. */
export interface Problem {
  /** `unread`: what was reworded is not the text that is there; sent with the whole text it can be done. */
  code: 'gone' | 'exists' | 'invalid' | 'reference' | 'loop' | 'root' | 'doorway' | 'forbidden' | 'moved' | 'unread'
  message: string
}

export class Refusal extends Error {
  constructor(readonly problem: Problem) {
    super(problem.message)
  }
}

export function refuse(code: Problem['code'], message: string): never {
  throw new Refusal({ code, message })
}
