-- +goose Up
-- Attempts say who judged, whether somebody helped and on which side; learners have
-- groups and what else is known of them, as a document; what all attempts of a learner at
-- a knot come to is kept beside them, so that a board of a thousand is read at once;
-- lessons, rounds and the like are documents of one table.
ALTER TABLE attempt ADD COLUMN help INTEGER NOT NULL DEFAULT 0;
ALTER TABLE attempt ADD COLUMN side TEXT NOT NULL DEFAULT '';
ALTER TABLE attempt ADD COLUMN judged TEXT NOT NULL DEFAULT 'instructor';
UPDATE attempt SET checksum = checksum(learner_id, knot, kind, outcome, fault, seconds, conditions, help, side, judged, at, received_at);
CREATE INDEX attempt_of ON attempt (learner_id, knot, at, id) WHERE deleted_at IS NULL;

ALTER TABLE learner ADD COLUMN body TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(body));
UPDATE learner SET checksum = checksum(name, body);

CREATE TABLE standing (
  learner_id INTEGER NOT NULL REFERENCES learner (id),
  knot       TEXT NOT NULL,
  level      INTEGER NOT NULL,
  fault      INTEGER NOT NULL, -- 0 none, 1 the last try was one, 2 seen twice running
  due        TEXT NOT NULL,    -- as attempt.at; empty: never
  body       TEXT NOT NULL CHECK (json_valid(body)),
  PRIMARY KEY (learner_id, knot)
) STRICT, WITHOUT ROWID;
CREATE INDEX standing_due ON standing (due) WHERE due <> '';

CREATE TABLE document (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  kind       TEXT NOT NULL,
  key        TEXT,
  revision   INTEGER NOT NULL DEFAULT 1,
  body       TEXT NOT NULL CHECK (json_valid(body)),
  changed_at TEXT NOT NULL,
  deleted_at TEXT,
  checksum   INTEGER NOT NULL,
  UNIQUE (kind, key)
) STRICT;
CREATE INDEX document_by_change ON document (kind, changed_at DESC, id DESC) WHERE deleted_at IS NULL;

-- Pictures taken on the quay: made small on the device, without where and by what.
CREATE TABLE photo (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  key        TEXT UNIQUE,
  learner_id INTEGER REFERENCES learner (id),
  body       BLOB NOT NULL,
  at         TEXT NOT NULL,
  checksum   INTEGER NOT NULL
) STRICT;
CREATE INDEX photo_of ON photo (learner_id);

-- Who is signed in, as the session library keeps it.
CREATE TABLE sessions (
  token  TEXT PRIMARY KEY,
  data   BLOB NOT NULL,
  expiry REAL NOT NULL
);
CREATE INDEX sessions_expiry ON sessions (expiry);
