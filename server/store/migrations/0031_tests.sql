-- A step may be a test: handed in by a day, so many of its takes counting.

-- +goose Up
ALTER TABLE step ADD COLUMN test jsonb;
CREATE INDEX step_tests ON step (class_id, last_day) WHERE test IS NOT NULL;

-- +goose Down
ALTER TABLE step DROP COLUMN test;
