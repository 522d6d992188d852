import type { CollectionSession } from '../sync/collection-session'
import { useCalmPart, useSessionHandle } from '../sync/use-session'
import { JobLine } from './JobLine'
import styles from './jobs.module.css'

const runningIn = (session: CollectionSession) =>
  session.jobs.running.map((job) => ({ job, mayCancel: session.mayCancel(job) }))

/** What is being done in the collection: in a line the one that was asked for first, or all as a list. */
export function RunningJobs({ asList = false }: { asList?: boolean }) {
  const { id } = useSessionHandle()
  const jobs = useCalmPart(runningIn)
  if (jobs.length === 0) return null
  const lines = jobs.map(({ job, mayCancel }) => (
    <JobLine key={job.id} job={job} collection={id} mayCancel={mayCancel} />
  ))
  return asList ? (
    <section aria-label="What is being done" className={styles.list}>
      {lines}
    </section>
  ) : (
    <>
      {lines[0]}
      {lines.length > 1 && <span>and {lines.length - 1} more</span>}
    </>
  )
}
