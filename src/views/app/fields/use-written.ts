import { type KeyboardEvent, useEffect, useRef, useState } from 'react'

/** What a text says: a value, or in a sentence why it says none. */
export type Reading<Value> = { value: Value } | { problem: string }

interface Asked<Value> {
  /** What the field shows as long as nobody writes in it. */
  shown: string
  read(text: string): Reading<Value>
  take(value: Value): void
}

/**
 * The state of a field that keeps what is half written. It is taken whole when the field is left or Enter is pressed; where it says
 * nothing, the text stays, with the reason. Escape gives up what was written.
 */
export function useWritten<Value>({ shown, read, take }: Asked<Value>) {
  const [text, setText] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  /** Takes what is written; false where it says nothing. */
  const commit = (): boolean => {
    if (text === null) return true
    const reading = text === shown ? null : read(text)
    if (reading && 'problem' in reading) {
      setProblem(reading.problem)
      return false
    }
    setText(null)
    setProblem(null)
    if (reading) take(reading.value)
    return true
  }
  const leave = useRef(commit)
  leave.current = commit
  // Also where the field goes while somebody writes in it.
  useEffect(() => () => void leave.current(), [])
  return {
    text: text ?? shown,
    problem,
    isWriting: text !== null,
    write: (next: string) => {
      setText(next)
      setProblem(null)
    },
    /** Takes a value that was chosen instead of written. */
    choose: (value: Value) => {
      setText(null)
      setProblem(null)
      take(value)
    },
    commit,
    onKeyDown: (event: KeyboardEvent) => {
      // What says nothing is not handed on by the form around it either.
      if (event.key === 'Enter' && !event.nativeEvent.isComposing && !commit()) event.preventDefault()
      else if (event.key === 'Escape' && text !== null) {
        event.stopPropagation()
        setText(null)
        setProblem(null)
      }
    },
  }
}
