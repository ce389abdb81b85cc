-- +goose Up
-- Readings of a pull as they came from the cell, in chunks: kept twice a second while it is
-- made, so that a crash loses no more. A body is seconds and kilonewtons, eight bytes each,
-- compressed.
CREATE TABLE reading (
  pull     TEXT NOT NULL,
  chunk    INTEGER NOT NULL,
  body     BLOB NOT NULL,
  at       TEXT NOT NULL,
  checksum INTEGER NOT NULL,
  PRIMARY KEY (pull, chunk)
) STRICT, WITHOUT ROWID;
