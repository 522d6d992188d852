-- Up Migration

-- Searches that are kept under a name, and topics below which is shown what a search finds.
CREATE TABLE search (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  name text NOT NULL,
  asked jsonb NOT NULL,
  trashed boolean NOT NULL DEFAULT false,
  PRIMARY KEY (collection, id)
);
ALTER TABLE search ALTER COLUMN collection SET (n_distinct = 4);

ALTER TABLE topic ADD COLUMN gathers jsonb;
CREATE INDEX topic_gathers ON topic (collection, map) WHERE gathers IS NOT NULL;
CREATE INDEX topic_gathers_tag ON topic (collection, ((gathers->>'tag')::uuid)) WHERE gathers->>'tag' IS NOT NULL;
CREATE INDEX topic_gathers_map ON topic (collection, ((gathers->>'map')::uuid)) WHERE gathers->>'map' IS NOT NULL;
CREATE INDEX topic_task ON topic (collection, task) WHERE task IS NOT NULL;
CREATE INDEX topic_work ON topic (collection) WHERE work IS NOT NULL;

-- Whether a topic has what is asked for: {"tasks": [...], "from": day, "to": day, "dated": true, "person": id, "name": name}, each where it
-- is asked for. The day is that on which it ends.
CREATE FUNCTION topic_meets(task text, dates jsonb, work jsonb, asked jsonb) RETURNS boolean
LANGUAGE sql IMMUTABLE PARALLEL SAFE AS $$
  SELECT (NOT asked ? 'tasks' OR COALESCE(asked->'tasks' ? task, false))
    AND (NOT asked ? 'dated' OR dates IS NOT NULL)
    AND (NOT asked ? 'from' OR COALESCE(COALESCE(dates->>'end', dates->>'start') >= asked->>'from', false))
    AND (NOT asked ? 'to' OR COALESCE(COALESCE(dates->>'end', dates->>'start') <= asked->>'to', false))
    AND (NOT asked ? 'name' OR EXISTS (
      SELECT 1 FROM jsonb_array_elements(CASE jsonb_typeof(work->'who') WHEN 'array' THEN work->'who' ELSE '[]' END) doer
      WHERE doer->>'person' = asked->>'person' OR lower(doer->>'name') = lower(asked->>'name')))
$$;

-- Down Migration

DROP FUNCTION topic_meets;
DROP INDEX topic_work, topic_task;
ALTER TABLE topic DROP COLUMN gathers;
DROP TABLE search;
