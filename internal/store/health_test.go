package store_test

import (
	"bytes"
	"context"
	"database/sql"
	"errors"
	"fmt"
	"os"
	"path/filepath"
	"strconv"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/store"
)

func trouble(t *testing.T, err error, cause store.Cause) {
	t.Helper()
	var tr *store.Trouble
	require.ErrorAs(t, err, &tr)
	assert.Equal(t, cause, tr.Cause, "%v", err)
	assert.NotEmpty(t, tr.Words())
}

// filled makes a database of some projects with a record, and closes it.
func filled(t *testing.T, dir string, n int) {
	s, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	for i := range n {
		_, err := s.Create(
			t.Context(),
			state(fmt.Sprint("Project ", i), `{"text":"`+strings.Repeat("pipe ", 400)+`"}`),
			event("a"),
			event("b"),
		)
		require.NoError(t, err)
	}
	_, err = s.SaveShop(t.Context(), 0, []byte("{}"))
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

func TestADatabaseOfANewerVersionIsLeftAlone(t *testing.T) {
	dir := t.TempDir()
	filled(t, dir, 2)
	path := filepath.Join(dir, store.FileName)
	db, err := sql.Open("sqlite", path)
	require.NoError(t, err)
	_, err = db.Exec("INSERT INTO goose_db_version (version_id, is_applied) VALUES (99, 1)")
	require.NoError(t, err)
	require.NoError(t, db.Close())
	before, err := os.ReadFile(path)
	require.NoError(t, err)
	_, err = store.Open(t.Context(), dir)
	var newer *store.NewerError
	require.ErrorAs(t, err, &newer)
	assert.EqualValues(t, 99, newer.Found)
	assert.Contains(t, err.Error(), "newer version")
	after, err := os.ReadFile(path)
	require.NoError(t, err)
	assert.True(t, bytes.Equal(before, after), "not a byte is changed")
}

// A damaged database says what of it is damaged, and which backup is the newest; it is
// neither changed nor replaced.
func TestADamagedDatabaseSaysWhatIsDamaged(t *testing.T) {
	dir := t.TempDir()
	filled(t, dir, 60)
	s := open(t, dir)
	backup, err := s.DailyBackup(t.Context(), time.Now())
	require.NoError(t, err)
	require.NoError(t, s.Close())
	path := filepath.Join(dir, store.FileName)
	whole, err := os.ReadFile(path)
	require.NoError(t, err)
	for what, spoil := range map[string]struct {
		change func(b []byte) []byte
		says   string
	}{
		"overwritten from the start": {func(b []byte) []byte { return append([]byte("<html>not found</html>"), b[22:]...) }, "not a database"},
		"cut off":                    {func(b []byte) []byte { return b[:len(b)/3] }, "tables"},
		"zeros in the middle":        {func(b []byte) []byte { copy(b[len(b)/4:], make([]byte, len(b)/2)); return b }, "projects"},
	} {
		spoilt := spoil.change(bytes.Clone(whole))
		require.NoError(t, os.WriteFile(path, spoilt, 0o600))
		_, err := store.Open(t.Context(), dir)
		var damaged *store.DamagedError
		require.ErrorAs(t, err, &damaged, what)
		assert.Equal(t, backup, damaged.Backup)
		assert.Contains(t, err.Error(), spoil.says, what)
		assert.Contains(t, err.Error(), "sturdyelbow restore "+backup)
		now, err := os.ReadFile(path)
		require.NoError(t, err)
		assert.True(t, bytes.Equal(spoilt, now), "%s: it is not touched", what)
		r, err := store.Check(t.Context(), path)
		require.NoError(t, err)
		assert.NotEmpty(t, r.Wrong, what)
	}
	kept, err := store.Restore(t.Context(), backup, dir, time.Now())
	require.NoError(t, err)
	assert.FileExists(t, kept)
	all, err := open(t, dir).Projects(t.Context())
	require.NoError(t, err)
	assert.Len(t, all, 60)
	r, err := store.Check(t.Context(), path)
	require.NoError(t, err)
	assert.Equal(t, store.Report{Path: path, Projects: 60, Events: 120}, r)
}

func TestCheckReadsTheTexts(t *testing.T) {
	dir := t.TempDir()
	filled(t, dir, 3)
	s := open(t, dir)
	require.NoError(t, s.Exec(t.Context(), "UPDATE project SET body = '{\"a\":' WHERE name = 'Project 1'"))
	require.NoError(t, s.Exec(t.Context(), "UPDATE shop SET body = 'x'"))
	r, err := store.Check(t.Context(), s.Path())
	require.NoError(t, err)
	assert.Len(t, r.Wrong, 2)
	_, err = store.Check(t.Context(), filepath.Join(dir, "none.db"))
	assert.ErrorContains(t, err, "no database")
}

// On a full disk a save is refused with the reason, what was saved stays, and saving goes
// on as soon as there is room.
func TestAFullDisk(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	filled(t, dir, 1)
	s, err := store.OpenWith(ctx, dir, "max_page_count=1") // rounded up to what there is
	require.NoError(t, err)
	all, err := s.Projects(ctx)
	require.NoError(t, err)
	before, err := s.Project(ctx, all[0].ID)
	require.NoError(t, err)
	large := strings.Repeat("x", 200_000)
	_, err = s.Save(ctx, before.ID, 1, state("x", large))
	trouble(t, err, store.Full)
	_, err = s.Add(ctx, one(before.ID, store.Event{ID: "c", Body: []byte(large)}), nil)
	trouble(t, err, store.Full)
	now, err := s.Project(ctx, before.ID)
	require.NoError(t, err)
	assert.Equal(t, before, now)
	require.NoError(t, s.Pragma(ctx, "max_page_count=100000"))
	_, err = s.Save(ctx, before.ID, 1, state("x", large))
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

func TestAReadOnlyDisk(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	filled(t, dir, 1)
	s, err := store.OpenWith(ctx, dir, "query_only=1")
	require.NoError(t, err)
	all, err := s.Projects(ctx)
	require.NoError(t, err, "it can be read")
	_, err = s.Save(ctx, all[0].ID, 1, state("x", "2"))
	trouble(t, err, store.ReadOnly)
	_, err = s.SaveShop(ctx, 1, []byte("2"))
	trouble(t, err, store.ReadOnly)
	require.NoError(t, s.Pragma(ctx, "query_only=0"))
	_, err = s.Save(ctx, all[0].ID, 1, state("x", "2"))
	require.NoError(t, err)
	require.NoError(t, s.Close())
}

// Where the folder is taken away, what is written would be lost with it: nothing is
// acknowledged until it is back, as it was or as a copy.
func TestAFolderThatIsGone(t *testing.T) {
	ctx := t.Context()
	dir := filepath.Join(t.TempDir(), "data")
	filled(t, dir, 1)
	s := open(t, dir)
	all, err := s.Projects(ctx)
	require.NoError(t, err)
	id := all[0].ID
	away := dir + "-away"
	require.NoError(t, os.Rename(dir, away))
	_, err = s.Save(ctx, id, 1, state("x", "2"))
	trouble(t, err, store.Gone)
	_, err = s.Project(ctx, id)
	trouble(t, err, store.Gone)
	_, err = s.DailyBackup(ctx, time.Now())
	trouble(t, err, store.Gone)
	require.NoError(t, os.Rename(away, dir))
	_, err = s.Save(ctx, id, 1, state("x", "2"))
	require.NoError(t, err)

	copyOf := filepath.Join(t.TempDir(), "copy.db")
	require.NoError(t, store.Backup(ctx, s.Path(), copyOf))
	require.NoError(t, os.Rename(dir, away))
	require.NoError(t, os.MkdirAll(dir, 0o700))
	_, err = s.Save(ctx, id, 2, state("x", "3"))
	trouble(t, err, store.Gone)
	data, err := os.ReadFile(copyOf)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(filepath.Join(dir, store.FileName), data, 0o600))
	_, err = s.Save(ctx, id, 2, state("x", "3"))
	require.NoError(t, err, "the copy is opened in its place")
	p, err := s.Project(ctx, id)
	require.NoError(t, err)
	assert.Equal(t, "3", string(p.Body))
}

// A database in which a table of the same name stands is said to be that, not "already
// exists".
func TestAFileThatIsNone(t *testing.T) {
	dir := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(dir, store.FileName), []byte("hello, this is a letter"), 0o600))
	_, err := store.Open(t.Context(), dir)
	assert.ErrorContains(t, err, "not a database")
	assert.ErrorContains(t, err, "no backup")
	empty := t.TempDir()
	require.NoError(t, os.WriteFile(filepath.Join(empty, store.FileName), nil, 0o600))
	open(t, empty)
}

