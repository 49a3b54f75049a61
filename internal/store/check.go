package store

import (
	"context"
	"database/sql"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"
)

// NewerError says that a newer version of the program wrote the database. It is left
// untouched.
type NewerError struct {
	Path         string
	Found, Known int64
}

func (e *NewerError) Error() string {
	return fmt.Sprintf(
		"%s was written by a newer version of Sturdy Elbow (its tables are version %d, this program knows %d): start that version, or give this one another folder with --data",
		e.Path,
		e.Found,
		e.Known,
	)
}

// DamagedError says what of a database cannot be read, and which backup is the newest.
type DamagedError struct {
	Path   string
	What   []string
	Backup string // "" where there is none
}

func (e *DamagedError) Error() string {
	back := "there is no backup beside it; run: sturdyelbow check"
	if e.Backup != "" {
		back = "put the newest backup in its place with: sturdyelbow restore " + e.Backup
	}
	return fmt.Sprintf("%s is damaged: %s; %s", e.Path, strings.Join(e.What, "; "), back)
}

// sqliteMark begins every SQLite file.
const sqliteMark = "SQLite format 3\x00"

// sound says whether the file at a path can be opened: it is a database, no newer
// version wrote it, and its pages hang together. A file that is not there yet is sound.
func sound(ctx context.Context, path string) error {
	damage := func(what ...string) error {
		return &DamagedError{Path: path, What: what, Backup: NewestBackup(filepath.Dir(path))}
	}
	switch begins, err := begin(path); {
	case errors.Is(err, os.ErrNotExist):
		return nil
	case err != nil:
		return err
	case begins == "":
		return nil // made, and never written to
	case begins != sqliteMark:
		return damage("it is not a database, or its beginning was overwritten")
	}
	db, err := reading(path, "query_only(1)")
	if err != nil {
		return err
	}
	defer func() { _ = db.Close() }()
	var wrong []string
	err = eachText(ctx, db, "PRAGMA quick_check(5)", func(said string) {
		if said != "ok" {
			wrong = append(wrong, said)
		}
	})
	if err != nil || len(wrong) > 0 {
		var t *Trouble
		if err = troubled(err); err != nil && (!errors.As(err, &t) || t.Cause != Damaged) {
			return err
		}
		what := unreadable(ctx, db)
		if len(what) == 0 {
			what = []string{"its pages do not hang together"}
		}
		return damage(what...)
	}
	var version sql.NullInt64
	if err := db.QueryRowContext(ctx, "SELECT max(version_id) FROM goose_db_version WHERE is_applied").Scan(&version); err != nil {
		return nil //nolint:nilerr // there are no tables yet: they are made next
	}
	if known := latest(); version.Int64 > known {
		return &NewerError{path, version.Int64, known}
	}
	return nil
}

// reading opens a database that is not changed, also where nothing can be written.
func reading(path string, pragmas ...string) (*sql.DB, error) {
	pragmas = append(pragmas, "busy_timeout(5000)")
	try, err := os.CreateTemp(filepath.Dir(path), ".try-*")
	if err != nil { // its log cannot be made, and nobody else writes either
		return sql.Open("sqlite", source(path, pragmas, "immutable", "1"))
	}
	if err := errors.Join(try.Close(), os.Remove(try.Name())); err != nil {
		return nil, err
	}
	return sql.Open("sqlite", source(path, pragmas))
}

// begin gives the first bytes of a file, as many as begin a database.
func begin(path string) (string, error) {
	f, err := os.Open(path)
	if err != nil {
		return "", err
	}
	b := make([]byte, len(sqliteMark))
	n, err := io.ReadFull(f, b)
	if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) {
		err = nil
	}
	return string(b[:n]), errors.Join(err, f.Close())
}

