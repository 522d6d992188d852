import { ColorInput, type ColorInputProps } from '@mantine/core'
import { useRef } from 'react'
import { Colour } from '../../../core/records/look'
import { type Reading, useWritten } from './use-written'

interface Props extends Omit<ColorInputProps, 'value' | 'onChange' | 'onChangeEnd' | 'error'> {
  value: Colour | null
  take(colour: Colour | null): void
}

/** A colour as somebody writes it: `#ffd166`, `FFD166`, `#fd6`. */
function readColour(text: string): Reading<Colour | null> {
  const digits = text.trim().replace(/^#/, '').toLowerCase()
  if (digits === '') return { value: null }
  const whole = /^[0-9a-f]{3}$/.test(digits) ? digits.replaceAll(/./g, '$&$&') : digits
  const colour = Colour.safeParse(`#${whole}`)
  return colour.success ? { value: colour.data } : { problem: 'Write it as #ffd166.' }
}

/** A colour: written, or chosen from what is offered, a field of colours, or the screen. */
export function ColourField({ value, take, ...others }: Props) {
  const written = useWritten({
    shown: value ?? '',
    read: readColour,
    take: (colour) => colour !== value && take(colour),
  })
  const isTyping = useRef(false)
  const choose = (picked: string) => {
    // Told of each letter that makes a colour as well: those wait until the field is left.
    if (isTyping.current) return
    const reading = readColour(picked)
    if ('value' in reading) written.choose(reading.value)
  }
  return (
    <div
      onInputCapture={() => {
        isTyping.current = true
        // After all that hears of this letter.
        setTimeout(() => {
          isTyping.current = false
        })
      }}
    >
      <ColorInput
        autoComplete="off"
        {...others}
        fixOnBlur={false}
        value={written.text}
        error={written.problem}
        onChange={written.write}
        onChangeEnd={choose}
        onBlur={written.commit}
        onKeyDown={written.onKeyDown}
        eyeDropperButtonProps={{
          'aria-label': `Take a colour from the screen: ${others['aria-label'] ?? others.label}`,
        }}
      />
    </div>
  )
}
