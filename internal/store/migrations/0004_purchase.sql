-- +goose Up
-- How several projects are bought and cut together: what is chosen for all of them.
CREATE TABLE purchase (
    projects TEXT PRIMARY KEY, -- their ids, sorted, with commas between
    revision INTEGER NOT NULL,
    updated  INTEGER NOT NULL,
    body     TEXT NOT NULL
) STRICT;

-- An event is also looked for by its id alone, where what is lent is taken back.
CREATE INDEX event_by_id ON event (id);
