-- The program writes letters: to whoever forgot a password, to a colleague who is invited,
-- and once a week to directors who want it. A director may ask for a code from a device,
-- beside the password.

-- +goose Up
CREATE TABLE password_reset (
    token_sha256 text PRIMARY KEY, -- of what the letter's link carries
    director_id  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    made_at      timestamptz NOT NULL
);
CREATE INDEX password_reset_by_director ON password_reset (director_id);

-- The stand-in for a mail server: what would have been sent.
CREATE TABLE mailbox (
    id        bigint GENERATED ALWAYS AS IDENTITY PRIMARY KEY,
    recipient text NOT NULL,
    subject   text NOT NULL,
    body      text NOT NULL,
    at        timestamptz NOT NULL
);

ALTER TABLE director
    ADD COLUMN weekly_summary boolean NOT NULL DEFAULT false,
    ADD COLUMN summary_sent   date, -- the Monday of the last one
    ADD COLUMN totp_secret    text NOT NULL DEFAULT '', -- of the device that makes codes; '' for none
    ADD COLUMN totp_used      bigint NOT NULL DEFAULT 0; -- the step of the last code: none counts twice

-- +goose Down
ALTER TABLE director
    DROP COLUMN weekly_summary, DROP COLUMN summary_sent, DROP COLUMN totp_secret, DROP COLUMN totp_used;
DROP TABLE password_reset, mailbox;
