package e2e_test

import (
	"encoding/json"
	"fmt"
	"math/rand/v2"
	"net/http"
	"os"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/record"
	"sturdyelbow/internal/server"
)

// day is a Saturday at the shop and the saw: what was pressed, on which device, for which project.
type day struct {
	w        *workshop
	r        *rand.Rand
	t        *testing.T
	projects []string
	up       bool
	cut      map[string][]string // by project: letter and length of each piece that was said to be cut
	ticks    map[string]int      // by project: lines that were ticked in the shop
	width    int
}

// bench is a device, and the project that it is at.
type bench struct {
	*window
	project string
}

// open goes to the saw of a project, or to its list for the shop.
func (d *day) open(b *bench, project, where string) {
	b.project = project
	b.until(
		"what was changed is kept",
		`() => !document.querySelector(".save-note") || document.querySelector(".save-note").textContent === "Saved"`,
	)
	b.MustNavigate(d.w.url + "/p/" + d.w.project(project) + where).MustWaitLoad()
}

func (d *day) stop() {
	if d.up {
		d.w.stop()
		d.up = false
	}
}

func (d *day) start() {
	if !d.up {
		d.w.start()
		d.up = true
	}
}

// card is the piece that is shown at the saw: its letter and its length.
func (b *bench) card() string {
	text := b.MustEval(`() => {
		const card = document.querySelector(".saw-card");
		return card ? card.querySelector(".saw-letter").textContent + " " + card.querySelector(".saw-figure strong").innerText : "";
	}`).Str()
	return strings.Join(strings.Fields(strings.NewReplacer("⁄", "/", "″", `"`).Replace(text)), " ")
}

// cutting waits until the page shows a piece that is still to be cut, and has for a moment, and says whether there is one. What
// stands in the way of it, that the plan was kept, is taken; it goes by itself where the server answers after all.
func (b *bench) cutting() bool {
	for {
		b.until("a piece is to be cut, or all are", `() => {
			const kept = document.querySelector(".saw .by-kept");
			if (kept?.innerText.includes("This plan is from")) kept.querySelector("[data-accept]").click();
			return [...document.querySelectorAll(".saw-main")].some((x) => x.textContent === "Cut it")
				|| document.querySelector(".saw-none") !== null || document.querySelector(".saw-left")?.textContent === "all done";
		}`)
		now := `() => [...document.querySelectorAll(".saw-main")].some((x) => x.textContent === "Cut it")`
		if !b.MustEval(now).Bool() {
			return false
		}
		if b.unbounced(); b.MustEval(now).Bool() {
			return true
		}
	}
}

// sawn presses the large button.
func (d *day) sawn(b *bench) {
	if !b.cutting() {
		return
	}
	piece := b.card()
	if d.up { // what the plan of this moment does not have is cut only where the page says so
		require.Eventually(d.t, func() bool {
			piece = b.card()
			return slices.Contains(d.toCut(b.project), piece) ||
				b.MustEval(`() => ["The plan changed", "Kept on this device", "does not answer"]
				.some((word) => document.body.innerText.includes(word))`).Bool()
		}, patience, 50*time.Millisecond, "%s is of the plan, or it is said that the plan is another", piece)
	}
	b.cutIt()
	d.cut[b.project] = append(d.cut[b.project], piece)
}

// toCut lists what the plan of this moment has still to cut of a project: letters and lengths.
func (d *day) toCut(name string) (all []string) {
	id := d.w.project(name)
	stored, err := d.w.store.Project(d.t.Context(), id)
	require.NoError(d.t, err)
	body := fmt.Sprintf(`{"project":%s,"of":%q}`, stored.Body, id)
	r, err := http.Post(d.w.url+"/api/plan", "application/json", strings.NewReader(body)) //nolint:noctx // it answers or fails
	require.NoError(d.t, err)
	defer func() { assert.NoError(d.t, r.Body.Close()) }()
	var a server.PlanAnswer
	require.NoError(d.t, json.NewDecoder(r.Body).Decode(&a))
	for i := range a.Plan.Pipe {
		for _, k := range a.Plan.Pipe[i].Sticks {
			for _, x := range k.Pieces {
				if x.Cut == "" && !k.Earlier {
					all = append(all, x.Name+" "+x.Length.String())
				}
			}
		}
	}
	return all
}

// bought ticks the next line of the list.
func (d *day) bought(b *bench) {
	b.see("What to buy")
	next := `() => document.querySelector(".ware [role=checkbox]:not([data-state=checked])")`
	if b.MustEval(`() => document.querySelector(".ware [role=checkbox]:not([data-state=checked])") === null`).Bool() {
		return
	}
	count := b.MustEval(`() => document.querySelectorAll(".ware [role=checkbox][data-state=checked]").length`).Int()
	b.MustEval(`() => (` + next + `)().click()`)
	b.until("it is ticked", `n => document.querySelectorAll(".ware [role=checkbox][data-state=checked]").length > n`, count)
	d.ticks[b.project]++
}

