-- +goose Up
-- The newest word on a take, kept with it so that lists need not open analyses.
ALTER TABLE take
    ADD COLUMN result  text NOT NULL DEFAULT '', -- measured; empty while it waits
    ADD COLUMN cause   text NOT NULL DEFAULT '', -- what decided, unless it is clean
    ADD COLUMN short   text NOT NULL DEFAULT ''; -- in a few words
UPDATE take t SET result = a.result, cause = coalesce(a.verdict->'deciding'->>'cause', ''), short = coalesce(a.verdict->>'short', '')
FROM (SELECT DISTINCT ON (take_id) take_id, result, verdict FROM analysis ORDER BY take_id, version DESC) a WHERE a.take_id = t.id;

-- The notes of a take, as note maps and growth count them; written with the
-- analysis, in one transaction.
CREATE TABLE take_note (
    take_id     uuid NOT NULL REFERENCES take ON DELETE CASCADE,
    number      smallint NOT NULL, -- of the score's targets, from 0
    player_id   uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    day         date NOT NULL,
    sounding    smallint NOT NULL, -- MIDI number asked for
    good        boolean NOT NULL,
    trusted     boolean NOT NULL,
    centre      real NOT NULL, -- cents
    steadiness  real NOT NULL, -- cents
    held        real NOT NULL, -- seconds
    PRIMARY KEY (take_id, number)
);
CREATE INDEX take_note_by_player ON take_note (player_id, day) INCLUDE (sounding, good, trusted, centre, steadiness, held);

-- A director's words are only ever added to; the latest that stands counts.
ALTER TABLE review DROP CONSTRAINT review_pkey, ADD COLUMN id uuid NOT NULL DEFAULT gen_random_uuid(), ADD PRIMARY KEY (id);
ALTER TABLE review ALTER COLUMN id DROP DEFAULT;
CREATE INDEX review_by_take ON review (take_id, reviewed_at DESC);
ALTER TABLE comment
    ADD COLUMN kind  text NOT NULL DEFAULT 'comment',
    ADD COLUMN at_s  double precision, -- where in the recording it is pinned
    ADD CONSTRAINT comment_kind_is_known CHECK (kind IN ('comment', 'praise', 'again', 'voice'));

-- A director's own phrases, most used first.
CREATE TABLE phrase (
    id           uuid PRIMARY KEY,
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    words        text NOT NULL,
    used         integer NOT NULL DEFAULT 0,
    CONSTRAINT phrase_says_something CHECK (length(words) BETWEEN 1 AND 200),
    CONSTRAINT phrase_is_there_once UNIQUE (director_id, words)
);

-- A morning's listening, where it stands; the same on every device.
CREATE TABLE listening (
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    class_id     uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    day          date NOT NULL,
    minutes      integer NOT NULL,
    excerpts     jsonb NOT NULL,
    place        integer NOT NULL DEFAULT 0,
    spent_s      double precision NOT NULL DEFAULT 0,
    PRIMARY KEY (director_id, class_id, day)
);
-- Which takes a director has listened to.
CREATE TABLE listened (
    take_id      uuid NOT NULL REFERENCES take ON DELETE CASCADE,
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    at           timestamptz NOT NULL,
    PRIMARY KEY (take_id, director_id)
);
ALTER TABLE class
    ADD COLUMN weights    jsonb,                          -- of the reasons to hear somebody, where they are the director's own
    ADD COLUMN keep_days  integer NOT NULL DEFAULT 365,  -- how long recordings are kept; measures stay
    ADD CONSTRAINT class_keeps_recordings_a_while CHECK (keep_days BETWEEN 7 AND 3650);
ALTER TABLE take ADD COLUMN sound_gone_at timestamptz; -- the recording was let go of

-- +goose Down
ALTER TABLE take DROP COLUMN sound_gone_at;
ALTER TABLE class DROP COLUMN weights, DROP COLUMN keep_days;
DROP TABLE listened, listening, phrase;
ALTER TABLE comment DROP COLUMN kind, DROP COLUMN at_s;
DELETE FROM review r USING review newer WHERE newer.take_id = r.take_id AND newer.reviewed_at > r.reviewed_at;
DROP INDEX review_by_take;
ALTER TABLE review DROP CONSTRAINT review_pkey, DROP COLUMN id, ADD PRIMARY KEY (take_id);
DROP TABLE take_note;
ALTER TABLE take DROP COLUMN result, DROP COLUMN cause, DROP COLUMN short;
