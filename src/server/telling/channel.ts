/** The PostgreSQL channel on which `collection:number` is sent after each commit. */
export const CHANGE_CHANNEL = 'folvet_change'
/** The channel on which a collection is sent when something happened to one of its jobs. */
export const JOB_CHANNEL = 'folvet_job'