func TestBackupsOfAWeekAreKept(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	_, err := s.Create(ctx, state("Jump", "{}"))
	require.NoError(t, err)
	day := time.Date(2026, 11, 1, 9, 0, 0, 0, time.Local)
	for range 12 {
		to, err := s.DailyBackup(ctx, day)
		require.NoError(t, err)
		assert.Equal(t, s.BackupPath(day), to)
		none, err := s.DailyBackup(ctx, day.Add(6*time.Hour))
		require.NoError(t, err)
		assert.Empty(t, none, "one a day")
		day = day.AddDate(0, 0, 1)
	}
	kept, err := filepath.Glob(filepath.Join(dir, store.BackupFolder, "*"))
	require.NoError(t, err)
	assert.Len(t, kept, 8) // today's and those of seven days
	assert.FileExists(t, s.BackupPath(day.AddDate(0, 0, -8)))
	// after a year away the last one is still there
	_, err = s.DailyBackup(ctx, day.AddDate(1, 0, 0))
	require.NoError(t, err)
	kept, err = filepath.Glob(filepath.Join(dir, store.BackupFolder, "*"))
	require.NoError(t, err)
	assert.Len(t, kept, 1)
}

// A backup that is made while saves stream in is one state of the database, whole.
func TestBackupOfALiveDatabase(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	p, err := s.Create(ctx, state("Jump", "1"))
	require.NoError(t, err)
	stop, ended := context.WithCancel(ctx)
	done, saved := make(chan error), make(chan struct{})
	go func() {
		r := int64(1)
		var err error
		for err == nil && stop.Err() == nil {
			text := strconv.FormatInt(r+1, 10)
			if r, err = s.Save(ctx, p.ID, r, state("Jump", text)); err == nil {
				_, err = s.Add(ctx, one(p.ID, event(text)), nil)
			}
			select {
			case saved <- struct{}{}:
			default:
			}
		}
		done <- err
	}()
	var copies []string
	for i := range 5 {
		<-saved // however busy the machine is
		<-saved // this one was begun after the copy before
		to := filepath.Join(t.TempDir(), fmt.Sprint(i, ".db"))
		require.NoError(t, store.Backup(ctx, s.Path(), to))
		assert.Error(t, store.Backup(ctx, s.Path(), to), "a backup never overwrites")
		copies = append(copies, to)
	}
	ended()
	require.NoError(t, <-done)
	last := int64(1)
	for _, c := range copies {
		r, err := store.Check(ctx, c)
		require.NoError(t, err)
		assert.Empty(t, r.Wrong)
		into := t.TempDir()
		_, err = store.Restore(ctx, c, into, time.Now())
		require.NoError(t, err)
		back, err := open(t, into).Project(ctx, p.ID)
		require.NoError(t, err)
		assert.Equal(t, strconv.FormatInt(back.Revision, 10), string(back.Body), "the body belongs to its revision")
		assert.Greater(t, back.Revision, last)
		last = back.Revision
	}
}

