-- Guessing is counted for what is guessed at, on all machines together; sessions are
-- somebody's, and can be ended; what was done with children's data is written down.

-- +goose Up
CREATE TABLE guess (
    key       text PRIMARY KEY,     -- what is guessed at, or from where, by a digest
    failures  integer NOT NULL,     -- wrong tries
    last      timestamptz NOT NULL
);
CREATE INDEX guess_by_age ON guess (last);
CREATE TABLE known_device (
    device   text NOT NULL, -- digest of what its cookie says
    subject  uuid NOT NULL, -- the player, director or class that it opened
    seen     timestamptz NOT NULL,
    PRIMARY KEY (device, subject)
);
-- Codes are read however they are typed.
CREATE UNIQUE INDEX class_by_code_as_read ON class (regexp_replace(code, '[^A-Z0-9]', '', 'g'));

DELETE FROM sessions; -- nobody knows whose they are
ALTER TABLE sessions
    ADD COLUMN id       uuid NOT NULL DEFAULT gen_random_uuid() UNIQUE,
    ADD COLUMN role     text NOT NULL DEFAULT '', -- '' before anybody has signed in
    ADD COLUMN subject  uuid,
    ADD COLUMN agent    text NOT NULL DEFAULT '', -- the browser, in words
    ADD COLUMN began    timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN seen     timestamptz NOT NULL DEFAULT now(),
    ADD COLUMN idle_s   integer NOT NULL DEFAULT 0; -- it ends when nothing is heard for so long; 0: it does not
CREATE INDEX sessions_by_subject ON sessions (subject) WHERE subject IS NOT NULL;

CREATE TABLE audit (
    id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    at        timestamptz NOT NULL,
    role      text NOT NULL,
    subject   uuid,          -- who did it; null for somebody who did not get in
    action    text NOT NULL, -- as in docs/audit.md
    class_id  uuid,
    player_id uuid,
    object    uuid           -- the take or what else it was done to
);
CREATE INDEX audit_by_time ON audit (at);
CREATE INDEX audit_by_class ON audit (class_id, at);

-- +goose Down
DROP TABLE audit;
DROP INDEX sessions_by_subject;
ALTER TABLE sessions DROP COLUMN id, DROP COLUMN role, DROP COLUMN subject, DROP COLUMN agent, DROP COLUMN began,
    DROP COLUMN seen, DROP COLUMN idle_s;
DROP INDEX class_by_code_as_read;
DROP TABLE known_device, guess;
