-- A colleague is asked, and accepts. Whether an address has an account is told to nobody.

-- +goose Up
CREATE TABLE class_invitation (
    class_id    uuid NOT NULL REFERENCES class ON DELETE CASCADE,
    email       text NOT NULL, -- as directors sign in with it
    invited_by  uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    at          timestamptz NOT NULL,
    PRIMARY KEY (class_id, email)
);
CREATE INDEX class_invitation_by_email ON class_invitation (email);

-- +goose Down
DROP TABLE class_invitation;
