-- A director plays a step once, for all or for one instrument, and players hear it. What it is
-- of is what the step asks for, so that it goes with the step into other weeks and classes.

-- +goose Up
CREATE TABLE model (
    id          uuid PRIMARY KEY,
    director_id uuid NOT NULL REFERENCES director (id) ON DELETE CASCADE,
    asks        bytea NOT NULL,             -- SHA-256 of the kind and its parameters
    instrument  text NOT NULL DEFAULT '',   -- '' for all
    sound       bytea NOT NULL CHECK (length(sound) <= 16777216), -- FLAC
    seconds     double precision NOT NULL CHECK (seconds > 0 AND seconds <= 120),
    made_at     timestamptz NOT NULL,
    UNIQUE (director_id, asks, instrument)
);

-- +goose Down
DROP TABLE model;
