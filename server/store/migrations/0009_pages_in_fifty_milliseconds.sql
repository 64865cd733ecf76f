-- +goose Up
-- What a page needs of a take without opening what was heard in it: where it is
-- cut when somebody listens (both 0: from the beginning), and what was read.
ALTER TABLE take
    ADD COLUMN cut_from_s  real NOT NULL DEFAULT 0,
    ADD COLUMN cut_to_s    real NOT NULL DEFAULT 0,
    ADD COLUMN cut_at      text NOT NULL DEFAULT '';
ALTER TABLE score ADD COLUMN written text NOT NULL DEFAULT ''; -- the notes in order, as the player reads them
UPDATE score SET written = coalesce((
    SELECT string_agg(segment->>'written_name', ' ') FROM jsonb_array_elements(body->'segments') segment
    WHERE segment->>'phase' IN ('play', 'buzz', 'sing')), '');

-- Maps and growth are counted from the index alone.
DROP INDEX take_note_by_player;
CREATE INDEX take_note_by_player ON take_note (player_id, day) INCLUDE (take_id, number, sounding, good, trusted, centre, steadiness, held);

-- A ribbon goes from here to the board as it is: text, not taken apart.
ALTER TABLE analysis ALTER COLUMN ribbon TYPE json USING ribbon::json;

-- +goose Down
ALTER TABLE analysis ALTER COLUMN ribbon TYPE jsonb USING ribbon::jsonb;
DROP INDEX take_note_by_player;
CREATE INDEX take_note_by_player ON take_note (player_id, day) INCLUDE (sounding, good, trusted, centre, steadiness, held);
ALTER TABLE score DROP COLUMN written;
ALTER TABLE take DROP COLUMN cut_from_s, DROP COLUMN cut_to_s, DROP COLUMN cut_at;
