import { Button, Group, SegmentedControl, Select, Slider, Stack, Switch, Text, Title } from '@mantine/core'
import { type CSSProperties, useState } from 'react'
import { PLAIN_SETTINGS, READING_BOUNDS, ReadingFont } from '../../core/personal/settings'
import type { Situation } from '../acts/act'
import { Modal } from '../app/Modal'
import { changeSettings, readingVariables, usePersonalSettings } from '../app/personal'
import { daysInWords } from '../app/when'
import { OwnKeys } from './OwnKeys'
import styles from './settings.module.css'

const FONTS: Record<ReadingFont, string> = {
  reading: 'Literata, for reading',
  plain: 'Source Sans, as the application',
  hand: 'Kalam, as by hand',
  distinct: 'OpenDyslexic, letters that differ',
}

/** Whole names of the first days of weeks. */
const WEEK_BEGINS = { '': 'As in your language', 1: 'Monday', 0: 'Sunday', 6: 'Saturday' }

/** Languages in which days can be written; the browser knows them all. */
const LANGUAGES = [
  'en-GB',
  'en-US',
  'de',
  'fr',
  'es',
  'it',
  'nl',
  'pt',
  'pl',
  'cs',
  'sv',
  'da',
  'nb',
  'fi',
  'ja',
  'zh',
  'ko',
  'ar',
  'he',
]

const named = (language: string): string =>
  `${new Intl.DisplayNames([language], { type: 'language' }).of(language) ?? language}: ${daysInWords(
    { day: 'numeric', month: 'long', year: 'numeric' },
    language,
  )('2027-03-15')}`

/** What somebody sets for themselves: it holds at once, on every computer of theirs, and alters no map. */
export default function SettingsDialog({
  onClose,
  situation,
}: {
  onClose(): void
  /** Where they are opened over a map: its acts have keys. */
  situation?: Situation
}) {
  const settings = usePersonalSettings((all) => all)
  const { reading } = settings
  const read = (part: Partial<typeof reading>) => changeSettings({ reading: { ...reading, ...part } })
  const [showsKeys, setShowsKeys] = useState(false)
  const bounded = (field: keyof typeof READING_BOUNDS, label: string, say: (value: number) => string) => {
    const { least, most, step } = READING_BOUNDS[field]
    return (
      <div>
        <Text size="sm" id={`reading-${field}`}>
          {label}: {say(reading[field])}
        </Text>
        <Slider
          aria-labelledby={`reading-${field}`}
          thumbLabel={label}
          min={least}
          max={most}
          step={step}
          label={say}
          value={reading[field]}
          onChange={(value) => read({ [field]: Number(value.toFixed(2)) })}
        />
      </div>
    )
  }
  return (
    <Modal opened onClose={onClose} title="Personal settings" size={860}>
      <div className={styles.columns}>
        <Stack gap="sm">
          <Title order={3} size="h5">
            Reading
          </Title>
          <Text size="sm" c="dimmed">
            For notes, pages and outlines, whatever the look of a map is.
          </Text>
          <Select
            label="Font"
            data-autofocus
            allowDeselect={false}
            data={ReadingFont.options.map((value) => ({ value, label: FONTS[value] }))}
            value={reading.font}
            onChange={(font) => read({ font: ReadingFont.parse(font) })}
          />
          {bounded('size', 'Size', (value) => `${value} px`)}
          {bounded('line', 'From line to line', (value) => `${value.toFixed(1)} of the size`)}
          {bounded('letters', 'Between letters', (value) =>
            value === 0 ? 'as the font has it' : `${Math.round(value * 100)} % more`,
          )}
          {bounded('width', 'Width of a column', (value) => `${value} px`)}
          <p className={styles.sample} style={readingVariables(reading) as CSSProperties}>
            Every four weeks the dipwells are read, in the order of the path, and what stands in them is written down to
            the centimetre.
          </p>
          <Button
            variant="default"
            size="compact-sm"
            mr="auto"
            onClick={() => changeSettings({ reading: PLAIN_SETTINGS.reading })}
          >
            As it was at first
          </Button>
        </Stack>
        <Stack gap="sm">
          <Title order={3} size="h5">
            Screen
          </Title>
          <SegmentedControl
            aria-label="Light or dark"
            value={settings.scheme}
            data={[
              { value: 'auto', label: 'As the system' },
              { value: 'light', label: 'Light' },
              { value: 'dark', label: 'Dark' },
            ]}
            onChange={(scheme) => changeSettings({ scheme: scheme as typeof settings.scheme })}
          />
          <Switch
            label="Move less: no glides, no fades"
            checked={settings.motion === 'less'}
            onChange={(event) => changeSettings({ motion: event.currentTarget.checked ? 'less' : 'auto' })}
          />
          <Switch
            label="Plus signs at the selected topic"
            checked={settings.plusSigns}
            onChange={(event) => changeSettings({ plusSigns: event.currentTarget.checked })}
          />
          <div>
            <Text size="sm" id="typing-label">
              A letter typed on a selected topic
            </Text>
            <SegmentedControl
              fullWidth
              aria-labelledby="typing-label"
              value={settings.typing}
              data={[
                { value: 'behind', label: 'goes on behind its words' },
                { value: 'instead', label: 'takes their place' },
              ]}
              onChange={(typing) => changeSettings({ typing: typing as typeof settings.typing })}
            />
            <Text size="sm" c="dimmed" mt={4}>
              Esc gives back what stood there, either way.
            </Text>
          </div>
          <Title order={3} size="h5" mt="sm">
            Days
          </Title>
          <Select
            label="Days are written"
            placeholder="As in your browser"
            clearable
            searchable
            data={LANGUAGES.map((value) => ({ value, label: named(value) }))}
            value={settings.dateLanguage}
            onChange={(dateLanguage) => changeSettings({ dateLanguage })}
          />
          <Select
            label="A week begins on"
            allowDeselect={false}
            data={Object.entries(WEEK_BEGINS).map(([value, label]) => ({ value, label }))}
            value={settings.weekBegins === null ? '' : String(settings.weekBegins)}
            onChange={(day) =>
              changeSettings({ weekBegins: day === '1' ? 1 : day === '0' ? 0 : day === '6' ? 6 : null })
            }
          />
          <Select
            label="Time zone"
            placeholder="That of this computer"
            clearable
            searchable
            limit={40}
            data={Intl.supportedValuesOf('timeZone')}
            value={settings.timeZone}
            onChange={(timeZone) => changeSettings({ timeZone })}
          />
        </Stack>
      </div>
      {situation ? (
        <>
          <Group mt="md">
            <Button variant="default" onClick={() => setShowsKeys(!showsKeys)} aria-expanded={showsKeys}>
              {showsKeys ? 'Fold the keys away' : 'Keys of your own …'}
            </Button>
          </Group>
          {showsKeys && <OwnKeys situation={situation} />}
        </>
      ) : (
        <Text size="sm" c="dimmed" mt="md">
          Keys of your own are set where they are pressed: open a map, and there the personal settings.
        </Text>
      )}
    </Modal>
  )
}
