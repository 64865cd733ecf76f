-- +goose Up
-- A score is worked out from a step, an instrument and a stage: a section's takes
-- of a day share one. Kept once, under the hash of what it says.
CREATE TABLE score (
    id    bytea PRIMARY KEY, -- SHA-256 of the body as it was written
    body  jsonb NOT NULL,
    CONSTRAINT score_id_is_whole CHECK (octet_length(id) = 32)
);
ALTER TABLE take ADD COLUMN score_id bytea;
UPDATE take SET score_id = sha256(score::text::bytea);
INSERT INTO score SELECT DISTINCT ON (score_id) score_id, score FROM take;
ALTER TABLE take ALTER COLUMN score_id SET NOT NULL, DROP COLUMN score,
    ADD CONSTRAINT take_score_is_kept FOREIGN KEY (score_id) REFERENCES score;

-- +goose Down
ALTER TABLE take ADD COLUMN score jsonb;
UPDATE take t SET score = s.body FROM score s WHERE s.id = t.score_id;
ALTER TABLE take ALTER COLUMN score SET NOT NULL, DROP COLUMN score_id;
DROP TABLE score;
