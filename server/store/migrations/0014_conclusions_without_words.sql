-- A verdict is kept as keys and numbers; its words are made where it is shown. What
-- was judged before keeps the words it was given, in short.

-- +goose Up
ALTER TABLE take ADD COLUMN conclusion jsonb; -- the verdict without its measures; null while it waits
ALTER TABLE tick ADD COLUMN conclusion jsonb;

-- +goose Down
ALTER TABLE tick DROP COLUMN conclusion;
ALTER TABLE take DROP COLUMN conclusion;
