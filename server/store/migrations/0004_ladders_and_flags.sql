-- +goose Up
-- What happened on a player's ladders, only ever added to; core/ladder replays it.
CREATE TABLE ladder_entry (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    player_id  uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    ladder     text NOT NULL,
    what       text NOT NULL,
    day        date NOT NULL, -- the school's
    rung       integer NOT NULL,
    result     text NOT NULL DEFAULT '',
    hard       boolean NOT NULL DEFAULT false,
    seconds    double precision NOT NULL DEFAULT 0,
    take_id    uuid REFERENCES take ON DELETE SET NULL, -- of a try
    at         timestamptz NOT NULL,
    CONSTRAINT ladder_entry_is_known CHECK (what IN ('tried', 'stepped-back', 'placed')),
    CONSTRAINT ladder_entry_of_a_take_is_its_only UNIQUE (take_id)
);
CREATE INDEX ladder_entry_by_player ON ladder_entry (player_id, ladder, id);

-- What a player tells the director: it hurts, dizzy, tired, a question.
CREATE TABLE flag (
    id         uuid PRIMARY KEY, -- made by the client
    player_id  uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    step_id    uuid REFERENCES step ON DELETE SET NULL,
    kind       text NOT NULL,
    words      text NOT NULL DEFAULT '',
    raised_at  timestamptz NOT NULL,
    seen_at    timestamptz,
    CONSTRAINT flag_kind_is_known CHECK (kind IN ('hurts', 'dizzy', 'tired', 'question')),
    CONSTRAINT flag_is_short CHECK (length(words) <= 500)
);
CREATE INDEX flag_by_player ON flag (player_id, raised_at);

-- +goose Down
DROP TABLE flag, ladder_entry;
