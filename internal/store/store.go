// Package store keeps projects, what was done to them, and the shop in one SQLite file.
// Documents carry a revision; a save names the revision it was based on, and a stale one
// is refused with both states kept. Events are only ever added. What is acknowledged is
// on disk; what cannot be kept is refused with a [Trouble] that says why.
package store

import (
	"context"
	"database/sql"
	"embed"
	"errors"
	"fmt"
	"io/fs"
	"log/slog"
	"net/url"
	"os"
	"path/filepath"
	"sync"
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

// Store is an open database. Its methods may be called at the same time.
type Store struct {
	at      string   // the path
	pragmas []string // besides the usual ones

	mu sync.RWMutex
	opened
}

// opened is a database that is open.
type opened struct {
	db   *sql.DB
	path string
	file os.FileInfo // which file it is
	nth  int         // of those that were opened one after the other, counted from 1
}

// Opened says how often a database was opened in the place of one before: what was read of an
// earlier one need not be in the one that is open now.
func (s *Store) Opened() int {
	s.mu.RLock()
	defer s.mu.RUnlock()
	return s.nth
}

// Open opens or makes the database in a directory and brings it up to date. The error is
// a [NewerError] where a newer version wrote it, a [DamagedError] where it cannot be read,
// or a [Trouble].
func Open(ctx context.Context, dir string) (*Store, error) {
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return nil, fmt.Errorf("the data directory cannot be made: %w", err)
	}
	return open(ctx, filepath.Join(dir, FileName))
}

func open(ctx context.Context, path string, pragmas ...string) (*Store, error) {
	s := &Store{at: path, pragmas: pragmas}
	if err := s.connect(ctx); err != nil {
		return nil, err
	}
	return s, nil
}

// connect opens the file at the store's path and brings it up to date. Nobody else uses the store meanwhile.
func (s *Store) connect(ctx context.Context) error {
	if err := sound(ctx, s.at); err != nil {
		return err
	}
	db, err := sql.Open("sqlite", source(s.at, append([]string{
		"journal_mode(WAL)", "foreign_keys(1)", "busy_timeout(5000)", "synchronous(FULL)",
	}, s.pragmas...), "_txlock", "immediate"))
	if err != nil {
		return err
	}
	db.SetMaxOpenConns(4)
	if err := migrate(ctx, db); err != nil {
		return errors.Join(fmt.Errorf("%s cannot be opened: %w", s.at, troubled(err)), db.Close())
	}
	now := opened{db: db, path: s.at, nth: s.nth + 1}
	if now.file, err = os.Stat(s.at); err != nil {
		return errors.Join(&Trouble{Gone, err}, db.Close())
	}
	var trouble *Trouble
	if err := now.sweep(ctx); err != nil &&
		!errors.As(err, &trouble) { // on a full disk it can still be read; it is swept with the next backup
		return errors.Join(err, db.Close())
	}
	s.opened = now
	return nil
}

// source names a database for the driver, with pragmas and further parameters in pairs.
func source(path string, pragmas []string, more ...string) string {
	q := url.Values{"_pragma": pragmas}
	for i := 0; i+1 < len(more); i += 2 {
		q.Set(more[i], more[i+1])
	}
	return "file:" + (&url.URL{Path: path}).EscapedPath() + "?" + q.Encode()
}

func provider(db *sql.DB) (*goose.Provider, error) {
	files, err := fs.Sub(migrations, "migrations")
	if err != nil {
		return nil, err
	}
	return goose.NewProvider(goose.DialectSQLite3, db, files, goose.WithSlog(slog.New(slog.DiscardHandler)))
}

// latest is the newest version of the tables that this program knows.
func latest() int64 {
	p, err := provider(&sql.DB{}) // it is only asked for its list
	if err != nil {
		return 0
	}
	all := p.ListSources()
	return all[len(all)-1].Version
}

func migrate(ctx context.Context, db *sql.DB) error {
	p, err := provider(db)
	if err != nil {
		return err
	}
	_, err = p.Up(ctx)
	return err
}

// Close closes the database.
func (s *Store) Close() error {
	s.mu.Lock()
	defer s.mu.Unlock()
	return s.db.Close()
}

// use gives the database, once it is sure that it is the file at its place: a file whose
// folder was taken away still takes what is written, and loses it. A file that was put in
// its place is opened instead.
func (s *Store) use(ctx context.Context) (opened, error) {
	s.mu.RLock()
	at := s.opened
	s.mu.RUnlock()
	if at.inPlace() == nil {
		return at, nil
	}
	if _, e := os.Stat(s.at); e != nil {
		return at, &Trouble{Gone, e}
	}
	s.mu.Lock()
	defer s.mu.Unlock()
	if s.inPlace() == nil {
		return s.opened, nil
	}
	old := s.db
	if err := s.connect(ctx); err != nil {
		return at, err
	}
	return s.opened, old.Close()
}

// inPlace says whether the file that is open is the one at the path.
func (o *opened) inPlace() error {
	at, err := os.Stat(o.path)
	if err == nil && !os.SameFile(at, o.file) {
		err = fmt.Errorf("%s is another file now", o.path)
	}
	if err != nil {
		return &Trouble{Gone, err}
	}
	return nil
}

func now() int64 { return time.Now().UnixNano() }

// read runs a query that gives rows, and hands each to the function.
func (s *Store) read(ctx context.Context, each func(rows *sql.Rows) error, query string, args ...any) (err error) {
	at, err := s.use(ctx)
	if err != nil {
		return err
	}
	rows, err := at.db.QueryContext(ctx, query, args...)
	if err != nil {
		return troubled(err)
	}
	defer func() { err = errors.Join(err, rows.Close()) }()
	for rows.Next() {
		if err := each(rows); err != nil {
			return err
		}
	}
	return troubled(rows.Err())
}

// row reads one row; [ErrNotFound] where there is none.
func (s *Store) row(ctx context.Context, query string, args []any, into ...any) error {
	at, err := s.use(ctx)
	if err != nil {
		return err
	}
	return found(at.db.QueryRowContext(ctx, query, args...).Scan(into...))
}

func found(err error) error {
	if errors.Is(err, sql.ErrNoRows) {
		return ErrNotFound
	}
	return troubled(err)
}

// one runs a statement that is to change one project.
func (s *Store) one(ctx context.Context, statement string, args ...any) error {
	return s.within(ctx, func(tx *sql.Tx) error {
		r, err := tx.ExecContext(ctx, statement, args...)
		if err != nil {
			return err
		}
		if n, err := r.RowsAffected(); err != nil || n == 0 {
			return errors.Join(err, ErrNotFound)
		}
		return nil
	})
}

// within runs a transaction, and says that it succeeded only when what it wrote is in the
// file at its place. A stale save commits what it kept.
func (s *Store) within(ctx context.Context, do func(tx *sql.Tx) error) error {
	at, err := s.use(ctx)
	if err != nil {
		return err
	}
	return at.within(ctx, do)
}

// within runs a transaction on this very database. That another was opened meanwhile at its place makes
// nothing kept that was written into this one.
func (o *opened) within(ctx context.Context, do func(tx *sql.Tx) error) error {
	tx, err := o.db.BeginTx(ctx, nil)
	if err != nil {
		return troubled(err)
	}
	err = do(tx)
	var stale *StaleError
	if err != nil && !errors.As(err, &stale) {
		if e := tx.Rollback(); e != nil && !errors.Is(e, sql.ErrTxDone) {
			err = errors.Join(err, e)
		}
		return troubled(err)
	}
	if e := tx.Commit(); e != nil {
		return troubled(e)
	}
	return errors.Join(err, o.inPlace())
}
