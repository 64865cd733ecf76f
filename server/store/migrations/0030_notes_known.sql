-- The notes a class knows, instrument by instrument, and how a player differs. Classes that
-- were there before keep every note their stage reaches, until their director says otherwise.

-- +goose Up
ALTER TABLE class  ADD COLUMN known jsonb NOT NULL DEFAULT '{}';
ALTER TABLE player ADD COLUMN knows jsonb NOT NULL DEFAULT '{}';
UPDATE class SET known = '{"by_stage": true}';

-- +goose Down
ALTER TABLE player DROP COLUMN knows;
ALTER TABLE class DROP COLUMN known;
