/** The PostgreSQL channel on which `collection:number` is sent after each commit. */
export const CHANGE_CHANNEL = 'folvet_change'
