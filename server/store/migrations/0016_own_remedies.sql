-- What is assigned for which cause, where a director has changed it: kinds in the order
-- they are tried, by cause and family.

-- +goose Up
ALTER TABLE class ADD COLUMN remedies jsonb NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE class DROP COLUMN remedies;