func TestADirectoryIsForOneServer(t *testing.T) {
	dir := t.TempDir()
	release, err := store.Lock(dir, "http://127.0.0.1:7655")
	require.NoError(t, err)
	_, err = store.Lock(dir, "another")
	var locked *store.LockedError
	require.ErrorAs(t, err, &locked)
	assert.Contains(t, err.Error(), "http://127.0.0.1:7655")
	require.NoError(t, release())
	release, err = store.Lock(dir, "another")
	require.NoError(t, err)
	require.NoError(t, release())
}

// A database of the first format comes through: its times as numbers, everything at its
// place.
func TestADatabaseOfTheFirstFormatIsUpgraded(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	db, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	require.NoError(t, err)
	old, err := os.ReadFile("testdata/format2.sql")
	require.NoError(t, err)
	_, err = db.Exec(string(old))
	require.NoError(t, err)
	require.NoError(t, db.Close())
	s := open(t, dir)
	all, err := s.Projects(ctx)
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, []string{"Later", "Earlier"}, []string{all[0].Name, all[1].Name}, "12.1 s comes after 12.05 s")
	assert.Equal(t, "2026-11-20T10:00:12.1Z", all[0].Updated.Format(time.RFC3339Nano))
	assert.True(t, all[0].Template)
	p, err := s.Project(ctx, all[1].ID)
	require.NoError(t, err)
	assert.EqualValues(t, 5, p.Revision)
	assert.JSONEq(t, `{"name":"Earlier"}`, string(p.Body))
	name, _, err := s.Refused(ctx, all[1].ID, 3)
	require.NoError(t, err)
	assert.Equal(t, "mine", name)
	require.NoError(t, s.Restore(ctx, "gone1"))
	_, r, err := s.Shop(ctx)
	require.NoError(t, err)
	assert.EqualValues(t, 4, r)
	require.NoError(t, s.Exec(ctx, "DELETE FROM project WHERE id = 'early'"))
	_, _, err = s.Refused(ctx, "early", 3)
	assert.ErrorIs(t, err, store.ErrNotFound, "what belongs to a project goes with it")
}

