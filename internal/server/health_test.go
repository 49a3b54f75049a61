package server_test

import (
	"bytes"
	"fmt"
	"log/slog"
	"net/http/httptest"
	"os"
	"strings"
	"testing"
	"testing/fstest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
)

// What fails without a panic is logged with what it was; the page is told that something
// broke, not how it is made.
func TestWhatFailsIsLogged(t *testing.T) {
	dir := t.TempDir()
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	p, err := st.Create(t.Context(), store.State{Name: "x", Format: 2, Body: []byte(`{"name":`)})
	require.NoError(t, err)
	var log bytes.Buffer
	s := httptest.NewServer(server.New(server.Config{
		Store: st, Web: fstest.MapFS{"index.html": {}}, Log: slog.New(slog.NewTextHandler(&log, nil)),
	}))
	t.Cleanup(s.Close)
	c := &client{t, s.URL}
	status, _, answer := c.do("GET", "/api/projects/"+p.ID, nil)
	assert.Equal(t, 500, status)
	assert.Contains(t, answer, "Something broke here")
	assert.NotContains(t, answer, "JSON")
	assert.Contains(t, log.String(), "the stored project cannot be read")
	assert.Contains(t, log.String(), p.ID)

	require.NoError(t, os.Rename(dir, dir+"-away"))
	status, _, answer = c.do("GET", "/api/projects", nil)
	assert.Equal(t, 507, status)
	assert.Contains(t, answer, "the folder of the projects is gone: put it back where it was")
	assert.Contains(t, log.String(), "/api/projects")
	require.NoError(t, os.Rename(dir+"-away", dir))
	status, _, _ = c.do("GET", "/api/projects", nil)
	assert.Equal(t, 200, status)
	require.NoError(t, st.Close())
}

// A list that would take long to cut is refused, with where it is too large.
func TestALargeListIsRefused(t *testing.T) {
	c, _ := serve(t)
	lines := ""
	for i := range 250 {
		lines += fmt.Sprintf("3/4, %d.5, 1\n", i+1)
	}
	for _, tc := range []struct{ text, stock, where string }{
		{"3/4, 10, 2001", "10 ft", "/text"},
		{lines, "10 ft", "/text"},
		{"3/4, 10, 2", strings.Repeat("10 ft,", 30) + "10 ft", "/stock"},
	} {
		status, _, answer := c.do(
			"POST",
			"/api/cut",
			map[string]any{"text": tc.text, "units": "in", "stock": strings.Split(tc.stock, ","), "tool": "saw"},
		)
		assert.Equal(t, 422, status)
		assert.Equal(t, []string{tc.where}, places(t, answer))
	}
}

// A page that was opened when another version served it is told to reload.
func TestAPageOfAnotherVersion(t *testing.T) {
	c, _ := serve(t)
	id := c.create(jump("4 ft"))
	old := jump("5 ft")
	old["marks"] = map[string]any{"sawn": map[string]int{"x": 1}}
	status, _, answer := c.do("PUT", "/api/projects/"+id, map[string]any{"revision": 1, "project": old})
	assert.Equal(t, 422, status)
	assert.Contains(t, answer, "another version of Sturdy Elbow: reload it")
	assert.Equal(t, []string{"/project/marks"}, places(t, answer))
}
