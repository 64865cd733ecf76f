-- A director answers what a player asked, where it was asked.

-- +goose Up
ALTER TABLE flag
    ADD COLUMN answer      text NOT NULL DEFAULT '' CHECK (length(answer) <= 500),
    ADD COLUMN answered_by uuid REFERENCES director (id) ON DELETE SET NULL,
    ADD COLUMN answered_at timestamptz;

-- +goose Down
ALTER TABLE flag DROP COLUMN answer, DROP COLUMN answered_by, DROP COLUMN answered_at;
