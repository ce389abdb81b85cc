-- +goose Up
-- An attempt is tied in rope, or made in the crossing drill.
ALTER TABLE attempt ADD COLUMN kind TEXT NOT NULL DEFAULT 'tied' CHECK (kind IN ('tied', 'drill'));

-- +goose Down
ALTER TABLE attempt DROP COLUMN kind;
