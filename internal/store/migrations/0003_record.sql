-- +goose Up
-- Times are whole nanoseconds since 1970, so that they sort. What the shelf and the
-- starters list stands before the body, which then need not be read.
CREATE TABLE project_as_listed (
    id       TEXT PRIMARY KEY,
    name     TEXT NOT NULL,
    revision INTEGER NOT NULL,
    created  INTEGER NOT NULL,
    updated  INTEGER NOT NULL,
    deleted  INTEGER,
    template INTEGER NOT NULL, -- whether others are begun from it
    format   INTEGER NOT NULL, -- of the body
    body     TEXT NOT NULL
) STRICT;

INSERT INTO project_as_listed
SELECT id, name, revision,
       CAST(1000 * round(1000 * unixepoch(created, 'subsec')) AS INTEGER) * 1000,
       CAST(1000 * round(1000 * unixepoch(updated, 'subsec')) AS INTEGER) * 1000,
       CAST(1000 * round(1000 * unixepoch(deleted, 'subsec')) AS INTEGER) * 1000,
       json_valid(body) AND coalesce(json_extract(body, '$.template'), 0),
       0,
       body
FROM project;

CREATE TABLE refused_as_listed (
    id       INTEGER PRIMARY KEY,
    project  TEXT NOT NULL REFERENCES project_as_listed (id) ON DELETE CASCADE,
    based_on INTEGER NOT NULL,
    name     TEXT NOT NULL,
    at       INTEGER NOT NULL,
    body     TEXT NOT NULL
) STRICT;

INSERT INTO refused_as_listed
SELECT id, project, based_on, name, CAST(1000 * round(1000 * unixepoch(at, 'subsec')) AS INTEGER) * 1000, body FROM refused_save;

DROP TABLE refused_save;
DROP TABLE project;
ALTER TABLE project_as_listed RENAME TO project;
ALTER TABLE refused_as_listed RENAME TO refused_save;
CREATE INDEX project_by_time ON project (updated DESC, id) WHERE deleted IS NULL;

CREATE TABLE shop_as_counted (
    id       INTEGER PRIMARY KEY CHECK (id = 1),
    revision INTEGER NOT NULL,
    updated  INTEGER NOT NULL,
    body     TEXT NOT NULL
) STRICT;
INSERT INTO shop_as_counted
SELECT id, revision, CAST(1000 * round(1000 * unixepoch(updated, 'subsec')) AS INTEGER) * 1000, body FROM shop;
DROP TABLE shop;
ALTER TABLE shop_as_counted RENAME TO shop;

-- What each save replaced, packed with gzip; thinned as it grows old.
CREATE TABLE revision (
    project  TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    revision INTEGER NOT NULL,
    at       INTEGER NOT NULL, -- when it was saved
    name     TEXT NOT NULL,
    body     BLOB NOT NULL,
    PRIMARY KEY (project, revision)
) STRICT;

-- What was done. It is only ever added to: what did not happen after all is taken back
-- by an event of its own. The sequence is the order in which the server took them.
CREATE TABLE event (
    seq     INTEGER PRIMARY KEY AUTOINCREMENT,
    project TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE,
    id      TEXT NOT NULL, -- made on the device: what is sent twice counts once
    device  TEXT NOT NULL,
    at      INTEGER NOT NULL,
    body    TEXT NOT NULL,
    UNIQUE (project, id)
) STRICT;

CREATE INDEX event_in_order ON event (project, seq);

-- +goose StatementBegin
CREATE TRIGGER event_is_kept BEFORE UPDATE ON event
BEGIN
    SELECT raise(ABORT, 'an event is never changed');
END;
-- +goose StatementEnd
-- +goose StatementBegin
CREATE TRIGGER event_stays BEFORE DELETE ON event
WHEN EXISTS (SELECT 1 FROM project WHERE id = OLD.project)
BEGIN
    SELECT raise(ABORT, 'an event goes only with its project');
END;
-- +goose StatementEnd
