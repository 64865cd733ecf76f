-- What a school's people said of their lists by hand, once: what columns mean, and words for
-- instruments.

-- +goose Up
ALTER TABLE school ADD COLUMN list_words jsonb NOT NULL DEFAULT '{}';

-- +goose Down
ALTER TABLE school DROP COLUMN list_words;
