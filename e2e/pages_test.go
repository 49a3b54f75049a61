package e2e_test

import (
	"context"
	"strings"
	"sync"
	"testing"

	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// complaints is what a page's console says that is an error, what its code throws, and what it asks for and does not get.
type complaints struct {
	mu  sync.Mutex
	all []string
}

func (c *complaints) add(what string) {
	c.mu.Lock()
	defer c.mu.Unlock()
	c.all = append(c.all, what)
}

// take gives them, and begins anew.
func (c *complaints) take() []string {
	c.mu.Lock()
	defer c.mu.Unlock()
	all := c.all
	c.all = nil
	return all
}

// listen hears what a window complains of.
func (w *window) listen() *complaints {
	c := &complaints{}
	ctx, stop := context.WithCancel(w.GetContext())
	wait := w.Context(ctx).EachEvent(
		func(e *proto.RuntimeConsoleAPICalled) {
			if e.Type != proto.RuntimeConsoleAPICalledTypeError && e.Type != proto.RuntimeConsoleAPICalledTypeWarning {
				return
			}
			var words []string
			for _, a := range e.Args {
				words = append(words, a.Value.Str()+" "+a.Description)
			}
			if said := strings.Join(words, " "); !strings.HasPrefix(
				said,
				"THREE.Clock:",
			) { // a library's, about how another of its versions does it
				c.add(said)
			}
		},
		func(e *proto.RuntimeExceptionThrown) {
			c.add("thrown: " + e.ExceptionDetails.Text + " " + e.ExceptionDetails.Exception.Description)
		},
		func(e *proto.LogEntryAdded) {
			if e.Entry.Level == proto.LogLogEntryLevelError {
				c.add(e.Entry.Text + " " + e.Entry.URL)
			}
		},
	)
	heard := make(chan struct{})
	go func() { wait(); close(heard) }()
	w.t.Cleanup(func() { stop(); <-heard })
	return c
}

// whole checks that a page shows all of itself, and complains of nothing.
func (w *window) whole(what string, heard *complaints) {
	w.t.Helper()
	w.until(
		what+" is shown",
		`() => document.querySelector("main, [data-broken]") && !document.querySelector(".waiting") && document.body.innerText.trim().length > 100`,
	)
	assert.Equal(
		w.t,
		0,
		w.MustEval(`() => document.querySelectorAll("[data-broken]").length`).Int(),
		"%s: %s",
		what,
		w.MustEval(`() => document.body.innerText`).Str(),
	)
	assert.Empty(w.t, heard.take(), "%s: the console is empty", what)
}

// Every page that there is, and of every project every lens, its paper and its labels: all is shown, and the console is empty.
func TestEveryPageOfEveryProject(t *testing.T) {
	w := open(t)
	all, err := w.store.Projects(t.Context())
	require.NoError(t, err)
	require.Greater(t, len(all), 5)
	begin := func(t *testing.T) (*window, *complaints) {
		t.Parallel()
		here := *w
		here.t = t
		p := here.blankWindow()
		return p, p.listen()
	}
	t.Run("pages", func(t *testing.T) {
		p, heard := begin(t)
		two := "?of=" + all[0].ID + "," + all[1].ID
		for _, path := range []string{"/", "/new", "/cut", "/prices", "/rack", "/together", "/together" + two, "/together/labels" + two, "/nowhere"} {
			p.MustNavigate(w.url + path).MustWaitLoad()
			p.whole(path, heard)
		}
	})
	for _, of := range all {
		t.Run(of.Name, func(t *testing.T) {
			p, heard := begin(t)
			p.MustNavigate(w.url + "/p/" + of.ID).MustWaitLoad()
			p.ready()
			for _, lens := range p.MustEval(`() => [...document.querySelectorAll("[role=tab] .station-name")].map(e => e.innerText)`).Arr() {
				p.lens(lens.Str())
				p.whole(lens.Str(), heard)
			}
			for _, paper := range []string{"/sheet", "/labels"} {
				p.MustNavigate(w.url + "/p/" + of.ID + paper).MustWaitLoad()
				p.whole(paper, heard)
			}
		})
	}
}

// What breaks says so where it stands, and takes nothing along: the frame, the tape and the other lenses go on.
func TestWhatBreaksTakesNothingAlong(t *testing.T) {
	w := open(t)
	p := w.blankWindow()
	p.MustEvalOnNewDocument(`{
		const parse = JSON.parse;
		const spoil = (a) => { for (const p of [a?.plan, a?.answer?.plan]) if (p && !window.mended) p.bars = null; return a; };
		JSON.parse = (...args) => spoil(parse(...args));
		Response.prototype.json = async function () { return spoil(parse(await this.text())); };
	}`)
	p.MustNavigate(w.url + "/p/" + w.project("Club jump") + "/cut").MustWaitLoad()
	p.see("The sheet of Cut cannot be shown")
	p.see("What you typed and what was done is kept")
	p.until("the frame stands", `() => document.querySelector(".stage-list").children.length > 10`)
	p.until("the tape answers", `() => document.querySelector(".tape").innerText.includes("sticks")`)
	p.lens("Log")
	p.see("each change keeps what it replaced")
	p.lens("Cut")
	p.see("The sheet of Cut cannot be shown")
	p.MustEval(`() => { window.mended = true }`)
	p.lens("Size")
	p.write("Bar height", "21")
	p.lens("Cut")
	p.see("Where to cut")
}

// A line that cannot be drawn leaves a part of the frame: whatever sums up says so, as large as the sum, with a way to the line.
func TestWhatIsUnfinishedSaysSo(t *testing.T) {
	w := open(t)
	p := w.blank()
	p.press("Paste lines")
	p.MustElement(".drawer-body textarea").MustInput("right 24 cut\nup 20 cut\nleft 24 foo\ndown 20 cut")
	p.press("Draw them")
	p.until("the tape says so", `() => document.querySelector(".tape").innerText.includes("2 lines wait")`)
	for _, lens := range []string{"Size", "Joints", "Buy", "Cut", "Log"} {
		p.lens(lens)
		p.see("Unfinished: 2 lines wait")
		p.see("What is here is of the part that is drawn. Line 3,")
	}
	p.lens("Cut")
	p.press("At the saw")
	p.see("These are the pieces of the part that is drawn")
	p.press("Leave the saw")
	p.lens("Cut")
	p.press("To the lines")
	p.until("one is at the line", `() => document.activeElement.innerText.includes("left 24 foo")`)
	id := strings.Split(p.MustEval(`() => location.pathname`).Str(), "/")[2]
	p.MustNavigate(w.url + "/p/" + id + "/sheet").MustWaitLoad()
	p.see("Unfinished: 2 lines wait. All of this is of the part that is drawn")
	p.MustNavigate(w.url + "/p/" + id + "/labels").MustWaitLoad()
	p.see("Unfinished: 2 lines wait")
	p.MustNavigate(w.url + "/").MustWaitLoad()
	p.see("unfinished: 2 lines wait, 1 stick so far")
	p.MustNavigate(w.url + "/together?of=" + id + "," + w.project("Club jump")).MustWaitLoad()
	p.see("Unfinished: 2 lines wait")
}
