package server_test

import (
	"bufio"
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"
	"testing/fstest"
	"time"

	"github.com/stretchr/testify/require"

	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
	proj "sturdyelbow/internal/project"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
)

// TestMain lets this binary be the server that is killed: it serves a directory and
// prints where.
func TestMain(m *testing.M) {
	if dir := os.Getenv("SERVE_UNTIL_KILLED"); dir != "" {
		st, err := store.Open(context.Background(), dir)
		if err != nil {
			panic(err)
		}
		l, err := net.Listen("tcp", "127.0.0.1:0")
		if err != nil {
			panic(err)
		}
		h := server.New(server.Config{Store: st, Web: fstest.MapFS{"index.html": {}}})
		fmt.Println(l.Addr())
		if err := server.Serve(context.Background(), l, h); err != nil {
			panic(err)
		}
	}
	os.Exit(m.Run())
}

// mortal is a server that is killed (SIGKILL) while it is at work: at any moment after it gave a few answers, of which
// there are as many on a slow machine.
type mortal struct {
	url   string
	t     *testing.T
	cmd   *exec.Cmd
	still int // answers until death comes
	dead  chan struct{}
}

func serveUntilKilled(t *testing.T, dir string) *mortal {
	cmd := exec.Command(os.Args[0])
	cmd.Env = append(os.Environ(), "SERVE_UNTIL_KILLED="+dir)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	require.NoError(t, cmd.Start())
	line := bufio.NewScanner(out)
	require.True(t, line.Scan(), "it starts")
	return &mortal{"http://" + line.Text(), t, cmd, rand.IntN(12), make(chan struct{})} //nolint:gosec // any number will do
}

// asked sends something to it and gives the answer's status; 0 when it was killed meanwhile.
func (m *mortal) asked(method, path string, body any) int {
	if m.still == 0 {
		go func() {
			time.Sleep(rand.N(20 * time.Millisecond)) //nolint:gosec // any moment will do
			_ = m.cmd.Process.Kill()
			close(m.dead)
		}()
	}
	m.still--
	return send(m.url, method, path, body)
}

// killed waits until it is dead.
func (m *mortal) killed() {
	<-m.dead
	require.Error(m.t, m.cmd.Wait(), "it was killed")
}

// kills is how often the server is killed; KILLS=1000 is the long run.
func kills(t *testing.T) int {
	n, err := strconv.Atoi(os.Getenv("KILLS"))
	if os.Getenv("KILLS") == "" {
		return 25
	}
	require.NoError(t, err)
	return n
}

// The server is killed (SIGKILL) again and again in the middle of a stream of saves and
// events: whatever it had acknowledged is there when it starts anew, every save with the
// body of its revision and the states before it, every event once and in its order.
func TestNothingAcknowledgedIsLost(t *testing.T) {
	dir := t.TempDir()
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	p, err := st.Create(t.Context(), store.State{Name: "1", Format: 9, Body: []byte(`{"name":"1"}`)})
	require.NoError(t, err)
	require.NoError(t, st.Close())
	saved, said, lost := int64(1), 0, 0
	for n := range kills(t) {
		srv := serveUntilKilled(t, dir)
		for {
			if status := srv.asked(http.MethodPut, "/api/projects/"+p.ID, map[string]any{
				"revision": saved, "project": map[string]any{"name": strconv.FormatInt(saved+1, 10), "units": "in", "style": "inches", "copies": 1, "tool": "saw", "format": 2},
			}); status == 0 {
				break
			} else if status == http.StatusOK {
				saved++
			} else if status == http.StatusConflict { // the answer before was lost on the way
				t.Fatalf("a save based on %d is called stale", saved)
			}
			if status := srv.asked(http.MethodPost, "/api/projects/"+p.ID+"/events", server.EventsRequest{
				Device: "phone", Events: []record.Event{{ID: fmt.Sprint(said + 1), Kind: record.Unmatched, Text: "x"}},
			}); status == 0 {
				break
			} else if status == http.StatusOK {
				said++
			}
		}
		srv.killed()
		st, err := store.Open(t.Context(), dir)
		require.NoError(t, err, "after %d kills", n+1)
		now, err := st.Project(t.Context(), p.ID)
		require.NoError(t, err)
		require.GreaterOrEqual(t, now.Revision, saved, "after %d kills", n+1)
		require.LessOrEqual(t, now.Revision, saved+1, "only the one whose answer was lost may be there besides")
		require.Equal(t, strconv.FormatInt(now.Revision, 10), now.Name, "the body belongs to its revision")
		if now.Revision > saved {
			lost++
		}
		saved = now.Revision
		all, err := st.Events(t.Context(), p.ID, 0)
		require.NoError(t, err)
		require.GreaterOrEqual(t, len(all), said)
		require.LessOrEqual(t, len(all), said+1)
		said = len(all)
		for i, e := range all {
			require.Equal(t, strconv.Itoa(i+1), e.ID)
		}
		require.NoError(t, st.Close())
	}
	require.Greater(t, saved, int64(kills(t)), "it was at work when it was killed")
	r, err := store.Check(t.Context(), filepath.Join(dir, store.FileName))
	require.NoError(t, err)
	require.Empty(t, r.Wrong)
	t.Logf("%d kills: %d saves and %d events acknowledged; %d answers were lost on the way", kills(t), saved, said, lost)
}

