-- What homes agreed to, and how long things are kept. What was said stays: the latest counts.

-- +goose Up
ALTER TABLE school ADD COLUMN consent_needed boolean NOT NULL DEFAULT false;

CREATE TABLE consent (
    id         bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    player_id  uuid NOT NULL REFERENCES player ON DELETE CASCADE,
    purpose    text NOT NULL CHECK (purpose IN ('recording', 'keeping', 'showing')),
    given      boolean NOT NULL,
    said_by    text NOT NULL CHECK (length(said_by) <= 120), -- by whom, on which form
    at         timestamptz NOT NULL,
    entered_by uuid REFERENCES director ON DELETE SET NULL
);
CREATE INDEX consent_by_player ON consent (player_id, purpose, at DESC, id DESC);

-- core/consent has the same rule, tested against this one.
CREATE VIEW player_consent AS
SELECT p.id AS player_id,
    coalesce(r.given, NOT s.consent_needed) AS record,
    coalesce(r.given, NOT s.consent_needed) AND coalesce(k.given, NOT s.consent_needed) AS keep,
    coalesce(r.given, NOT s.consent_needed) AND coalesce(w.given, NOT s.consent_needed) AS show
FROM player p JOIN class c ON c.id = p.class_id JOIN school s ON s.id = c.school_id
    LEFT JOIN LATERAL (SELECT given FROM consent WHERE player_id = p.id AND purpose = 'recording'
        ORDER BY at DESC, id DESC LIMIT 1) r ON true
    LEFT JOIN LATERAL (SELECT given FROM consent WHERE player_id = p.id AND purpose = 'keeping'
        ORDER BY at DESC, id DESC LIMIT 1) k ON true
    LEFT JOIN LATERAL (SELECT given FROM consent WHERE player_id = p.id AND purpose = 'showing'
        ORDER BY at DESC, id DESC LIMIT 1) w ON true;

ALTER TABLE class
    ADD COLUMN keep_voice_days    integer NOT NULL DEFAULT 0, -- days; 0: as long as recordings
    ADD COLUMN keep_measures_days integer NOT NULL DEFAULT 0; -- days; 0: as long as the class

-- +goose Down
ALTER TABLE class DROP COLUMN keep_voice_days, DROP COLUMN keep_measures_days;
DROP VIEW player_consent;
DROP TABLE consent;
ALTER TABLE school DROP COLUMN consent_needed;
