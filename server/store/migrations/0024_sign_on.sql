-- A school may let its people sign in with the accounts they have: OpenID Connect.

-- +goose Up
CREATE TABLE school_sign_on (
    school_id     uuid PRIMARY KEY REFERENCES school ON DELETE CASCADE,
    issuer        text NOT NULL, -- of the school's provider
    client_id     text NOT NULL,
    client_secret text NOT NULL,
    domains       jsonb NOT NULL DEFAULT '[]', -- of addresses that are let in; [] for any
    roster_claim  text NOT NULL DEFAULT 'sub'  -- that says a player's number on the school's list
);

-- +goose Down
DROP TABLE school_sign_on;
