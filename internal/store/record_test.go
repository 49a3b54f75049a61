package store_test

import (
	"fmt"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/store"
)

func event(id string) store.Event {
	return store.Event{ID: id, Device: "phone", Body: []byte(`{"kind":"cut","of":"` + id + `"}`)}
}

// An event that is sent twice counts once, as it was sent first; the order is the store's.
// one is events of one project.
func one(project string, events ...store.Event) []store.Share {
	return []store.Share{{Project: project, Events: events}}
}

func TestAnEventCountsOnce(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("Jump", "{}"))
	require.NoError(t, err)
	shares, err := s.Add(ctx, one(p.ID, event("a"), event("b")), nil)
	require.NoError(t, err)
	first := shares[0]
	again := event("b")
	again.Device, again.Body = "laptop", []byte(`{}`)
	shares, err = s.Add(ctx, one(p.ID, again, event("c"), event("a")), nil)
	require.NoError(t, err)
	second := shares[0]
	assert.Equal(t, first[1], second[0], "the first stands")
	assert.Equal(t, first[0], second[2])
	all, err := s.Events(ctx, p.ID, 0)
	require.NoError(t, err)
	assert.Equal(t, []store.Event{first[0], first[1], second[1]}, all)
	last, err := s.LastEvent(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, second[1].Seq, last)
	later, err := s.Events(ctx, p.ID, first[1].Seq)
	require.NoError(t, err)
	assert.Equal(t, second[1:2], later)
	_, err = s.Add(ctx, one("none", event("a")), nil)
	assert.ErrorIs(t, err, store.ErrNotFound)
	_, err = s.Events(ctx, "none", 0)
	assert.ErrorIs(t, err, store.ErrNotFound)
}

// No statement changes an event or removes one, as long as its project is there; it goes
// with a project that is gone for good.
func TestEventsAreOnlyAdded(t *testing.T) {
	dir, ctx := t.TempDir(), t.Context()
	s := open(t, dir)
	p, err := s.Create(ctx, state("Jump", "{}"), event("a"))
	require.NoError(t, err)
	assert.ErrorContains(t, s.Exec(ctx, "UPDATE event SET body = '{}'"), "never changed")
	assert.ErrorContains(t, s.Exec(ctx, "DELETE FROM event"), "only with its project")
	require.NoError(t, s.Delete(ctx, p.ID))
	assert.ErrorContains(t, s.Exec(ctx, "DELETE FROM event"), "only with its project", "it may be put back")
	require.NoError(t, s.Restore(ctx, p.ID))
	all, err := s.Events(ctx, p.ID, 0)
	require.NoError(t, err)
	require.Len(t, all, 1)
	require.NoError(t, s.Delete(ctx, p.ID))
	require.NoError(t, s.Exec(ctx, "UPDATE project SET deleted = 1"))
	require.NoError(t, s.Sweep(ctx))
	last, err := s.LastEvent(ctx, p.ID)
	require.NoError(t, err)
	assert.Zero(t, last)
}

// Every state that was saved can be read again, under the revision it had.
func TestASaveKeepsWhatItReplaced(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("r1", "1"))
	require.NoError(t, err)
	for r := int64(1); r < 30; r++ {
		_, err := s.Save(ctx, p.ID, r, state(fmt.Sprint("r", r+1), strconv.FormatInt(r+1, 10)))
		require.NoError(t, err)
	}
	all, err := s.Revisions(ctx, p.ID)
	require.NoError(t, err)
	require.Len(t, all, 29)
	for i, r := range all {
		assert.Equal(t, int64(29-i), r.Revision)
		assert.Equal(t, fmt.Sprint("r", r.Revision), r.Name)
		body, err := s.Revision(ctx, p.ID, r.Revision)
		require.NoError(t, err)
		assert.Equal(t, strconv.FormatInt(r.Revision, 10), string(body))
	}
	_, err = s.Revision(ctx, p.ID, 30)
	assert.ErrorIs(t, err, store.ErrNotFound, "that is the present one")
	require.NoError(t, s.Delete(ctx, p.ID))
	all, err = s.Revisions(ctx, p.ID)
	require.NoError(t, err)
	assert.Empty(t, all)
}

