import type { Table } from './table'

export const commentTable: Table<'comment'> = {
  kind: 'comment',
  select: `
    SELECT id, topic, answers, author, author_name AS "authorName", at, text, quote, mentions, resolved, trashed
    FROM comment WHERE collection = $1`,
  upsert: `
    INSERT INTO comment (collection, id, topic, answers, author, author_name, at, text, quote, mentions, resolved, trashed)
    SELECT $1, r.id, r.topic, r.answers, r.author, r."authorName", r.at, r.text, r.quote, r.mentions, r.resolved, r.trashed
    FROM jsonb_to_recordset($2::jsonb)
      AS r(id uuid, topic uuid, answers uuid, author uuid, "authorName" text, at text, text text, quote text, mentions uuid[],
           resolved boolean, trashed boolean)
    ON CONFLICT (collection, id) DO UPDATE SET
      topic = excluded.topic, text = excluded.text, mentions = excluded.mentions, resolved = excluded.resolved,
      trashed = excluded.trashed`,
  columns: { topic: 'topic', answers: 'answers' },
}
