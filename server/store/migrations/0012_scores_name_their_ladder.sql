-- +goose Up
ALTER TABLE score ADD COLUMN ladder text NOT NULL DEFAULT ''; -- whose rung it is; empty for none
UPDATE score SET ladder = coalesce(body->>'ladder', '');

-- +goose Down
ALTER TABLE score DROP COLUMN ladder;
