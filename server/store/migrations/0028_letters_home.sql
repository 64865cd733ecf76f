-- A family that gave its address is sent how the week went.

-- +goose Up
ALTER TABLE pass
    ADD COLUMN email       text NOT NULL DEFAULT '' CHECK (length(email) <= 200),
    ADD COLUMN letter_sent date; -- the Monday of the last one

-- +goose Down
ALTER TABLE pass DROP COLUMN email, DROP COLUMN letter_sent;
