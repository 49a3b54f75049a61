package store

import (
	"context"
	"errors"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"time"
)

// BackupFolder is the folder of the daily backups, in the data directory.
const BackupFolder = "backups"

const (
	backupPrefix = "sturdyelbow-"
	dayForm      = "2006-01-02"
	keptBackups  = 7 // days
)

// Backup writes a whole and consistent copy of a database, which may be in use, to a new
// file. It neither upgrades the database nor overwrites a file.
func Backup(ctx context.Context, from, to string) error {
	if _, err := os.Stat(from); err != nil {
		return fmt.Errorf("there is no database at %s", from)
	}
	if _, err := os.Stat(to); err == nil {
		return fmt.Errorf("%s is there already: choose another name", to)
	}
	db, err := reading(from)
	if err != nil {
		return err
	}
	_, err = db.ExecContext(ctx, "VACUUM INTO ?", to)
	if err != nil { // half a copy is none
		_ = os.Remove(to)
	}
	return errors.Join(troubled(err), db.Close())
}

// DailyBackup writes today's backup beside the database, if there is none yet, and drops
// those of more than a week ago, but never the newest. It gives the file it wrote; "" for
// none.
func (s *Store) DailyBackup(ctx context.Context, today time.Time) (string, error) {
	if _, err := s.use(ctx); err != nil {
		return "", err // what is not at its place must not be taken for today's state
	}
	folder := filepath.Join(filepath.Dir(s.at), BackupFolder)
	if err := os.MkdirAll(folder, 0o700); err != nil {
		return "", err
	}
	to := filepath.Join(folder, backupPrefix+today.Format(dayForm)+".db")
	if _, err := os.Stat(to); err == nil {
		return "", nil
	}
	half := to + ".part"
	if err := os.Remove(half); err != nil && !errors.Is(err, os.ErrNotExist) {
		return "", err
	}
	if err := Backup(ctx, s.at, half); err != nil {
		return "", err
	}
	if err := os.Rename(half, to); err != nil {
		return "", err
	}
	all := backups(filepath.Dir(s.at))
	week := time.Date(today.Year(), today.Month(), today.Day()-keptBackups, 0, 0, 0, 0, time.Local)
	for _, b := range all[:max(0, len(all)-1)] {
		if b.day.Before(week) {
			if err := os.Remove(b.path); err != nil {
				return to, err
			}
		}
	}
	return to, nil
}

type dayBackup struct {
	path string
	day  time.Time
}

// backups lists the daily backups in a data directory, the oldest first.
func backups(dir string) (all []dayBackup) {
	there, err := os.ReadDir(filepath.Join(dir, BackupFolder))
	if err != nil {
		return nil
	}
	for _, f := range there {
		text, ours := strings.CutPrefix(f.Name(), backupPrefix)
		text, whole := strings.CutSuffix(text, ".db")
		if !ours || !whole {
			continue
		}
		if day, err := time.ParseInLocation(dayForm, text, time.Local); err == nil {
			all = append(all, dayBackup{filepath.Join(dir, BackupFolder, f.Name()), day})
		}
	}
	slices.SortFunc(all, func(a, b dayBackup) int { return a.day.Compare(b.day) })
	return all
}

// NewestBackup gives the file of the newest daily backup in a data directory; "" where
// there is none.
func NewestBackup(dir string) string {
	all := backups(dir)
	if len(all) == 0 {
		return ""
	}
	return all[len(all)-1].path
}

// Restore puts a backup in the place of the database in a directory. The backup is
// checked first; what it replaces is kept beside it under the name that is given. No
// server may have the directory open: see [Lock].
func Restore(ctx context.Context, backup, dir string, at time.Time) (kept string, err error) {
	r, err := Check(ctx, backup)
	if err != nil {
		return "", err
	}
	if len(r.Wrong) > 0 {
		return "", fmt.Errorf("%s is damaged itself: %s", backup, strings.Join(r.Wrong, "; "))
	}
	if err := os.MkdirAll(dir, 0o700); err != nil {
		return "", err
	}
	place := filepath.Join(dir, FileName)
	fresh := place + ".restored"
	if err := copied(backup, fresh); err != nil {
		return "", err
	}
	if _, err := os.Stat(place); err == nil {
		kept = place + ".before-" + at.Format("2006-01-02T150405")
		for _, part := range []string{"-wal", "-shm", ""} { // the file itself last: until then it is at its place
			if err := os.Rename(place+part, kept+part); err != nil && !errors.Is(err, os.ErrNotExist) {
				return "", err
			}
		}
	}
	return kept, os.Rename(fresh, place)
}

func copied(from, to string) (err error) {
	in, err := os.Open(from)
	if err != nil {
		return err
	}
	defer func() { err = errors.Join(err, in.Close()) }()
	out, err := os.OpenFile(to, os.O_CREATE|os.O_TRUNC|os.O_WRONLY, 0o600)
	if err != nil {
		return err
	}
	_, err = io.Copy(out, in)
	return errors.Join(err, out.Sync(), out.Close())
}
