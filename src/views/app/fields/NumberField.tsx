import { NumberInput, type NumberInputProps } from '@mantine/core'
import { type Reading, useWritten } from './use-written'

interface Props extends Omit<NumberInputProps, 'value' | 'onChange' | 'error' | 'min' | 'max'> {
  value: number | null
  min: number
  max: number
  /** Null where the field was emptied and may be; else an empty one goes back to what it held. */
  take(number: number | null): void
}

/** A number between two bounds, with a comma or a point. */
export function NumberField({ value, min, max, take, ...others }: Props) {
  const read = (text: string): Reading<number | null> => {
    if (text.trim() === '') return { value: null }
    const number = Number(text)
    return Number.isFinite(number) && number >= min && number <= max
      ? { value: number }
      : { problem: `From ${min} to ${max}.` }
  }
  const written = useWritten({
    shown: value === null ? '' : String(value),
    read,
    take: (number) => number !== value && take(number),
  })
  return (
    <NumberInput
      allowedDecimalSeparators={['.', ',']}
      clampBehavior="none"
      {...others}
      min={min}
      max={max}
      value={written.text}
      error={written.problem}
      onChange={(number) => written.write(String(number))}
      onBlur={written.commit}
      onKeyDown={written.onKeyDown}
    />
  )
}
