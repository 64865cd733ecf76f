-- +goose Up
-- Where a player stands on a ladder, worked out from the log and kept until the
-- log, the ladder or the rules change: then it is worked out again when somebody
-- asks. The log alone is the truth.
CREATE TABLE ladder_standing (
    player_id  uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    ladder     text NOT NULL,
    entries    bigint NOT NULL,            -- lines of the log so far
    rungs      smallint NOT NULL DEFAULT 0, -- of the ladder it was worked out for; 0: it must be worked out
    version    smallint NOT NULL DEFAULT 0, -- of the rules
    state      jsonb NOT NULL DEFAULT '{}',
    PRIMARY KEY (player_id, ladder)
);
INSERT INTO ladder_standing (player_id, ladder, entries) SELECT player_id, ladder, count(*) FROM ladder_entry GROUP BY player_id, ladder;

-- +goose Down
DROP TABLE ladder_standing;
