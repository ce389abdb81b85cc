-- +goose Up
-- The log of use: what was rigged where, with which line and knot, and what came of it. The
-- columns are what it is narrowed and counted by; the body holds all of it.
CREATE TABLE usage (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  key        TEXT UNIQUE,
  at         TEXT NOT NULL,
  place      TEXT NOT NULL,
  line       TEXT NOT NULL,
  other      TEXT NOT NULL,
  knot       TEXT NOT NULL,
  outcome    TEXT NOT NULL,
  hours      REAL NOT NULL,
  body       TEXT NOT NULL CHECK (json_valid(body)),
  deleted_at TEXT,
  checksum   INTEGER NOT NULL
) STRICT;
CREATE INDEX usage_by_time ON usage (at DESC, id DESC) WHERE deleted_at IS NULL;
CREATE INDEX usage_of_line ON usage (line, at DESC, id DESC) WHERE deleted_at IS NULL AND line <> '';
CREATE INDEX usage_of_other ON usage (other, at DESC, id DESC) WHERE deleted_at IS NULL AND other <> '';
CREATE INDEX usage_of_knot ON usage (knot, at DESC, id DESC) WHERE deleted_at IS NULL;
-- It holds all that is counted by place, so that no row is read for it.
CREATE INDEX usage_of_place ON usage (place, line, other, knot, outcome, hours, at) WHERE deleted_at IS NULL;

-- What the log comes to by line, knot and outcome, kept beside it so that it is summed up at
-- once. A use of two lines counts on each of them, under the first alone for its knot.
CREATE TABLE usage_sum (
  line    TEXT NOT NULL,
  knot    TEXT NOT NULL,
  outcome TEXT NOT NULL,
  first   INTEGER NOT NULL, -- 1: as the first line of the use, which is counted for the knot
  n       INTEGER NOT NULL,
  hours   REAL NOT NULL,
  last    TEXT NOT NULL,
  PRIMARY KEY (line, knot, outcome, first)
) STRICT, WITHOUT ROWID;

-- The same by day, for what is narrowed to some of them.
CREATE TABLE usage_day (
  day     TEXT NOT NULL,
  line    TEXT NOT NULL,
  other   TEXT NOT NULL,
  knot    TEXT NOT NULL,
  outcome TEXT NOT NULL,
  n       INTEGER NOT NULL,
  hours   REAL NOT NULL,
  PRIMARY KEY (day, line, other, knot, outcome)
) STRICT, WITHOUT ROWID;
