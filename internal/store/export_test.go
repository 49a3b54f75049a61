package store

import (
	"context"
	"path/filepath"
	"time"
)

// OpenWith opens a store whose only connection has more pragmas: a bound on its pages
// stands for a full disk.
func OpenWith(ctx context.Context, dir string, pragmas ...string) (*Store, error) {
	s, err := Open(ctx, dir)
	if err != nil {
		return nil, err
	}
	s.db.SetMaxOpenConns(1)
	for _, p := range pragmas {
		if err := s.Pragma(ctx, p); err != nil {
			return nil, err
		}
	}
	return s, nil
}

// Pragma sets a pragma of a store's only connection.
func (s *Store) Pragma(ctx context.Context, pragma string) error {
	_, err := s.db.ExecContext(ctx, "PRAGMA "+pragma)
	return err
}

// Exec runs any statement.
func (s *Store) Exec(ctx context.Context, statement string, args ...any) error {
	_, err := s.db.ExecContext(ctx, statement, args...)
	return err
}

// Path is where the database is.
func (s *Store) Path() string { return s.at }

// BackupPath is where the backup of a day is.
func (s *Store) BackupPath(day time.Time) string {
	return filepath.Join(filepath.Dir(s.at), BackupFolder, backupPrefix+day.Format(dayForm)+".db")
}

// Apart is how far apart states of an age are kept.
var Apart = apart
