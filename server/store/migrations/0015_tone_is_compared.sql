-- Tone is compared within one player, note, microphone and room, so each take says
-- what it came through and what its room was like, and each note how it sounded.
-- What was heard before says nothing until it is judged again.

-- +goose Up
ALTER TABLE take
    ADD COLUMN through text NOT NULL DEFAULT '', -- the microphone, by an opaque name the device makes; '' not known
    ADD COLUMN floor_db real,                    -- loudness of the room when nobody plays; null while it waits
    ADD COLUMN ring_s real;                      -- by when the room has fallen by 60 dB; 0 where it could not be heard
ALTER TABLE take_note
    ADD COLUMN level_db real,  -- these four are null where the tone cannot be relied on
    ADD COLUMN clearness real, -- harmonics to noise, dB
    ADD COLUMN brightness real, -- centre of the spectrum, in harmonics
    ADD COLUMN fullness real;  -- harmonics within 30 dB of the strongest

-- +goose Down
ALTER TABLE take_note
    DROP COLUMN level_db, DROP COLUMN clearness, DROP COLUMN brightness, DROP COLUMN fullness;
ALTER TABLE take DROP COLUMN through, DROP COLUMN floor_db, DROP COLUMN ring_s;
