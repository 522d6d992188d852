-- Up Migration

SET CONSTRAINTS ALL IMMEDIATE;

-- The maps on which a change is seen; null where it is seen on all of them.
ALTER TABLE change ADD COLUMN maps uuid[];

-- What is known of a map without opening it, kept up to date with every change, with the number of the last one that altered it.
CREATE TABLE map_digest (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  map uuid NOT NULL,
  number bigint NOT NULL,
  -- Without what lies in the trash.
  topics integer NOT NULL,
  opens uuid[] NOT NULL,
  PRIMARY KEY (collection, map)
) WITH (fillfactor = 60);
ALTER TABLE map_digest ALTER COLUMN collection SET STATISTICS 0;

-- How many cross-links lead from a map to another one or back; one row for each direction.
CREATE TABLE map_link (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  map uuid NOT NULL,
  other uuid NOT NULL,
  links integer NOT NULL,
  PRIMARY KEY (collection, map, other)
);
CREATE INDEX map_link_other ON map_link (collection, other);
ALTER TABLE map_link ALTER COLUMN collection SET STATISTICS 0;

WITH RECURSIVE seen AS (
  SELECT t.collection, t.map, t.id, t.opens_map FROM topic t WHERE t.parent IS NULL AND NOT t.trashed
  UNION ALL
  SELECT t.collection, t.map, t.id, t.opens_map
  FROM seen JOIN topic t ON t.collection = seen.collection AND t.parent = seen.id AND NOT t.trashed
)
INSERT INTO map_digest (collection, map, number, topics, opens)
SELECT m.collection, m.id, 0, count(seen.id), COALESCE(array_agg(DISTINCT seen.opens_map) FILTER (WHERE seen.opens_map IS NOT NULL), '{}')
FROM map m LEFT JOIN seen ON seen.collection = m.collection AND seen.map = m.id
GROUP BY m.collection, m.id;

WITH link AS (
  SELECT l.collection, f.map AS a, COALESCE(t.map, l.to_map) AS b
  FROM crosslink l JOIN topic f ON f.collection = l.collection AND f.id = l.from_topic
  LEFT JOIN enclosure e ON e.collection = l.collection AND e.id = l.to_enclosure
  LEFT JOIN LATERAL (
    SELECT t.map FROM topic t WHERE t.collection = l.collection
      AND (t.id = l.to_topic OR t.id = e.topics[1] OR (l.to_note IS NOT NULL AND t.note = l.to_note))
    ORDER BY t.id LIMIT 1) t ON true
  WHERE NOT l.trashed
), ends AS (
  SELECT collection, a AS map, b AS other FROM link WHERE a <> b UNION ALL SELECT collection, b, a FROM link WHERE a <> b
)
INSERT INTO map_link (collection, map, other, links)
SELECT collection, map, other, count(*) FROM ends GROUP BY collection, map, other;

-- Down Migration

DROP TABLE map_link, map_digest;
ALTER TABLE change DROP COLUMN maps;
