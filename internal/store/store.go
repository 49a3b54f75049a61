// Package store keeps projects and the shop in one SQLite file. Documents
// carry a revision; a save names the revision it was based on, and a stale one
// is refused with both states kept. What is acknowledged is on disk.
package store

import (
	"context"
	"crypto/rand"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/url"
	"os"
	"path/filepath"
	"time"

	"github.com/pressly/goose/v3"
	_ "modernc.org/sqlite" // the driver "sqlite", without cgo
)

//go:embed migrations/*.sql
var migrations embed.FS

// FileName is the database's name in the data directory.
const FileName = "sturdyelbow.db"

// ErrNotFound says that there is no such document.
var ErrNotFound = errors.New("there is no such document")

// StaleError says that a save was based on an older revision. The refused
// state is kept under Kept.
type StaleError struct {
	Current int64
	Kept    int64
}

func (e *StaleError) Error() string {
	return fmt.Sprintf("saved elsewhere in the meantime: revision %d is newer", e.Current)
}

// Project is a stored project.
type Project struct {
	ID       string
	Name     string
	Body     []byte
	Revision int64
	Created  time.Time
	Updated  time.Time
}

// Store is an open database.
type Store struct{ db *sql.DB }

// Open opens or makes the database in a directory and brings it up to date.
func Open(ctx context.Context, dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data directory cannot be made: %w", err)
	}
	return open(ctx, filepath.Join(dir, FileName))
}

func open(ctx context.Context, path string) (*Store, error) {
	q := url.Values{
		"_pragma": {"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)"},
		"_txlock": {"immediate"},
	}
	db, err := sql.Open("sqlite", "file:"+(&url.URL{Path: path}).EscapedPath()+"?"+q.Encode())
	if err != nil {
		return nil, err
	}
	db.SetMaxOpenConns(4)
	s := &Store{db}
	if err := s.migrate(ctx); err != nil {
		return nil, errors.Join(fmt.Errorf("%s cannot be opened: %w", path, err), db.Close())
	}
	return s, nil
}

func (s *Store) migrate(ctx context.Context) error {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return err
	}
	p, err := goose.NewProvider(goose.DialectSQLite3, s.db, files, goose.WithSlog(slog.New(slog.DiscardHandler)))
	if err != nil {
		return err
	}
	if _, err = p.Up(ctx); err != nil {
		return err
	}
	return s.sweep(ctx)
}

// Close closes the database.
func (s *Store) Close() error { return s.db.Close() }

// Backup writes a whole and consistent copy of the live database to a new file.
func (s *Store) Backup(ctx context.Context, path string) error {
	if _, err := os.Stat(path); err == nil {
		return fmt.Errorf("%s is there already: choose another name", path)
	}
	_, err := s.db.ExecContext(ctx, "VACUUM INTO ?", path)
	return err
}

func now() string { return time.Now().UTC().Format(time.RFC3339Nano) }

func parseTime(text string) time.Time {
	t, err := time.Parse(time.RFC3339Nano, text)
	if err != nil {
		return time.Time{}
	}
	return t
}

const projectColumns = "id, name, body, revision, created, updated"

func scanProject(row interface{ Scan(...any) error }) (p Project, err error) {
	var created, updated string
	err = row.Scan(&p.ID, &p.Name, &p.Body, &p.Revision, &created, &updated)
	p.Created, p.Updated = parseTime(created), parseTime(updated)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return p, err
}

// Projects lists every project, the one changed last first.
func (s *Store) Projects(ctx context.Context) (all []Project, err error) {
	rows, err := s.db.QueryContext(ctx, "SELECT "+projectColumns+" FROM project WHERE deleted IS NULL ORDER BY updated DESC, id")
	if err != nil {
		return nil, err
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		p, err := scanProject(rows)
		if err != nil {
			return nil, err
		}
		all = append(all, p)
	}
	return all, rows.Err()
}

// Project gives one project; [ErrNotFound] when there is none.
func (s *Store) Project(ctx context.Context, id string) (Project, error) {
	return scanProject(s.db.QueryRowContext(ctx, "SELECT "+projectColumns+" FROM project WHERE id = ? AND deleted IS NULL", id))
}

// Create stores a new project at revision 1.
func (s *Store) Create(ctx context.Context, name string, body []byte) (Project, error) {
	id, at := rand.Text()[:12], now()
	_, err := s.db.ExecContext(ctx, "INSERT INTO project ("+projectColumns+") VALUES (?, ?, ?, 1, ?, ?)", id, name, string(body), at, at)
	return Project{ID: id, Name: name, Body: body, Revision: 1, Created: parseTime(at), Updated: parseTime(at)}, err
}