// A day at the shop and the saw, over two devices and two projects: the server stops at random moments, a page is loaded again
// without it, a width is changed with pieces cut. Compared with what was pressed nothing is lost, nothing is there twice, and no
// piece is cut by a plan that was kept without a word. DAY=1 is the long day: twenty stops and ten pages without the server.
func TestADayAtTheShopAndTheSaw(t *testing.T) {
	stops, reloads, seed := 3, 2, uint64(26)
	if os.Getenv("DAY") != "" {
		stops, reloads = 20, 10
	}
	if s, err := strconv.ParseUint(os.Getenv("DAY_SEED"), 10, 64); err == nil {
		seed = s
	}
	w := open(t)
	d := &day{
		w: w, t: t, r: rand.New(rand.NewPCG(seed, 1)), up: true, projects: []string{"Club jump", "Ring gate screen"}, //nolint:gosec // any day will do
		cut: map[string][]string{}, ticks: map[string]int{}, width: 48,
	}
	phone, laptop := &bench{window: w.window("/")}, &bench{window: w.window("/")}
	phone.MustSetViewport(390, 844, 2, true)
	for _, name := range d.projects { // each page is seen once, and so is kept
		for _, where := range []string{"/cut#saw", "/buy"} {
			d.open(phone, name, where)
			phone.until("the page is kept", `() => navigator.serviceWorker.controller !== null`)
			phone.MustReload().MustWaitLoad()
			phone.until("it is there", `() => document.querySelector(".saw-card, .ware") !== null`)
		}
	}
	d.open(phone, d.projects[0], "/cut#saw")
	d.open(laptop, d.projects[1], "/buy")
	began := time.Now()
	for stops > 0 || reloads > 0 {
		if time.Since(began) > wholeDay/2 {
			require.Fail(t, "the day does not end", "day %d: %d stops and %d reloads are left", seed, stops, reloads)
		}
		switch k := d.r.IntN(10); {
		case k < 2 && d.up:
			d.stop()
			stops = max(0, stops-1)
		case k < 4 && !d.up:
			d.start()
		case k == 4 && !d.up && reloads > 0:
			reloads--
			phone.MustReload().MustWaitLoad()
			phone.see("Kept on this device, as it was at")
		case k == 5 && d.up && d.r.IntN(3) == 0: // the other project
			d.open(phone, d.projects[d.r.IntN(2)], "/cut#saw")
		case k == 6 && d.up && d.r.IntN(2) == 0: // a width is changed on the laptop while the phone is at the saw
			d.width++
			d.open(laptop, d.projects[0], "/size")
			laptop.see("How big?")
			w.stores(d.projects[0], func() { laptop.write("Width", fmt.Sprint(d.width)) })
			d.open(laptop, d.projects[d.r.IntN(2)], "/buy")
		case k < 8:
			d.sawn(phone)
		default:
			d.bought(laptop)
		}
	}
	d.start()
	for _, b := range []*bench{phone, laptop} {
		b.MustNavigate(d.w.url + "/").MustWaitLoad() // what waits of a project whose page is closed goes out from the shelf
		b.until(
			"all of it is sent",
			`() => !Object.keys(localStorage).some((k) => k.startsWith("sturdyelbow.done.") && !JSON.parse(localStorage.getItem(k)).last)`,
		)
		b.until("nothing is set aside", `() => !Object.keys(localStorage).some((k) => k.startsWith("sturdyelbow.aside."))`)
	}
	for _, name := range d.projects {
		stored, err := w.store.Events(t.Context(), w.project(name), 0)
		require.NoError(t, err)
		ids, cut, bought := map[string]bool{}, []string{}, 0
		for _, s := range stored {
			var e record.Event
			require.NoError(t, json.Unmarshal(s.Body, &e))
			require.False(t, ids[s.ID], "nothing is there twice")
			ids[s.ID] = true
			switch e.Kind {
			case record.Cut:
				cut = append(cut, e.Letter+" "+e.Length.String())
			case record.Bought:
				bought++
			default:
			}
		}
		assert.ElementsMatch(t, d.cut[name], cut, "%s, day %d: what was pressed is what was done", name, seed)
		assert.Equal(t, d.ticks[name], bought, "%s, day %d", name, seed)
	}
	t.Logf(
		"day %d: %d pieces and %d lines",
		seed,
		len(d.cut[d.projects[0]])+len(d.cut[d.projects[1]]),
		d.ticks[d.projects[0]]+d.ticks[d.projects[1]],
	)
}
