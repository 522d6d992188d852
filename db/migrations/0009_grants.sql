-- Up Migration

-- What somebody may do: a role in a whole collection or on some of its maps, given to a person or to whoever has a link.
CREATE TABLE access_grant (
  id uuid PRIMARY KEY,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  person uuid REFERENCES person ON DELETE CASCADE,
  -- The secret of a link, hashed: whoever reads this table cannot follow it.
  link_hash bytea UNIQUE,
  role text NOT NULL CHECK (role IN ('owner', 'editor', 'commenter', 'reader')),
  -- Null for the whole collection.
  maps uuid[],
  with_child_maps boolean NOT NULL DEFAULT false,
  given_at timestamptz NOT NULL DEFAULT now(),
  ends_at timestamptz,
  CHECK ((person IS NULL) <> (link_hash IS NULL)),
  CHECK (role <> 'owner' OR (maps IS NULL AND person IS NOT NULL AND ends_at IS NULL))
);
CREATE INDEX access_grant_collection ON access_grant (collection);
CREATE INDEX access_grant_person ON access_grant (person, collection);
CREATE UNIQUE INDEX access_grant_whole ON access_grant (person, collection) WHERE maps IS NULL;

-- Who has followed a link: it ends for them with the grant.
CREATE TABLE link_holder (
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  access_grant uuid NOT NULL REFERENCES access_grant ON DELETE CASCADE,
  PRIMARY KEY (person, access_grant)
);
CREATE INDEX link_holder_grant ON link_holder (access_grant);

INSERT INTO access_grant (id, collection, person, role)
  SELECT gen_random_uuid(), collection, person, role FROM membership;
DROP TABLE membership;

-- What is open to whom just now.
CREATE VIEW open_grant AS
  SELECT person, collection, role, maps, with_child_maps FROM access_grant
  WHERE person IS NOT NULL AND (ends_at IS NULL OR ends_at > now())
  UNION ALL
  SELECT h.person, g.collection, g.role, g.maps, g.with_child_maps
  FROM link_holder h JOIN access_grant g ON g.id = h.access_grant
  WHERE g.ends_at IS NULL OR g.ends_at > now();

-- Down Migration

CREATE TABLE membership (
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  role text NOT NULL CHECK (role IN ('owner', 'editor', 'commenter', 'reader')),
  PRIMARY KEY (person, collection)
);
CREATE INDEX membership_collection ON membership (collection);
INSERT INTO membership (person, collection, role)
  SELECT person, collection, role FROM access_grant WHERE person IS NOT NULL AND maps IS NULL AND ends_at IS NULL;
DROP VIEW open_grant;
DROP TABLE link_holder, access_grant;
