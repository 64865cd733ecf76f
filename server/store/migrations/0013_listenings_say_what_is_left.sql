-- +goose Up
-- How many takes with a reason did not fit: said again when the listening is gone on
-- with later, or on another device.
ALTER TABLE listening ADD COLUMN left_over integer NOT NULL DEFAULT 0;

-- +goose Down
ALTER TABLE listening DROP COLUMN left_over;
