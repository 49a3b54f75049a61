package store_test

import (
	"database/sql"
	"path/filepath"
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

func state(name, body string) store.State { return store.State{Name: name, Body: []byte(body)} }

func TestSaveRefusesTheStaleAndKeepsBoth(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("Jump", `{"v":1}`))
	require.NoError(t, err)
	r, err := s.Save(ctx, p.ID, 1, state("Jump", `{"v":2}`))
	require.NoError(t, err)
	assert.EqualValues(t, 2, r)
	_, err = s.Save(ctx, p.ID, 1, state("Jump mine", `{"v":"other window"}`))
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
	_, err = s.Save(ctx, "no", 1, state("", ""))
	assert.ErrorIs(t, err, store.ErrNotFound)
	assert.ErrorIs(t, s.Delete(ctx, "no"), store.ErrNotFound)
	p, err := s.Create(ctx, state("x", "{}"))
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
	p, err := s.Create(ctx, state("x", `{"v":1}`))
	require.NoError(t, err)
	_, err = s.Save(ctx, p.ID, 7, state("stale", `{"v":7}`))
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
		_, err := db.ExecContext(ctx, "UPDATE project SET deleted = ?", time.Now().AddDate(0, 0, -days).UnixNano())
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
