package e2e_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/record"
	"sturdyelbow/internal/store"
)

// The server is replaced by another version while a page waits with a tick: the page says so, the tick is not lost, and
// after the page was read anew it says no more of it.
func TestTheServerIsAnotherVersion(t *testing.T) {
	w := open(t)
	id := w.project("Club jump")
	p := w.window("/p/" + id + "/cut")
	p.kept("Where to cut")
	w.stop()
	p.cutOne()
	p.see("wait on this device")
	w.version = "the next"
	w.start()
	p.see("Sturdy Elbow was replaced by another version.")
	p.axe("another version")
	p.press("Reload")
	p.gone("was replaced by another version")
	p.cutIs(1)
	p.gone("wait on this device")
	all, err := w.store.Events(t.Context(), id, 0)
	require.NoError(t, err)
	cut := map[record.Piece]int{}
	for _, x := range all {
		var e record.Event
		require.NoError(t, json.Unmarshal(x.Body, &e))
		if e.Kind == record.Cut {
			cut[*e.Piece]++
		}
	}
	assert.NotEmpty(t, cut, "what was ticked before is in the record")
	for piece, n := range cut {
		assert.Equal(t, 1, n, "%+v", piece)
	}
}

// The server is put back to a backup under two open pages: each says so, and what was typed since is saved over it, or
// let go, as is said there; undo brings the other back.
func TestTheServerIsPutBackToABackup(t *testing.T) {
	dir := t.TempDir()
	w := openIn(t, dir)
	jump, table := w.project("Club jump"), w.project("Scorekeeper's table")
	backup, file := filepath.Join(t.TempDir(), "backup.db"), filepath.Join(dir, store.FileName)
	require.NoError(t, store.Backup(t.Context(), file, backup))
	p, q := w.window("/p/"+jump), w.window("/p/"+table)
	p.ready()
	q.ready()
	was := q.tape("outside")
	w.stores("Club jump", func() { p.write("Width", "5 ft") })
	w.stores("Scorekeeper's table", func() { q.write("Width", "5 ft") })
	q.until("it is wider", `was => !document.querySelector(".tape").innerText.includes(was)`, was)
	wider := q.tape("outside")

	w.stop()
	require.NoError(t, w.store.Close())
	for _, end := range []string{"", "-wal", "-shm"} {
		_ = os.Remove(file + end)
	}
	data, err := os.ReadFile(backup)
	require.NoError(t, err)
	require.NoError(t, os.WriteFile(file, data, 0o600))
	w.store, err = store.Open(t.Context(), dir)
	require.NoError(t, err)
	w.start()

	p.see("it was put back to a backup")
	p.axe("put back to a backup")
	w.stores("Club jump", func() { p.press("Save what is here") })
	p.gone("it was put back to a backup")
	q.see("it was put back to a backup")
	q.press("Take the backup’s")
	q.gone("it was put back to a backup")
	q.tapeIs("outside", was)
	w.stores("Scorekeeper's table", func() { q.press("Undo") })
	q.tapeIs("outside", wider)

	p.MustReload().MustWaitLoad()
	p.tapeIs("outside", "65 7⁄16″ × 24″ × 36″")
}

// A price that is typed while the server is away is kept on the device, also when the page is closed before the server
// answers, and goes out by itself from any page. What turns out to be none says so, and keeps nothing else back.
func TestAPriceWaitsForTheServer(t *testing.T) {
	w := open(t)
	p := w.window("/prices")
	p.kept("3/4 in tee")
	w.stop()
	p.setPrice("Price of 3/4 in tee", "1.23")
	p.see("1 price waits on this device")
	p.see("1.23 waits")
	p.axe("a price that waits")
	p.MustReload().MustWaitLoad()
	p.see("Kept on this device, as it was at")
	p.see("1.23 waits")
	p.setPrice("Price of 3/4 in cap", "3 for 5")
	p.setPrice("Price of 1 in tee", "cheap")
	p.see("3 prices wait on this device")
	p.MustNavigate("about:blank")
	w.start()
	p.MustNavigate(w.url + "/help-is-elsewhere").MustWaitLoad()
	p.see("“cheap” could not be taken")
	p.gone("wait on this device")
	p.axe("a price that is none")
	q := w.window("/prices")
	q.see("$1.23")
	q.see("3 for $5.00")
	q.see("$1.19") // of the tee whose price could not be read

	p.setPrice("Price of 1 in tee, again", "1.25")
	p.gone("could not be taken")
	q.see("$1.25")

	// at the shop, in a project
	b := w.window("/p/" + w.project("Club jump") + "/buy")
	b.kept("What to buy")
	b.press("What it is worth")
	b.until("it is open", `() => [...document.querySelectorAll("details")].some((e) => e.open && e.innerText.includes("Budget"))`)
	w.stop()
	b.setPrice("Price of 3/4 in tee", "2.34")
	b.see("2.34 waits")
	b.setPrice("Budget", "77")
	b.see("what you typed waits here")
	b.axe("what waits at the shop")
	w.start()
	b.gone("waits")
	b.see("$2.34")
	b.see("$77.00")
	q.see("$2.34")
}