// The older a state is, the further apart lie those that are kept: after a year of work,
// all of five minutes, then one a minute, one in ten minutes, one an hour and one a day.
func TestStatesAreThinnedWithAge(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("x", "0"))
	require.NoError(t, err)
	at, r := time.Now().UnixNano(), int64(1)
	for _, age := range []struct{ from, every time.Duration }{
		{10 * 24 * time.Hour, time.Hour}, {2 * 24 * time.Hour, 20 * time.Minute}, {2 * time.Hour, 2 * time.Minute}, {30 * time.Minute, 10 * time.Second}, {4 * time.Minute, time.Second},
	} {
		for k := time.Duration(0); k < 20; k++ {
			require.NoError(t, s.Exec(ctx, "UPDATE project SET updated = ?", at-(age.from-k*age.every).Nanoseconds()))
			r, err = s.Save(ctx, p.ID, r, state("x", strconv.FormatInt(r, 10)))
			require.NoError(t, err)
		}
	}
	all, err := s.Revisions(ctx, p.ID)
	require.NoError(t, err)
	spans := map[[2]int64]int{}
	now := time.Now()
	young := 0
	for _, v := range all {
		span := store.Apart(now.Sub(v.At) - time.Second).Nanoseconds()
		if span == 0 {
			young++
			continue
		}
		spans[[2]int64{span, v.At.UnixNano() / span}]++
	}
	assert.Equal(t, 20, young, "what is young is all there")
	for span, n := range spans {
		assert.LessOrEqual(t, n, 2, "%v", span) // one, and one that was of a finer span when it was thinned
	}
	assert.Less(t, len(all), 70)
	assert.Greater(t, len(all), 30)
	last := all[0]
	assert.Equal(t, r-1, last.Revision)
}

// What a save's lost answer leaves behind is no clash: the same state counts as saved.
func TestTheSameStateIsSavedAlready(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("x", "1"))
	require.NoError(t, err)
	r, err := s.Save(ctx, p.ID, 1, state("x", "2"))
	require.NoError(t, err)
	again, err := s.Save(ctx, p.ID, 1, state("x", "2"))
	require.NoError(t, err)
	assert.Equal(t, r, again)
	a, err := s.SaveShop(ctx, 0, []byte("1"))
	require.NoError(t, err)
	b, err := s.SaveShop(ctx, 0, []byte("1"))
	require.NoError(t, err)
	assert.Equal(t, a, b)
}

// Two saves within a second are listed in their order.
func TestTheLastSavedComesFirst(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	var ids []string
	for i := range 5 {
		p, err := s.Create(ctx, store.State{Name: fmt.Sprint(i), Body: []byte("{}"), Template: i%2 == 0, Format: i})
		require.NoError(t, err)
		ids = append(ids, p.ID)
	}
	for i, nanos := range []int64{100_000_000, 120_000_000, 123_000_000, 123_400_000, 99_000_000} {
		require.NoError(t, s.Exec(ctx, "UPDATE project SET updated = ? WHERE id = ?", nanos, ids[i]))
	}
	all, err := s.Projects(ctx)
	require.NoError(t, err)
	names := ""
	for _, l := range all {
		names += l.Name
	}
	assert.Equal(t, "32104", names)
	templates, err := s.Templates(ctx)
	require.NoError(t, err)
	assert.Len(t, templates, 3)
	old, err := s.Outdated(ctx, 2)
	require.NoError(t, err)
	assert.Len(t, old, 2)
}

// A body that is brought up to date keeps its time and revision, and what it said of
// what was done becomes events, once.
func TestAnUpgradeIsNoSave(t *testing.T) {
	s, ctx := open(t, t.TempDir()), t.Context()
	p, err := s.Create(ctx, state("x", "old"))
	require.NoError(t, err)
	next := store.State{Name: "x", Format: 4, Body: []byte("new")}
	require.NoError(t, s.Upgrade(ctx, p.ID, 1, next, []store.Event{event("was")}))
	require.NoError(t, s.Upgrade(ctx, p.ID, 1, next, []store.Event{event("was")}))
	now, err := s.Project(ctx, p.ID)
	require.NoError(t, err)
	assert.Equal(t, p.Updated, now.Updated)
	assert.EqualValues(t, 1, now.Revision)
	assert.Equal(t, "new", string(now.Body))
	all, err := s.Events(ctx, p.ID, 0)
	require.NoError(t, err)
	assert.Len(t, all, 1)
	assert.ErrorIs(t, s.Upgrade(ctx, p.ID, 7, next, nil), store.ErrNotFound)
}

func BenchmarkShelf(b *testing.B) {
	s, err := store.Open(b.Context(), b.TempDir())
	require.NoError(b, err)
	body := make([]byte, 40_000)
	for i := range body {
		body[i] = 'x'
	}
	for i := range 2000 {
		_, err := s.Create(b.Context(), store.State{Name: fmt.Sprint("Project ", i), Body: body})
		require.NoError(b, err)
	}
	for b.Loop() {
		all, err := s.Projects(b.Context())
		require.NoError(b, err)
		require.Len(b, all, 2000)
	}
	require.NoError(b, s.Close())
}
