-- Up Migration

-- Calendars elsewhere with which a collection is kept in step.
CREATE TABLE calendar (
  id uuid PRIMARY KEY,
  collection uuid NOT NULL REFERENCES collection ON DELETE CASCADE,
  name text NOT NULL,
  address text NOT NULL,
  user_name text NOT NULL,
  -- As it is sent there; it is never told to anybody.
  password text NOT NULL,
  -- In whose name it is kept in step.
  person uuid NOT NULL REFERENCES person ON DELETE CASCADE,
  -- The zone, by its name in the IANA database, on whose clock the times of the collection are.
  zone text NOT NULL,
  -- Where the collection is reached, for the addresses of its topics.
  origin text NOT NULL,
  gives text NOT NULL CHECK (gives IN ('all', 'none', 'map')),
  gives_map uuid,
  takes text NOT NULL CHECK (takes IN ('all', 'chosen')),
  -- Into which map new entries come, and below which topic.
  into_map uuid NOT NULL,
  branch uuid NOT NULL,
  -- Whether most of what goes with topics went there, and whether somebody said that it is meant.
  asks_to_lose boolean NOT NULL DEFAULT false,
  may_lose boolean NOT NULL DEFAULT false,
  -- What told apart the topics that count, when it was last in step; null where it never was.
  topics_seen text,
  -- Up to which change of the collection it was looked whether there are others.
  checked_number bigint NOT NULL DEFAULT 0,
  in_step_at timestamptz,
  next_at timestamptz NOT NULL DEFAULT now(),
  -- When somebody asked that it is looked at now.
  asked_at timestamptz NOT NULL DEFAULT now(),
  failures int NOT NULL DEFAULT 0,
  trouble text,
  UNIQUE (collection, address)
);

-- What is in these calendars, as it was last seen there, with the topics that go with it.
CREATE TABLE calendar_entry (
  calendar uuid NOT NULL REFERENCES calendar ON DELETE CASCADE,
  href text NOT NULL,
  etag text NOT NULL,
  -- In iCalendar.
  body text NOT NULL,
  -- As it is read; null where it cannot be.
  entry jsonb,
  gone boolean NOT NULL DEFAULT false,
  topic uuid,
  -- What both sides said when they were last in step.
  agreed jsonb,
  -- What somebody has to choose about, with what each side says, and what they chose.
  conflict jsonb,
  chosen text CHECK (chosen IN ('here', 'there')),
  PRIMARY KEY (calendar, href)
);
CREATE UNIQUE INDEX calendar_entry_topic ON calendar_entry (calendar, topic) WHERE topic IS NOT NULL;
CREATE INDEX calendar_entry_of ON calendar_entry (topic) WHERE topic IS NOT NULL;

CREATE UNIQUE INDEX job_in_step ON job (collection) WHERE kind = 'keep calendars in step' AND state IN ('waiting', 'running', 'ending');

-- Down Migration

DROP INDEX job_in_step;
DROP TABLE calendar_entry;
DROP TABLE calendar;
