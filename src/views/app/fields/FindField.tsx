import { TextInput, type TextInputProps } from '@mantine/core'
import { IconSearch } from '@tabler/icons-react'

interface Props extends Omit<TextInputProps, 'value' | 'onChange'> {
  /** What is found with it; also what stands in it as long as it is empty, unless that is given. */
  label?: string
  words: string
  setWords(words: string): void
}

/** Narrows what is listed down by words. */
export const FindField = ({ label = 'Find among these', words, setWords, ...more }: Props) => (
  <TextInput
    aria-label={label}
    placeholder={label}
    leftSection={<IconSearch size={18} aria-hidden />}
    maw={420}
    value={words}
    onChange={(event) => setWords(event.currentTarget.value)}
    {...more}
  />
)