func eachText(ctx context.Context, db *sql.DB, query string, each func(string)) error {
	rows, err := db.QueryContext(ctx, query)
	if err != nil {
		return err
	}
	for rows.Next() {
		var said string
		if err := rows.Scan(&said); err != nil {
			return errors.Join(err, rows.Close())
		}
		each(said)
	}
	return errors.Join(rows.Err(), rows.Close())
}

// tables are the tables, by what a builder would call them.
var tables = []struct{ table, columns, words string }{
	{"project", "name, body", "projects"},
	{"event", "id, body", "the record of what was done"},
	{"shop", "'the shop', body", "prices and tools"},
	{"purchase", "projects, body", "what is chosen for purchases of several projects"},
	{"revision", "name, body", "earlier states"},
	{"refused_save", "name, body", "refused saves"},
}

// unreadable says of each table how much of it cannot be read, in a builder's words.
func unreadable(ctx context.Context, db *sql.DB) (what []string) {
	for _, t := range tables {
		var there int
		if db.QueryRowContext(ctx, "SELECT count(*) FROM sqlite_master WHERE type = 'table' AND name = ?", t.table).Scan(&there) != nil {
			return []string{"the list of its tables cannot be read"}
		}
		if there == 0 {
			continue
		}
		n, err := 0, error(nil)
		rows, err := db.QueryContext(ctx, "SELECT "+t.columns+" FROM "+t.table)
		if err == nil {
			for rows.Next() {
				var name string
				var body []byte
				if err = rows.Scan(&name, &body); err != nil {
					break
				}
				n++
			}
			err = errors.Join(err, rows.Err(), rows.Close())
		}
		if err != nil {
			what = append(what, fmt.Sprintf("%s: %d can be read, then it breaks off", t.words, n))
		}
	}
	return what
}

// Report is what a check of a database found.
type Report struct {
	Path     string
	Projects int
	Events   int
	States   int // earlier ones
	Wrong    []string
}

// Check reads all of a database, which may be in use, and says what is wrong with it.
// The error is of a file that cannot be looked at.
func Check(ctx context.Context, path string) (Report, error) {
	r := Report{Path: path}
	if _, err := os.Stat(path); err != nil {
		return r, fmt.Errorf("there is no database at %s", path)
	}
	var damaged *DamagedError
	switch err := sound(ctx, path); {
	case errors.As(err, &damaged):
		r.Wrong = damaged.What
		return r, nil
	case err != nil:
		return r, err
	}
	db, err := reading(path, "query_only(1)")
	if err != nil {
		return r, err
	}
	defer func() { _ = db.Close() }()
	if err := eachText(ctx, db, "PRAGMA integrity_check(20)", func(said string) {
		if said != "ok" {
			r.Wrong = append(r.Wrong, said)
		}
	}); err != nil {
		return r, troubled(err)
	}
	for _, c := range []struct {
		count *int
		table string
	}{{&r.Projects, "project"}, {&r.Events, "event"}, {&r.States, "revision"}} {
		_ = db.QueryRowContext(ctx, "SELECT count(*) FROM "+c.table).Scan(c.count) // an older database lacks some
	}
	r.Wrong = append(r.Wrong, unreadable(ctx, db)...)
	for _, t := range []string{"project", "event"} {
		_ = eachText(ctx, db, "SELECT id FROM "+t+" WHERE NOT json_valid(body)", func(id string) {
			r.Wrong = append(r.Wrong, fmt.Sprintf("%s %s: its text is not whole", t, id))
		})
	}
	_ = eachText(
		ctx,
		db,
		"SELECT 'event ' || id || ': it belongs to no project' FROM event WHERE project NOT IN (SELECT id FROM project)",
		func(s string) {
			r.Wrong = append(r.Wrong, s)
		},
	)
	var shop []byte
	if err := db.QueryRowContext(ctx, "SELECT body FROM shop").Scan(&shop); err == nil && !json.Valid(shop) {
		r.Wrong = append(r.Wrong, "prices and tools: their text is not whole")
	}
	return r, nil
}
