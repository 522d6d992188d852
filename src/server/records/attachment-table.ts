import type { Table } from './table'

export const attachmentTable: Table<'attachment'> = {
  kind: 'attachment',
  select: `SELECT id, topic, file, rank, trashed FROM attachment WHERE collection = $1`,
  upsert: `
    INSERT INTO attachment (collection, id, topic, file, rank, trashed)
    SELECT $1, r.id, r.topic, r.file, r.rank, r.trashed
    FROM jsonb_to_recordset($2::jsonb) AS r(id uuid, topic uuid, file uuid, rank text, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      topic = excluded.topic, file = excluded.file, rank = excluded.rank, trashed = excluded.trashed`,
  columns: { topic: 'topic', file: 'file' },
}
