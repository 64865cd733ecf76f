-- +goose Up
CREATE TABLE school (
    id         uuid PRIMARY KEY,
    name       text NOT NULL,
    time_zone  text NOT NULL -- decides what "today" is; instants are stored in UTC
);

CREATE TABLE director (
    id             uuid PRIMARY KEY,
    name           text NOT NULL,
    email          text NOT NULL,
    password_hash  text NOT NULL,
    CONSTRAINT director_email_is_lower_case CHECK (email = lower(email)),
    CONSTRAINT director_email_is_unique UNIQUE (email)
);

CREATE TABLE class (
    id          uuid PRIMARY KEY,
    school_id   uuid NOT NULL REFERENCES school,
    name        text NOT NULL,
    code        text NOT NULL,
    a4_hz       double precision NOT NULL DEFAULT 440, -- the band's tuning reference
    note_start  text NOT NULL DEFAULT 'tongued',
    CONSTRAINT class_code_is_unique UNIQUE (code),
    CONSTRAINT class_code_is_upper_case CHECK (code = upper(code)),
    CONSTRAINT class_a4_is_plausible CHECK (a4_hz BETWEEN 430 AND 450),
    CONSTRAINT class_note_start_is_known CHECK (note_start IN ('tongued', 'breath'))
);

CREATE TABLE class_director (
    class_id     uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    PRIMARY KEY (class_id, director_id)
);

CREATE TABLE player (
    id          uuid PRIMARY KEY,
    class_id    uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    first_name  text NOT NULL,
    last_name   text NOT NULL,
    instrument  text NOT NULL,
    stage       integer NOT NULL DEFAULT 1,
    pin_hash    text NOT NULL,
    CONSTRAINT player_stage_is_known CHECK (stage BETWEEN 1 AND 4)
);
CREATE INDEX player_by_class ON player (class_id);

-- A step is an exercise placed on days. What it asks for lives in versions
-- that are only ever added, so that a take keeps the version it was played to.
CREATE TABLE step (
    id         uuid PRIMARY KEY,
    class_id   uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    position   integer NOT NULL,
    kind       text NOT NULL,
    first_day  date NOT NULL,
    last_day   date NOT NULL,
    CONSTRAINT step_days_are_in_order CHECK (first_day <= last_day)
);
CREATE INDEX step_by_class_and_days ON step (class_id, first_day, last_day);

CREATE TABLE step_version (
    step_id     uuid NOT NULL REFERENCES step ON DELETE CASCADE,
    version     integer NOT NULL,
    parameters  jsonb NOT NULL,
    created_at  timestamptz NOT NULL,
    PRIMARY KEY (step_id, version)
);

CREATE TABLE take (
    id            uuid PRIMARY KEY, -- made by the client, so that an upload can be repeated
    player_id     uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    step_id       uuid NOT NULL,
    step_version  integer NOT NULL,
    day           date NOT NULL, -- the school's day it counts for
    source        text NOT NULL,
    received_at   timestamptz NOT NULL,
    duration_ms   integer NOT NULL,
    rate_hz       integer NOT NULL,
    start_ms      integer NOT NULL, -- where the score's first click lies in the recording
    sha256        bytea NOT NULL,   -- of the bytes received
    score         jsonb NOT NULL,   -- as it was worked out for this player when recorded
    failure       text NOT NULL DEFAULT '', -- why it could not be analysed
    FOREIGN KEY (step_id, step_version) REFERENCES step_version (step_id, version) ON DELETE CASCADE,
    CONSTRAINT take_source_is_known CHECK (source IN ('microphone', 'file', 'simulated')),
    CONSTRAINT take_duration_is_positive CHECK (duration_ms > 0),
    CONSTRAINT take_sha256_is_whole CHECK (octet_length(sha256) = 32)
);
CREATE INDEX take_by_player_and_day ON take (player_id, day, received_at);
CREATE INDEX take_by_step_and_day ON take (step_id, day, received_at);

-- What was measured. Newer ears add rows and keep the older ones.
CREATE TABLE analysis (
    take_id     uuid NOT NULL REFERENCES take ON DELETE CASCADE,
    version     integer NOT NULL,
    created_at  timestamptz NOT NULL,
    result      text NOT NULL,
    tip_key     text NOT NULL,
    measured    jsonb NOT NULL,
    verdict     jsonb NOT NULL,
    ribbon      jsonb NOT NULL, -- the small drawing; the large one is drawn from the contour
    contour     bytea NOT NULL,
    PRIMARY KEY (take_id, version),
    CONSTRAINT analysis_result_is_known CHECK (result IN ('clean', 'nearly', 'not-yet', 'cant-tell'))
);

-- The director's word. It stands beside the measured one and never replaces it.
CREATE TABLE review (
    take_id      uuid PRIMARY KEY REFERENCES take ON DELETE CASCADE,
    director_id  uuid NOT NULL REFERENCES director,
    result       text NOT NULL,
    reviewed_at  timestamptz NOT NULL,
    CONSTRAINT review_result_is_known CHECK (result IN ('clean', 'nearly', 'not-yet', 'cant-tell'))
);

CREATE TABLE comment (
    id           uuid PRIMARY KEY,
    take_id      uuid NOT NULL REFERENCES take ON DELETE CASCADE,
    director_id  uuid NOT NULL REFERENCES director,
    body         text NOT NULL,
    written_at   timestamptz NOT NULL,
    CONSTRAINT comment_says_something CHECK (length(body) BETWEEN 1 AND 1000)
);
CREATE INDEX comment_by_take ON comment (take_id, written_at);

CREATE TABLE sessions ( -- the shape scs expects
    token   text PRIMARY KEY,
    data    bytea NOT NULL,
    expiry  timestamptz NOT NULL
);
CREATE INDEX sessions_by_expiry ON sessions (expiry);

-- +goose Down
DROP TABLE sessions, comment, review, analysis, take, step_version, step, player, class_director, class, director, school;