// A file is put in the place of the database while something is being stored, and another request opens it: what was
// written into the old one is not said to be kept.
func TestNoCommitIsAcknowledgedToAFileThatWasReplaced(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	p, err := s.Create(ctx, state("Jump", "1"))
	require.NoError(t, err)
	copied := filepath.Join(t.TempDir(), "copy.db")
	require.NoError(t, store.Backup(ctx, s.Path(), copied))
	first := s.Opened()
	_, err = s.Add(ctx, one(p.ID, event("lost")), func([]store.Grown, []byte) ([]byte, error) {
		require.NoError(t, os.Rename(s.Path(), s.Path()+".away"))
		require.NoError(t, os.Rename(copied, s.Path()))
		_, err := s.Projects(ctx) // somebody else finds the new one, and opens it
		return nil, err
	})
	trouble(t, err, store.Gone)
	assert.Greater(t, s.Opened(), first)
	all, err := s.Events(ctx, p.ID, 0)
	require.NoError(t, err)
	assert.Empty(t, all)
	_, err = s.Add(ctx, one(p.ID, event("kept")), nil)
	require.NoError(t, err, "sent again it is kept")
}

// Sweeping takes the database that is at its place, also while it is replaced.
func TestSweepingTakesTheDatabaseThatIsThere(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	_, err := s.Create(ctx, state("Jump", "1"))
	require.NoError(t, err)
	copied := filepath.Join(t.TempDir(), "copy.db")
	require.NoError(t, store.Backup(ctx, s.Path(), copied))
	var all sync.WaitGroup
	for range 4 {
		all.Go(func() {
			for range 20 {
				var t *store.Trouble
				if err := s.Sweep(ctx); err != nil && !errors.As(err, &t) {
					panic(err)
				}
			}
		})
	}
	require.NoError(t, os.Rename(copied, s.Path()))
	all.Wait()
	require.NoError(t, s.Sweep(ctx))
}
