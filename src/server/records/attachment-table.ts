import type { Table } from './table'

export const attachmentTable: Table<'attachment'> = {
  kind: 'attachment',
  select: `SELECT id, topic, file, rank, read, earlier, trashed FROM attachment WHERE collection = $1`,
  upsert: `
    INSERT INTO attachment (collection, id, topic, file, rank, read, earlier, trashed)
    SELECT $1, r.id, r.topic, r.file, r.rank, COALESCE(r.read, false), COALESCE(r.earlier, '{}'), r.trashed
    FROM jsonb_to_recordset($2::jsonb) 
      AS r(id uuid, topic uuid, file uuid, rank text, read boolean, earlier uuid[], trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      topic = excluded.topic, file = excluded.file, rank = excluded.rank,
      read = excluded.read, earlier = excluded.earlier, trashed = excluded.trashed`,
  columns: { topic: 'topic', file: 'file', 'earlier.*': { each: 'earlier' } },
}
