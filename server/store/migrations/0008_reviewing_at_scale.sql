-- +goose Up
-- What was played of a step before, without walking through a player's year.
CREATE INDEX take_by_player_and_step ON take (player_id, step_id, received_at DESC);
-- When a player was last listened to, likewise.
ALTER TABLE listened ADD COLUMN player_id uuid REFERENCES player ON DELETE CASCADE;
UPDATE listened l SET player_id = t.player_id FROM take t WHERE t.id = l.take_id;
ALTER TABLE listened ALTER COLUMN player_id SET NOT NULL;
CREATE INDEX listened_by_player ON listened (player_id, at DESC);

-- +goose Down
ALTER TABLE listened DROP COLUMN player_id;
DROP INDEX take_by_player_and_step;
