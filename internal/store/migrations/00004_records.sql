-- +goose Up
-- Records that two people can edit carry a revision; ids are never given twice; rigs and
-- lines are kept as their documents, so that no field can be forgotten; what is removed
-- stays as a row; every row has a checksum of what it says. There is no way down: the
-- copy made before the update is the way back.

CREATE TABLE rig_next (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  revision   INTEGER NOT NULL DEFAULT 1,
  name_key   TEXT NOT NULL,
  body       TEXT NOT NULL CHECK (json_valid(body)),
  changed_at TEXT NOT NULL,
  deleted_at TEXT,
  checksum   INTEGER NOT NULL
) STRICT;
-- Of several rigs with one name all but the first get a number behind it.
INSERT INTO rig_next (id, name_key, body, changed_at, checksum)
SELECT id, fold(title), body, changed_at, checksum(fold(title), body) FROM (
  SELECT id, changed_at, title, json_object('version', 1, 'name', title,
      'chain', json((SELECT json_group_array(json('{"' || kind || '":' || body || '}')) FROM (SELECT kind, body FROM rig_element e WHERE e.rig_id = r.id ORDER BY position))),
      'peak_kn', json(printf('%!.17g', peak_kn)), 'character', character, 'dry', json(CASE dry WHEN 1 THEN 'true' ELSE 'false' END),
      'consequence', consequence, 'design_factor', json(printf('%!.17g', design_factor))) AS body
  FROM (SELECT *, name || CASE WHEN nth = 1 THEN '' ELSE ' (' || nth || ')' END AS title
        FROM (SELECT *, row_number() OVER (PARTITION BY fold(name) ORDER BY id) AS nth FROM rig)) r);
DROP TABLE rig_element;
DROP TABLE rig;
ALTER TABLE rig_next RENAME TO rig;
CREATE UNIQUE INDEX rig_by_name ON rig (name_key) WHERE deleted_at IS NULL;
CREATE INDEX rig_by_change ON rig (changed_at DESC, id DESC);

CREATE TABLE line_next (
  id         INTEGER PRIMARY KEY AUTOINCREMENT,
  revision   INTEGER NOT NULL DEFAULT 1,
  name_key   TEXT NOT NULL,
  body       TEXT NOT NULL CHECK (json_valid(body)),
  changed_at TEXT NOT NULL,
  deleted_at TEXT,
  checksum   INTEGER NOT NULL
) STRICT;
INSERT INTO line_next (id, name_key, body, changed_at, checksum)
SELECT id, fold(name), body, strftime('%Y-%m-%dT%H:%M:%SZ'), checksum(fold(name), body) FROM (
  SELECT id, name, json_object('name', name, 'note', note, 'material', material, 'construction', construction,
    'diameter_mm', json(printf('%!.17g', diameter_mm)), 'label_kn', json(printf('%!.17g', label_kn)), 'wear', wear) AS body FROM line);
DROP TABLE line;
ALTER TABLE line_next RENAME TO line;

CREATE TABLE learner_next (
  id       INTEGER PRIMARY KEY AUTOINCREMENT,
  revision INTEGER NOT NULL DEFAULT 1,
  name     TEXT NOT NULL,
  name_key TEXT NOT NULL,
  -- Ids of the knots shown at least once, with blanks between.
  knows    TEXT NOT NULL DEFAULT '',
  checksum INTEGER NOT NULL
) STRICT;
INSERT INTO learner_next (id, name, name_key, checksum) SELECT id, name, fold(name), checksum(name) FROM learner;

CREATE TABLE attempt_next (
  id          INTEGER PRIMARY KEY AUTOINCREMENT,
  key         TEXT UNIQUE,
  learner_id  INTEGER NOT NULL REFERENCES learner_next (id),
  knot        TEXT NOT NULL,
  kind        TEXT NOT NULL CHECK (kind IN ('tied', 'drill')),
  outcome     TEXT NOT NULL CHECK (outcome IN ('right', 'slow', 'fault')),
  fault       TEXT NOT NULL,
  seconds     REAL NOT NULL CHECK (seconds >= 0),
  conditions  TEXT NOT NULL,
  -- UTC with six decimals, so that text sorts as time does.
  at          TEXT NOT NULL,
  received_at TEXT NOT NULL,
  deleted_at  TEXT,
  checksum    INTEGER NOT NULL
) STRICT;
INSERT INTO attempt_next (id, learner_id, knot, kind, outcome, fault, seconds, conditions, at, received_at, checksum)
SELECT id, learner_id, knot, kind, outcome, fault, seconds, conditions, at, at, checksum(learner_id, knot, kind, outcome, fault, seconds, conditions, at, at)
FROM (SELECT id, learner_id, knot, kind, outcome, fault, seconds, conditions,
        -- A time out of range, which once could be saved, becomes that of the update.
        CASE WHEN strftime('%s', at) IS NULL OR CAST(strftime('%s', at) AS INTEGER) NOT BETWEEN 0 AND CAST(strftime('%s', 'now', '+1 day') AS INTEGER)
             THEN strftime('%Y-%m-%dT%H:%M:%S.000000Z', 'now')
             ELSE strftime('%Y-%m-%dT%H:%M:%S.', at) || substr(CASE instr(at, '.') WHEN 0 THEN '' ELSE rtrim(substr(at, instr(at, '.') + 1), 'Z') END || '000000', 1, 6) || 'Z'
        END AS at FROM attempt);
DROP TABLE attempt;
DROP TABLE learner;
ALTER TABLE learner_next RENAME TO learner;
ALTER TABLE attempt_next RENAME TO attempt;
CREATE INDEX learner_by_name ON learner (name_key);
CREATE INDEX attempt_by_time ON attempt (at DESC, id DESC) WHERE deleted_at IS NULL;
CREATE INDEX attempt_by_learner ON attempt (learner_id, at DESC, id DESC) WHERE deleted_at IS NULL;
CREATE INDEX attempt_by_knot ON attempt (knot, at DESC, id DESC) WHERE deleted_at IS NULL;

-- How often a learner has shown a knot: tied in rope without a fault.
CREATE TABLE shown (
  learner_id INTEGER NOT NULL REFERENCES learner (id),
  knot       TEXT NOT NULL,
  n          INTEGER NOT NULL,
  PRIMARY KEY (learner_id, knot)
) STRICT, WITHOUT ROWID;
INSERT INTO shown SELECT learner_id, knot, count(*) FROM attempt WHERE kind = 'tied' AND outcome <> 'fault' GROUP BY learner_id, knot;
UPDATE learner SET knows = coalesce((SELECT group_concat(knot, ' ') FROM (SELECT knot FROM shown WHERE learner_id = learner.id AND n > 0 ORDER BY knot)), '');

CREATE TABLE doctrine (
  question TEXT PRIMARY KEY,
  doctrine TEXT NOT NULL
) STRICT, WITHOUT ROWID;
INSERT INTO doctrine SELECT question, school FROM school;
DROP TABLE school;
CREATE TABLE doctrine_revision (revision INTEGER NOT NULL) STRICT;
INSERT INTO doctrine_revision VALUES (1);