// The server is killed in the middle of purchases for three projects, of cuts that one lends another, and of what takes
// them back: what one press did to several of them is in all of their records or in none, what was acknowledged is
// there, and sent again it counts once.
func TestWhatIsDoneToSeveralIsStoredAtOnce(t *testing.T) {
	dir := t.TempDir()
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	var ids []string
	for i, width := range []string{"4 ft", "3 ft", "5 ft"} {
		data, err := json.Marshal(jump(width))
		require.NoError(t, err)
		p, err := st.Create(t.Context(), store.State{Name: strconv.Itoa(i), Format: proj.Format, Body: data})
		require.NoError(t, err)
		ids = append(ids, p.ID)
	}
	require.NoError(t, st.Close())
	pipe := material.Spec{Ware: material.Pipe, Size: "3/4", Length: 10 * measure.Foot}
	type press struct {
		event record.Event
		said  bool // the server has acknowledged it
	}
	var presses []press
	for n := range kills(t) {
		srv := serveUntilKilled(t, dir)
		if k := len(presses) - 1; k >= 0 && !presses[k].said { // it waits on the device, and is sent again
			presses[k].said = srv.asked(http.MethodPost, "/api/together/events", doing(ids, presses[k].event)) == http.StatusOK
		}
		for len(presses) == 0 || presses[len(presses)-1].said {
			e := record.Event{ID: fmt.Sprint("press", len(presses))}
			switch k := rand.IntN(4); { //nolint:gosec // any mixture will do
			case k < 2 || len(presses) == 0:
				e.Kind, e.Ware, e.Count = record.Bought, &pipe, 1+rand.IntN(5) //nolint:gosec // as above
			case k == 2:
				e.Kind, e.Event = record.TakenBack, presses[rand.IntN(len(presses))].event.ID //nolint:gosec // as above
			default: // from one stick, in turn for each of them
				e.Kind, e.Frame, e.Length = record.Cut, len(presses)%3, measure.Inch
				e.Piece = &record.Piece{Pipe: "p1", Copy: len(presses) + 1}
				e.Stick = &record.Source{
					ID:     fmt.Sprint("stick", len(presses)/9),
					Size:   "3/4",
					Length: 10 * measure.Foot,
					Origin: record.FromShop,
				}
			}
			presses = append(presses, press{event: e})
			status := srv.asked(http.MethodPost, "/api/together/events", doing(ids, e))
			require.Contains(t, []int{0, http.StatusOK}, status, "%+v", e)
			presses[len(presses)-1].said = status == http.StatusOK
		}
		srv.killed()
		st, err := store.Open(t.Context(), dir)
		require.NoError(t, err, "after %d kills", n+1)
		var works []record.Work
		all := map[string]int{} // records that have an event
		jobs, bought := map[string]int{}, map[string]int{}
		for _, id := range ids {
			stored, err := st.Events(t.Context(), id, 0)
			require.NoError(t, err)
			var events []record.Event
			for _, s := range stored {
				e := record.Event{}
				require.NoError(t, json.Unmarshal(s.Body, &e))
				e.ID, e.Seq = s.ID, s.Seq
				events = append(events, e)
				all[s.ID]++
				jobs[s.ID], bought[s.ID] = 1, e.Count
				if e.Shared != nil && e.Shared.Of != "" {
					of := e.Shared.Of
					all[of]++
					jobs[of], bought[of] = e.Shared.Jobs, bought[of]+e.Count
				}
				if e.Kind == record.Elsewhere {
					all["lent "+e.Item]++
				}
			}
			works = append(works, record.Add(events))
		}
		require.NoError(t, st.Close())
		for i, p := range presses {
			if i < len(presses)-1 || p.said {
				require.Positive(t, all[p.event.ID], "acknowledged: %+v", p.event)
			}
			if p.event.Kind == record.Bought && all[p.event.ID] > 0 {
				require.Equal(t, jobs[p.event.ID], all[p.event.ID], "each that it is for has its share: %+v", p.event)
				require.Equal(t, p.event.Count, bought[p.event.ID], "the shares come to all of it: %+v", p.event)
			}
			if s := p.event.Stick; s != nil && all[p.event.ID] > 0 {
				made := slices.IndexFunc(works[p.event.Frame].Pieces, func(m record.Made) bool { return m.ID == p.event.ID })
				if made < 0 {
					continue // it was taken back
				}
				lent := 0
				if strings.Contains(works[p.event.Frame].Pieces[made].Stick, "~") {
					lent = 1
				}
				require.Equal(t, lent, all["lent "+p.event.ID], "a cut and the stick it was lent from")
			}
		}
		together := record.Together(works...)
		require.Empty(t, together.Shared, "together all of each purchase is there")
	}
	t.Logf("%d kills in the middle of %d presses", kills(t), len(presses))
}

// doing is what a phone says was done to several.
func doing(ids []string, e record.Event) map[string]any {
	return with(with(several(ids, nil), "device", "phone"), "events", []record.Event{e})
}

// send gives the status of an answer; 0 for none.
func send(url, method, path string, body any) int {
	data, err := json.Marshal(body)
	if err != nil {
		return -1
	}
	r, err := http.NewRequest(method, url+path, bytes.NewReader(data)) //nolint:noctx // the server's end ends it
	if err != nil {
		return -1
	}
	r.Header.Set("Content-Type", "application/json")
	a, err := http.DefaultClient.Do(r)
	if err != nil {
		return 0
	}
	defer func() { _ = a.Body.Close() }()
	var whole any
	if json.NewDecoder(a.Body).Decode(&whole) != nil { // cut off: not acknowledged
		return 0
	}
	return a.StatusCode
}
