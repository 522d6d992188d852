import { useCalmSession } from '../sync/use-session'
import { JobLine } from './JobLine'
import styles from './jobs.module.css'

/** What is being done in the collection: in a line the one that was asked for first, or all as a list. */
export function RunningJobs({ asList = false }: { asList?: boolean }) {
  const session = useCalmSession()
  const jobs = session.jobs.running
  if (jobs.length === 0) return null
  const lines = jobs.map((job) => (
    <JobLine key={job.id} job={job} collection={session.id} mayCancel={session.mayCancel(job)} />
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
