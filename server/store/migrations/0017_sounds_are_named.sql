-- The row names the sound: what is kept under a name never changes, and two sounds
-- under one number are two names. Sounds from before are named by their number alone.

-- +goose Up
ALTER TABLE take
    ADD COLUMN sound        text NOT NULL DEFAULT '', -- its name among the recordings
    ADD COLUMN sound_sha256 bytea;                    -- of the file as it is kept; null: not known
UPDATE take SET sound = id || '.flac' WHERE sound_gone_at IS NULL;
ALTER TABLE comment ADD COLUMN sound text NOT NULL DEFAULT '', ADD COLUMN sound_gone_at timestamptz;
UPDATE comment SET sound = 'voice-' || id || '.flac' WHERE kind = 'voice';
-- Takes that nobody has listened to yet: few, and looked for every hour.
CREATE INDEX take_unheard ON take (received_at) WHERE result = '' AND failure = '';
-- Sounds as they came, which wait to be packed.
CREATE INDEX take_unpacked ON take (received_at) WHERE sound LIKE '%.wav' AND sound_gone_at IS NULL;
CREATE INDEX comment_with_voice ON comment (written_at) WHERE kind = 'voice' AND sound_gone_at IS NULL;
-- Whose recordings these are: a process that sees others refuses to work.
CREATE TABLE cluster (
    one         boolean PRIMARY KEY DEFAULT true CHECK (one), -- row
    recordings  text NOT NULL
);
-- Who may hand simulated players in: nobody, pupils who try the program, or everybody,
-- in a class that is itself invented.
ALTER TABLE class ADD COLUMN simulated_players text NOT NULL DEFAULT 'no'
    CONSTRAINT class_simulated_players_is_known CHECK (simulated_players IN ('no', 'tried', 'demo'));
UPDATE class SET simulated_players = 'demo'
    WHERE id IN (SELECT p.class_id FROM take t JOIN player p ON p.id = t.player_id WHERE t.source = 'simulated');
ALTER TABLE take ADD COLUMN trial boolean NOT NULL DEFAULT false; -- tried out: shown, and never counted
-- Every list, map and tally reads this. A column added to take later is added here too.
CREATE VIEW counted_take AS SELECT * FROM take WHERE NOT trial;

-- +goose Down
DROP VIEW counted_take;
ALTER TABLE take DROP COLUMN trial;
ALTER TABLE class DROP COLUMN simulated_players;
DROP TABLE cluster;
DROP INDEX comment_with_voice, take_unpacked, take_unheard;
ALTER TABLE comment DROP COLUMN sound, DROP COLUMN sound_gone_at;
ALTER TABLE take DROP COLUMN sound, DROP COLUMN sound_sha256;
