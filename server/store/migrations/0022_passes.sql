-- A pass lets somebody in who has no account: an assistant or a substitute into a class,
-- a family to one player. It ends by itself, or when its director ends it.

-- +goose Up
CREATE TABLE pass (
    id            uuid PRIMARY KEY,
    role          text NOT NULL CHECK (role IN ('assistant', 'substitute', 'family')),
    class_id      uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    player_id     uuid REFERENCES player ON DELETE CASCADE, -- a family's child
    name          text NOT NULL CHECK (length(name) BETWEEN 1 AND 80), -- whose it is
    hears         boolean NOT NULL DEFAULT false, -- recordings of the class, too
    code_sha256   text NOT NULL UNIQUE, -- of the words; they are shown once
    made_by       uuid REFERENCES director ON DELETE SET NULL,
    made_at       timestamptz NOT NULL,
    last_day      date NOT NULL, -- the school's
    ends_at       timestamptz NOT NULL, -- the end of that day
    CHECK ((role = 'family') = (player_id IS NOT NULL))
);
CREATE INDEX pass_by_class ON pass (class_id);
CREATE INDEX pass_by_player ON pass (player_id) WHERE player_id IS NOT NULL;

-- +goose Down
DROP TABLE pass;
