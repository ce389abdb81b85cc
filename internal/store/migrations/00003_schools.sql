-- +goose Up
-- What the instructor teaches where practitioners disagree.
CREATE TABLE school (
  question TEXT PRIMARY KEY,
  school   TEXT NOT NULL
) STRICT, WITHOUT ROWID;

-- +goose Down
DROP TABLE school;
