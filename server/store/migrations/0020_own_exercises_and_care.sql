-- A director's own exercises, under the director's names; and when an instrument was looked
-- after.

-- +goose Up
CREATE TABLE own_exercise (
    id          uuid PRIMARY KEY,
    director_id uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    name        text NOT NULL,
    kind        text NOT NULL,
    parameters  jsonb NOT NULL,
    made_at     timestamptz NOT NULL,
    CONSTRAINT own_exercise_has_a_name CHECK (length(name) BETWEEN 1 AND 60),
    UNIQUE (director_id, name)
);

ALTER TABLE step ADD COLUMN called text NOT NULL DEFAULT ''; -- the director's own name for it

CREATE TABLE care_done (
    player_id uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    every     text NOT NULL,
    day       date NOT NULL,
    PRIMARY KEY (player_id, every, day),
    CONSTRAINT care_is_known CHECK (every IN ('daily', 'weekly', 'monthly', 'termly'))
);

-- +goose Down
DROP TABLE care_done, own_exercise;
ALTER TABLE step DROP COLUMN called;
