-- A school is begun by whoever has the code that the program printed; it has an
-- administrator, and directors of its own before they have a class.

-- +goose Up
CREATE TABLE school_person (
    school_id     uuid NOT NULL REFERENCES school ON DELETE CASCADE,
    director_id   uuid NOT NULL REFERENCES director ON DELETE CASCADE,
    administers   boolean NOT NULL DEFAULT false,
    PRIMARY KEY (school_id, director_id)
);
CREATE INDEX school_person_by_director ON school_person (director_id);

-- Whoever directs a class is of its school.
INSERT INTO school_person (school_id, director_id)
SELECT DISTINCT c.school_id, cd.director_id FROM class_director cd JOIN class c ON c.id = cd.class_id;

CREATE TABLE first_start (
    code_sha256 text PRIMARY KEY, -- of the one-time code that the log shows
    made_at     timestamptz NOT NULL
);

-- +goose Down
DROP TABLE first_start, school_person;
