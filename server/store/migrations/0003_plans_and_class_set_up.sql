-- +goose Up
-- What a class follows: schools, tuning reference, names of notes, own
-- tolerances and hard notes, as exercise.Conventions; what is left out is usual.
ALTER TABLE class
    ADD COLUMN conventions    jsonb NOT NULL DEFAULT '{}',
    ADD COLUMN tips           jsonb NOT NULL DEFAULT '{}', -- own words by the tip's key
    ADD COLUMN first_lesson   date,                        -- stages count from its week
    ADD COLUMN class_minutes  double precision NOT NULL DEFAULT 6,
    ADD COLUMN home_minutes   double precision NOT NULL DEFAULT 0, -- 0 is the stage's usual
    ADD COLUMN feed_token     uuid NOT NULL DEFAULT gen_random_uuid(), -- names the calendar feed
    ADD COLUMN archived_at    timestamptz;
UPDATE class SET conventions = jsonb_build_object('a4_hz', a4_hz, 'start', note_start);
ALTER TABLE class DROP COLUMN a4_hz, DROP COLUMN note_start;
CREATE UNIQUE INDEX class_by_feed ON class (feed_token);

ALTER TABLE player
    ADD COLUMN variant      text NOT NULL DEFAULT '',  -- how the instrument is built
    ADD COLUMN external_id  text NOT NULL DEFAULT '',  -- the school's own number, by which an import knows the player again
    ADD COLUMN left_at      timestamptz,               -- takes stay, the player is on no list
    ALTER COLUMN stage SET DEFAULT 0,                  -- 0: by the weeks since the first lesson
    DROP CONSTRAINT player_stage_is_known,
    ADD CONSTRAINT player_stage_is_known CHECK (stage BETWEEN 0 AND 4);
CREATE UNIQUE INDEX player_by_external_id ON player (class_id, external_id) WHERE external_id <> '';

-- Days on which a player is asked for nothing, or not for one step.
CREATE TABLE exception (
    id         uuid PRIMARY KEY,
    player_id  uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    step_id    uuid REFERENCES step ON DELETE CASCADE, -- null: every step
    first_day  date NOT NULL,
    last_day   date NOT NULL,
    why        text NOT NULL DEFAULT '',
    CONSTRAINT exception_days_are_in_order CHECK (first_day <= last_day)
);
CREATE INDEX exception_by_player ON exception (player_id, first_day);

-- A week's plan. The items are kept whole, revision after revision; the step
-- table holds them as they are now, for everything that is played.
CREATE TABLE plan (
    id        uuid PRIMARY KEY,
    class_id  uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    monday    date NOT NULL,
    name      text NOT NULL,
    revision  integer NOT NULL,
    CONSTRAINT plan_is_the_weeks_only UNIQUE (class_id, monday),
    CONSTRAINT plan_begins_on_monday CHECK (extract(isodow FROM monday) = 1)
);
CREATE TABLE plan_revision (
    plan_id      uuid NOT NULL REFERENCES plan ON DELETE CASCADE,
    revision     integer NOT NULL,
    items        jsonb NOT NULL,
    director_id  uuid NOT NULL REFERENCES director,
    changed_at   timestamptz NOT NULL,
    changes      text NOT NULL, -- in a few words
    PRIMARY KEY (plan_id, revision)
);
ALTER TABLE step
    ADD COLUMN plan_id  uuid REFERENCES plan ON DELETE CASCADE,
    ADD COLUMN wanted   integer NOT NULL DEFAULT 2,
    ADD COLUMN pinned   boolean NOT NULL DEFAULT false,
    ADD COLUMN removed  boolean NOT NULL DEFAULT false; -- taken off the plan after it was played
CREATE INDEX step_by_plan ON step (plan_id, position);

CREATE TABLE plan_template (
    id           uuid PRIMARY KEY,
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    name         text NOT NULL,
    items        jsonb NOT NULL,
    made_at      timestamptz NOT NULL,
    CONSTRAINT plan_template_has_a_name CHECK (length(name) BETWEEN 1 AND 100)
);
CREATE INDEX plan_template_by_director ON plan_template (director_id, name);

-- +goose Down
DROP TABLE plan_template, plan_revision, exception;
ALTER TABLE step DROP COLUMN plan_id, DROP COLUMN wanted, DROP COLUMN pinned, DROP COLUMN removed;
DROP TABLE plan;
ALTER TABLE player DROP COLUMN variant, DROP COLUMN external_id, DROP COLUMN left_at;
UPDATE player SET stage = 1 WHERE stage = 0;
ALTER TABLE class ADD COLUMN a4_hz double precision NOT NULL DEFAULT 440, ADD COLUMN note_start text NOT NULL DEFAULT 'tongued';
ALTER TABLE class DROP COLUMN conventions, DROP COLUMN tips, DROP COLUMN first_lesson, DROP COLUMN class_minutes, DROP COLUMN home_minutes, DROP COLUMN feed_token, DROP COLUMN archived_at;
