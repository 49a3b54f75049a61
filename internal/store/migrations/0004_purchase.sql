-- +goose Up
-- How several projects are bought and cut together: what is chosen for all of them.
CREATE TABLE purchase (
    projects TEXT PRIMARY KEY, -- their ids, sorted, with commas between
    revision INTEGER NOT NULL,
    updated  INTEGER NOT NULL,
    body     TEXT NOT NULL
) STRICT;
