-- +goose Up
CREATE TABLE line (
  id           INTEGER PRIMARY KEY,
  name         TEXT NOT NULL,
  material     TEXT NOT NULL,
  construction TEXT NOT NULL,
  diameter_mm  REAL NOT NULL CHECK (diameter_mm >= 0),
  label_kn     REAL NOT NULL DEFAULT 0 CHECK (label_kn >= 0),
  wear         INTEGER NOT NULL DEFAULT 0 CHECK (wear BETWEEN 0 AND 3),
  note         TEXT NOT NULL DEFAULT ''
) STRICT;

CREATE TABLE rig (
  id            INTEGER PRIMARY KEY,
  name          TEXT NOT NULL,
  peak_kn       REAL NOT NULL CHECK (peak_kn > 0),
  character     TEXT NOT NULL,
  dry           INTEGER NOT NULL CHECK (dry IN (0, 1)),
  consequence   TEXT NOT NULL,
  design_factor REAL NOT NULL DEFAULT 0,
  changed_at    TEXT NOT NULL
) STRICT;

-- The chain of a rig, in order: fitting, joint, line, joint, line …
CREATE TABLE rig_element (
  rig_id   INTEGER NOT NULL REFERENCES rig (id) ON DELETE CASCADE,
  position INTEGER NOT NULL,
  kind     TEXT NOT NULL CHECK (kind IN ('fitting', 'joint', 'line')),
  body     TEXT NOT NULL CHECK (json_valid(body)),
  PRIMARY KEY (rig_id, position)
) STRICT, WITHOUT ROWID;

CREATE TABLE learner (
  id   INTEGER PRIMARY KEY,
  name TEXT NOT NULL UNIQUE COLLATE NOCASE
) STRICT;

CREATE TABLE attempt (
  id         INTEGER PRIMARY KEY,
  learner_id INTEGER NOT NULL REFERENCES learner (id) ON DELETE CASCADE,
  knot       TEXT NOT NULL,
  outcome    TEXT NOT NULL CHECK (outcome IN ('right', 'slow', 'fault')),
  fault      TEXT NOT NULL DEFAULT '',
  seconds    REAL NOT NULL DEFAULT 0 CHECK (seconds >= 0),
  conditions TEXT NOT NULL DEFAULT 'dry',
  at         TEXT NOT NULL
) STRICT;
CREATE INDEX attempt_by_time ON attempt (at DESC);
CREATE INDEX attempt_by_learner ON attempt (learner_id, at DESC);

-- +goose Down
DROP TABLE attempt;
DROP TABLE learner;
DROP TABLE rig_element;
DROP TABLE rig;
DROP TABLE line;
