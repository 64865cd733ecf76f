-- +goose Up
-- Takes wait on a player's device, encrypted with this key, which the device
-- forgets when the player signs out.
ALTER TABLE player ADD COLUMN keep_key bytea;
ALTER TABLE take
    ADD COLUMN played_at      timestamptz,              -- when it was recorded
    ADD COLUMN device_result  text NOT NULL DEFAULT '', -- what the device told the player at once
    ADD CONSTRAINT take_device_result_is_known CHECK (device_result IN ('', 'clean', 'nearly', 'not-yet', 'cant-tell'));
UPDATE take SET played_at = received_at;
ALTER TABLE take ALTER COLUMN played_at SET NOT NULL;
ALTER TABLE ladder_entry
    ADD COLUMN act_id uuid, -- of a step back, made by the device
    ADD CONSTRAINT ladder_entry_of_an_act_is_its_only UNIQUE (act_id);
CREATE INDEX take_heard_on_a_device ON take (received_at) WHERE device_result <> '';

-- +goose Down
ALTER TABLE ladder_entry DROP COLUMN act_id;
DROP INDEX take_heard_on_a_device;
ALTER TABLE take DROP COLUMN played_at, DROP COLUMN device_result;
ALTER TABLE player DROP COLUMN keep_key;
