-- Nightly backups, as they went: an administrator sees the last one.

-- +goose Up
CREATE TABLE backup_made (
    id       bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    name     text NOT NULL, -- its moment
    began_at timestamptz NOT NULL,
    ended_at timestamptz NOT NULL,
    sounds   integer NOT NULL,
    copied   integer NOT NULL,
    missing  integer NOT NULL,
    problem  text NOT NULL DEFAULT '' -- why it was not finished; '' where it was
);

-- +goose Down
DROP TABLE backup_made;
