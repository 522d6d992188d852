import { ActionIcon, Progress } from '@mantine/core'
import { IconX } from '@tabler/icons-react'
import type { ToldJob } from '../../core/records/snapshot'
import { ask, tellTrouble } from '../app/api'
import { Cancelled } from '../sync/api-schemas'
import styles from './jobs.module.css'

/** How far a job is, in words. */
function wordsOn({ state, done, total }: ToldJob): string {
  if (state === 'waiting') return 'waiting for its turn'
  if (state === 'ending') return 'being cancelled'
  return total > 0 ? `${done} of ${total}` : 'getting ready'
}

/** A job that goes on: what it is, how far it is, and the way to cancel it. */
export function JobLine({ job, collection, mayCancel }: { job: ToldJob; collection: string; mayCancel: boolean }) {
  const cancel = () =>
    ask(Cancelled, `/api/collections/${collection}/jobs/${job.id}`, { method: 'DELETE' }).catch(tellTrouble)
  const name = `${job.label}: ${wordsOn(job)}`
  return (
    <span className={styles.job} title={name}>
      <span className={styles.words} role="status">
        {name}
      </span>
      <Progress
        className={styles.bar}
        value={Math.max(4, job.total > 0 ? (100 * job.done) / job.total : 0)}
        animated
        aria-label={job.label}
      />
      {mayCancel && job.state !== 'ending' && (
        <ActionIcon variant="subtle" color="gray" size="sm" aria-label={`Cancel: ${job.label}`} onClick={cancel}>
          <IconX size={14} />
        </ActionIcon>
      )}
    </span>
  )
}
