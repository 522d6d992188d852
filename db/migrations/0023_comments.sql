-- Up Migration

CREATE TABLE comment (
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  id uuid NOT NULL,
  topic uuid NOT NULL,
  answers uuid,
  author uuid,
  author_name text NOT NULL,
  at text NOT NULL,
  text text NOT NULL,
  quote text NOT NULL,
  mentions uuid[] NOT NULL DEFAULT '{}',
  resolved boolean NOT NULL DEFAULT false,
  trashed boolean NOT NULL DEFAULT false,
  FOREIGN KEY (collection, topic) REFERENCES topic (collection, id) DEFERRABLE INITIALLY DEFERRED,
  FOREIGN KEY (collection, answers) REFERENCES comment (collection, id) DEFERRABLE INITIALLY DEFERRED,
  PRIMARY KEY (collection, id)
);
CREATE INDEX comment_topic ON comment (collection, topic);
CREATE INDEX comment_answers ON comment (collection, answers) WHERE answers IS NOT NULL;

-- Which comments somebody has seen. No record: it is nobody else's business.
CREATE TABLE comment_seen (
  collection uuid NOT NULL,
  comment uuid NOT NULL,
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  FOREIGN KEY (collection, comment) REFERENCES comment (collection, id) ON DELETE CASCADE,
  PRIMARY KEY (collection, person, comment)
);
CREATE INDEX comment_seen_comment ON comment_seen (collection, comment);

-- Down Migration

DROP TABLE comment_seen, comment;
