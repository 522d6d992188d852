import { Select } from '@mantine/core'
import { type Icon, IconArrowRight, IconCalendar, IconMap2 } from '@tabler/icons-react'
import type { MapId } from '../../core/records/ids'
import { useSession } from '../sync/use-session'
import type { Terms } from './calendars'
import styles from './calendars.module.css'

/** What goes into a calendar, and what comes from it. */
export function TermsFields({ terms, onChange }: { terms: Terms; onChange(terms: Terms): void }) {
  const session = useSession()
  const maps = session.maps.map(({ id, title }) => ({ value: id, label: title || 'Untitled' }))
  const { gives, takes, intoMap } = terms
  return (
    <div className={styles.terms}>
      <Way from={IconMap2} to={IconCalendar} />
      <div className={styles.choices}>
        <Select
          size="sm"
          label="Into the calendar go"
          allowDeselect={false}
          data={[
            { value: 'all', label: 'all topics with a date' },
            { value: 'map', label: 'those of one map' },
            { value: 'none', label: 'no others than those that are in it' },
          ]}
          value={typeof gives === 'string' ? gives : 'map'}
          onChange={(value) =>
            onChange({ ...terms, gives: value === 'map' ? { map: intoMap } : value === 'none' ? 'none' : 'all' })
          }
        />
        {typeof gives !== 'string' && (
          <Select
            size="sm"
            label="Of which map"
            searchable
            allowDeselect={false}
            data={maps}
            value={gives.map}
            onChange={(map) => map && onChange({ ...terms, gives: { map: map as MapId } })}
          />
        )}
      </div>
      <Way from={IconCalendar} to={IconMap2} />
      <div className={styles.choices}>
        <Select
          size="sm"
          label="New entries there"
          allowDeselect={false}
          data={[
            { value: 'all', label: 'become topics' },
            { value: 'chosen', label: 'wait until they are put on a topic' },
          ]}
          value={takes}
          onChange={(value) => onChange({ ...terms, takes: value === 'chosen' ? 'chosen' : 'all' })}
        />
        {takes === 'all' && (
          <Select
            size="sm"
            label="On which map"
            description="below a topic named as the calendar"
            inputWrapperOrder={['label', 'input', 'description']}
            searchable
            allowDeselect={false}
            data={maps}
            value={intoMap}
            onChange={(map) => map && onChange({ ...terms, intoMap: map as MapId })}
          />
        )}
      </div>
    </div>
  )
}

/** Which way it goes, as a drawing. */
function Way({ from: From, to: To }: { from: Icon; to: Icon }) {
  return (
    <span className={styles.way} aria-hidden>
      <From size={22} />
      <IconArrowRight size={16} />
      <To size={22} />
    </span>
  )
}
