import { TextInput, type TextInputProps } from '@mantine/core'
import { LONGEST_TIME, readTime } from '../../../core/dates/read-day'
import { type Reading, useWritten } from './use-written'

interface Props extends Omit<TextInputProps, 'value' | 'onChange' | 'error'> {
  /** As `14:05`; null where there is none. */
  value: string | null
  take(time: string | null): void
}

/** A time of day, written with or without a colon, or with am and pm. */
export function TimeField({ value, take, ...others }: Props) {
  const read = (text: string): Reading<string | null> => {
    if (text.trim() === '') return { value: null }
    const time = readTime(text)
    return time === null ? { problem: 'Write it as 14:05.' } : { value: time }
  }
  const written = useWritten({ shown: value ?? '', read, take: (time) => time !== value && take(time) })
  return (
    <TextInput
      placeholder="14:05"
      autoComplete="off"
      maxLength={LONGEST_TIME}
      {...others}
      value={written.text}
      error={written.problem}
      onChange={(event) => written.write(event.currentTarget.value)}
      onBlur={written.commit}
      onKeyDown={written.onKeyDown}
    />
  )
}
