-- +goose Up
CREATE TABLE project (
    id       TEXT PRIMARY KEY,
    name     TEXT NOT NULL,
    body     TEXT NOT NULL,
    revision INTEGER NOT NULL,
    created  TEXT NOT NULL,
    updated  TEXT NOT NULL
) STRICT;

-- A save that was based on an older revision is refused but kept, so that
-- neither of two windows loses what was typed in it.
CREATE TABLE refused_save (
    id       INTEGER PRIMARY KEY,
    project  TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    based_on INTEGER NOT NULL,
    name     TEXT NOT NULL,
    body     TEXT NOT NULL,
    at       TEXT NOT NULL
) STRICT;

CREATE TABLE shop (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    body     TEXT NOT NULL,
    revision INTEGER NOT NULL,
    updated  TEXT NOT NULL
) STRICT;

-- +goose Down
DROP TABLE shop;
DROP TABLE refused_save;
DROP TABLE project;
