-- +goose Up
-- Which recordings are old enough to go, without walking through the years' takes.
CREATE INDEX take_with_sound ON take (received_at) WHERE sound_gone_at IS NULL;

-- +goose Down
DROP INDEX take_with_sound;
