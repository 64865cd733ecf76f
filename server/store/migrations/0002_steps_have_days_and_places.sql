-- +goose Up
ALTER TABLE step
    ADD COLUMN days             smallint NOT NULL DEFAULT 127, -- a bit a weekday, Monday the lowest
    ADD COLUMN place            text NOT NULL DEFAULT 'both',
    ADD COLUMN times            integer NOT NULL DEFAULT 1,
    ADD COLUMN for_instruments  jsonb NOT NULL DEFAULT '[]', -- keys; empty is everyone it suits
    ADD COLUMN why              text NOT NULL DEFAULT '',
    ADD CONSTRAINT step_days_are_a_week CHECK (days BETWEEN 0 AND 127),
    ADD CONSTRAINT step_place_is_known CHECK (place IN ('class', 'home', 'both')),
    ADD CONSTRAINT step_times_are_few CHECK (times BETWEEN 1 AND 6);

-- Steps that are done and ticked, not recorded: the latest word of each day.
CREATE TABLE tick (
    player_id     uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    step_id       uuid NOT NULL,
    step_version  integer NOT NULL,
    day           date NOT NULL,
    done          jsonb NOT NULL, -- a truth for each item of the step
    result        text NOT NULL,
    short         text NOT NULL, -- what decided, in a few words
    ticked_at     timestamptz NOT NULL,
    PRIMARY KEY (player_id, step_id, day),
    FOREIGN KEY (step_id, step_version) REFERENCES step_version (step_id, version) ON DELETE CASCADE,
    CONSTRAINT tick_result_is_known CHECK (result IN ('clean', 'nearly', 'not-yet', 'cant-tell'))
);
CREATE INDEX tick_by_step_and_day ON tick (step_id, day);

-- +goose Down
DROP TABLE tick;
ALTER TABLE step DROP COLUMN days, DROP COLUMN place, DROP COLUMN times, DROP COLUMN for_instruments, DROP COLUMN why;
