-- +goose Up
-- Rigs that people depend on, looked over by two: who and when. The record is its
-- document; nothing in it is ever changed.
CREATE TABLE inspection (
  id          INTEGER PRIMARY KEY AUTOINCREMENT,
  key         TEXT UNIQUE,
  body        TEXT NOT NULL CHECK (json_valid(body)),
  received_at TEXT NOT NULL,
  checksum    INTEGER NOT NULL
) STRICT;
CREATE INDEX inspection_by_time ON inspection (received_at DESC, id DESC);
