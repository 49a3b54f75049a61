package store_test

import (
	"bufio"
	"context"
	"database/sql"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/store"
)

func open(t *testing.T, dir string) *store.Store {
	s, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	t.Cleanup(func() { assert.NoError(t, s.Close()) })
	return s
}

func TestSaveRefusesTheStaleAndKeepsBoth(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, "Jump", []byte(`{"v":1}`))
	require.NoError(t, err)
	r, err := s.Save(ctx, p.ID, 1, "Jump", []byte(`{"v":2}`))
	require.NoError(t, err)
	assert.EqualValues(t, 2, r)
	_, err = s.Save(ctx, p.ID, 1, "Jump mine", []byte(`{"v":"other window"}`))
	var stale *store.StaleError
	require.ErrorAs(t, err, &stale)
	assert.EqualValues(t, 2, stale.Current)
	now, err := s.Project(ctx, p.ID)
	require.NoError(t, err)
	assert.JSONEq(t, `{"v":2}`, string(now.Body))
	name, body, err := s.Refused(ctx, p.ID, stale.Kept)
	require.NoError(t, err)
	assert.Equal(t, "Jump mine", name)
	assert.JSONEq(t, `{"v":"other window"}`, string(body))
	_, _, err = s.Refused(ctx, p.ID, 99)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

func TestNotFound(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	_, err := s.Project(ctx, "no")
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.Save(ctx, "no", 1, "", nil)
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.Delete(ctx, "no"), store.ErrNotFound)
	p, err := s.Create(ctx, "x", []byte("{}"))
	require.NoError(t, err)
	require.NoError(t, s.Delete(ctx, p.ID))
	all, err := s.Projects(ctx)
	require.NoError(t, err)
	assert.Empty(t, all)
}

// A deleted project comes back as it was, with what stale saves left behind;
// after a month it is gone for good.
func TestDeletedIsKeptForAMonth(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	p, err := s.Create(ctx, "x", []byte(`{"v":1}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, p.ID, 7, "stale", []byte(`{"v":7}`))
	var stale *store.StaleError
	require.ErrorAs(t, err, &stale)
	require.NoError(t, s.Delete(ctx, p.ID))
	assert.ErrorIs(t, s.Delete(ctx, p.ID), store.ErrNotFound)
	_, _, err = s.Refused(ctx, p.ID, stale.Kept)
	assert.ErrorIs(t, err, store.ErrNotFound)
	require.NoError(t, s.Restore(ctx, p.ID))
	back, err := s.Project(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Updated, back.Updated)
	_, _, err = s.Refused(ctx, p.ID, stale.Kept)
	require.NoError(t, err)

	require.NoError(t, s.Delete(ctx, p.ID))
	db, err := sql.Open("sqlite", filepath.Join(dir, store.FileName))
	require.NoError(t, err)
	aged := func(days int) *store.Store {
		_, err := db.ExecContext(ctx, "UPDATE project SET deleted = ?", time.Now().AddDate(0, 0, -days).UTC().Format(time.RFC3339Nano))
		require.NoError(t, err)
		return open(t, dir) // sweeps
	}
	after := aged(29)
	require.NoError(t, after.Restore(ctx, p.ID))
	require.NoError(t, after.Delete(ctx, p.ID))
	assert.ErrorIs(t, aged(31).Restore(ctx, p.ID), store.ErrNotFound)
	require.NoError(t, db.Close())
}

func TestShopHasRevisionsToo(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	body, r, err := s.Shop(ctx)
	require.NoError(t, err)
	assert.Nil(t, body)
	r, err = s.SaveShop(ctx, r, []byte(`{"a":1}`))
	require.NoError(t, err)
	_, err = s.SaveShop(ctx, r-1, []byte(`{"a":2}`))
	var stale *store.StaleError
	require.ErrorAs(t, err, &stale)
	_, err = s.SaveShop(ctx, r, []byte(`{"a":3}`))
	require.NoError(t, err)
	body, _, err = s.Shop(ctx)
	require.NoError(t, err)
	assert.JSONEq(t, `{"a":3}`, string(body))
}

func TestBackupOfALiveDatabase(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, "Jump", []byte(`{"v":1}`))
	require.NoError(t, err)
	dir := t.TempDir()
	to := filepath.Join(dir, store.FileName)
	require.NoError(t, s.Backup(ctx, to))
	assert.Error(t, s.Backup(ctx, to), "a backup never overwrites")
	copied, err := open(t, dir).Project(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Body, copied.Body)
}

// TestMain lets this binary be the process that is killed: it saves without
// end and prints each revision once it is acknowledged.
func TestMain(m *testing.M) {
	if dir := os.Getenv("SAVE_UNTIL_KILLED"); dir != "" {
		ctx := context.Background()
		s, err := store.Open(ctx, dir)
		if err != nil {
			panic(err)
		}
		p, err := s.Create(ctx, "stream", []byte("0"))
		if err != nil {
			panic(err)
		}
		fmt.Println(p.ID)
		for r := p.Revision; ; {
			if r, err = s.Save(ctx, p.ID, r, "stream", []byte(strconv.FormatInt(r+1, 10))); err != nil {
				panic(err)
			}
			fmt.Println(r)
		}
	}
	os.Exit(m.Run())
}

func TestNothingAcknowledgedIsLostWhenKilled(t *testing.T) {
	for _, after := range []int{1, 7, 40} {
		dir := t.TempDir()
		cmd := exec.Command(os.Args[0])
		cmd.Env = append(os.Environ(), "SAVE_UNTIL_KILLED="+dir)
		out, err := cmd.StdoutPipe()
		require.NoError(t, err)
		require.NoError(t, cmd.Start())
		lines := bufio.NewScanner(out)
		require.True(t, lines.Scan())
		id := lines.Text()
		last := "1"
		for n := 0; lines.Scan(); n++ {
			last = lines.Text()
			if n == after {
				require.NoError(t, cmd.Process.Kill()) // SIGKILL; lines already written are still read
			}
		}
		require.Error(t, cmd.Wait(), "it was killed")
		acknowledged, err := strconv.ParseInt(strings.TrimSpace(last), 10, 64)
		require.NoError(t, err)
		require.Greater(t, acknowledged, int64(after))
		p, err := open(t, dir).Project(t.Context(), id)
		require.NoError(t, err)
		assert.GreaterOrEqual(t, p.Revision, acknowledged)
		assert.Equal(t, strconv.FormatInt(p.Revision, 10), string(p.Body), "the body belongs to its revision")
	}
}
