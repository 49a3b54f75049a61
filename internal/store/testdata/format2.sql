CREATE TABLE goose_db_version (id INTEGER PRIMARY KEY AUTOINCREMENT, version_id INTEGER NOT NULL, is_applied INTEGER NOT NULL, tstamp TIMESTAMP DEFAULT (datetime('now')));
INSERT INTO goose_db_version (version_id, is_applied) VALUES (0, 1), (1, 1), (2, 1);
CREATE TABLE project (id TEXT PRIMARY KEY, name TEXT NOT NULL, body TEXT NOT NULL, revision INTEGER NOT NULL, created TEXT NOT NULL, updated TEXT NOT NULL, deleted TEXT) STRICT;
CREATE TABLE refused_save (id INTEGER PRIMARY KEY, project TEXT NOT NULL REFERENCES project (id) ON DELETE CASCADE, based_on INTEGER NOT NULL, name TEXT NOT NULL, body TEXT NOT NULL, at TEXT NOT NULL) STRICT;
CREATE TABLE shop (id INTEGER PRIMARY KEY CHECK (id = 1), body TEXT NOT NULL, revision INTEGER NOT NULL, updated TEXT NOT NULL) STRICT;
INSERT INTO project VALUES
 ('early', 'Earlier', '{"name":"Earlier"}', 5, '2026-11-01T08:00:00Z', '2026-11-20T10:00:12.05Z', NULL),
 ('late', 'Later', '{"name":"Later","template":true}', 2, '2026-11-02T08:00:00Z', '2026-11-20T10:00:12.1Z', NULL),
 ('gone1', 'Gone', '{}', 1, '2026-11-02T08:00:00Z', '2026-11-02T08:00:00.5Z', strftime('%Y-%m-%dT%H:%M:%SZ', 'now'));
INSERT INTO refused_save VALUES (3, 'early', 4, 'mine', '{}', strftime('%Y-%m-%dT%H:%M:%S.25Z', 'now'));
INSERT INTO shop VALUES (1, '{"tools":[]}', 4, '2026-11-02T08:00:00.123456789Z');
