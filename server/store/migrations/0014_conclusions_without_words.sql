-- A verdict is kept as keys and numbers; its words are made where it is shown. What
-- was judged before keeps the words it was given, in short.

-- +goose Up
ALTER TABLE take ADD COLUMN conclusion jsonb; -- the verdict without its measures; null while it waits
ALTER TABLE tick ADD COLUMN conclusion jsonb;
-- The versions of the ear by which everything that was kept has been judged again.
CREATE TABLE judged_again (
    version integer PRIMARY KEY,
    at      timestamptz NOT NULL
);

-- +goose Down
DROP TABLE judged_again;
ALTER TABLE tick DROP COLUMN conclusion;
ALTER TABLE take DROP COLUMN conclusion;