// Save replaces a project that is still at the revision it was based on and
// gives the new revision. A stale save is kept aside and refused with a
// [StaleError].
func (s *Store) Save(ctx context.Context, id string, basedOn int64, name string, body []byte) (revision int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		switch err := tx.QueryRowContext(ctx, "SELECT revision FROM project WHERE id = ? AND deleted IS NULL", id).Scan(&revision); {
		case errors.Is(err, sql.ErrNoRows):
			return ErrNotFound
		case err != nil:
			return err
		case revision != basedOn:
			r, err := tx.ExecContext(
				ctx,
				"INSERT INTO refused_save (project, based_on, name, body, at) VALUES (?, ?, ?, ?, ?)",
				id,
				basedOn,
				name,
				string(body),
				now(),
			)
			if err != nil {
				return err
			}
			kept, err := r.LastInsertId()
			if err != nil {
				return err
			}
			return &StaleError{Current: revision, Kept: kept}
		}
		revision++
		_, err := tx.ExecContext(
			ctx,
			"UPDATE project SET name = ?, body = ?, revision = ?, updated = ? WHERE id = ?",
			name,
			string(body),
			revision,
			now(),
			id,
		)
		return err
	})
	return revision, err
}

// Refused gives a state that a stale save left behind.
func (s *Store) Refused(ctx context.Context, project string, kept int64) (name string, body []byte, err error) {
	err = s.db.QueryRowContext(ctx, "SELECT r.name, r.body FROM refused_save r JOIN project p ON p.id = r.project WHERE p.id = ? AND p.deleted IS NULL AND r.id = ?", project, kept).
		Scan(&name, &body)
	if errors.Is(err, sql.ErrNoRows) {
		err = ErrNotFound
	}
	return name, body, err
}

// Delete takes a project away; [Store.Restore] puts it back within a month.
func (s *Store) Delete(ctx context.Context, id string) error {
	return s.one(ctx, "UPDATE project SET deleted = ? WHERE id = ? AND deleted IS NULL", now(), id)
}

// Restore puts a deleted project back as it was.
func (s *Store) Restore(ctx context.Context, id string) error {
	return s.one(ctx, "UPDATE project SET deleted = NULL WHERE id = ? AND deleted IS NOT NULL", id)
}

// one runs a statement that is to change one project.
func (s *Store) one(ctx context.Context, statement string, args ...any) error {
	r, err := s.db.ExecContext(ctx, statement, args...)
	if err != nil {
		return err
	}
	if n, err := r.RowsAffected(); err != nil || n == 0 {
		return errors.Join(err, ErrNotFound)
	}
	return nil
}

// keptDeleted is how long a deleted project can be put back.
const keptDeleted = 30 * 24 * time.Hour

// sweep removes what was deleted long ago.
func (s *Store) sweep(ctx context.Context) error {
	_, err := s.db.ExecContext(ctx, "DELETE FROM project WHERE deleted < ?", time.Now().Add(-keptDeleted).UTC().Format(time.RFC3339Nano))
	return err
}

// Shop gives the shop's document; revision 0 and no body before the first save.
func (s *Store) Shop(ctx context.Context) (body []byte, revision int64, err error) {
	err = s.db.QueryRowContext(ctx, "SELECT body, revision FROM shop WHERE id = 1").Scan(&body, &revision)
	if errors.Is(err, sql.ErrNoRows) {
		return nil, 0, nil
	}
	return body, revision, err
}

// SaveShop replaces the shop's document like [Store.Save].
func (s *Store) SaveShop(ctx context.Context, basedOn int64, body []byte) (revision int64, err error) {
	err = s.within(ctx, func(tx *sql.Tx) error {
		if err := tx.QueryRowContext(ctx, "SELECT revision FROM shop WHERE id = 1").Scan(&revision); err != nil &&
			!errors.Is(err, sql.ErrNoRows) {
			return err
		}
		if revision != basedOn {
			return &StaleError{Current: revision}
		}
		revision++
		_, err := tx.ExecContext(
			ctx,
			"INSERT INTO shop (id, body, revision, updated) VALUES (1, ?, ?, ?) ON CONFLICT (id) DO UPDATE SET body = excluded.body, revision = excluded.revision, updated = excluded.updated",
			string(body),
			revision,
			now(),
		)
		return err
	})
	return revision, err
}

// within runs a transaction. A stale save commits what it kept.
func (s *Store) within(ctx context.Context, do func(tx *sql.Tx) error) error {
	tx, err := s.db.BeginTx(ctx, nil)
	if err != nil {
		return err
	}
	err = do(tx)
	var stale *StaleError
	if err != nil && !errors.As(err, &stale) {
		return errors.Join(err, tx.Rollback())
	}
	return errors.Join(err, tx.Commit())
}
