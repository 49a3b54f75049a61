package e2e_test

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net"
	"os"
	"os/exec"
	"strings"
	"sync"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/launcher"
	"github.com/go-rod/rod/lib/launcher/flags"
	"github.com/go-rod/rod/lib/proto"
	"github.com/go-rod/rod/lib/utils"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/internal/demo"
	"sturdyelbow/internal/server"
	"sturdyelbow/internal/store"
	"sturdyelbow/internal/suppliers"
	"sturdyelbow/web"
)

const (
	// patience is how long a step may take on a slow machine that does much else.
	patience = time.Minute
	// wholeDay is how long a journey of many steps may take on it.
	wholeDay = 30 * time.Minute
)

var browser *rod.Browser

func TestMain(m *testing.M) {
	// the headless one starts a window in a third of the time
	bin, err := exec.LookPath("chromium-headless-shell")
	if err != nil {
		bin, err = exec.LookPath("chromium")
	}
	if err != nil && os.Getenv("CI") != "" {
		fmt.Println("these tests need Debian's chromium: run make test, which installs it")
		os.Exit(1)
	}
	if err != nil {
		fmt.Println("SKIPPED, every journey in the browser: there is no chromium on this machine; make test installs it")
		os.Exit(0)
	}
	l := launcher.New().Bin(bin).Leakless(false).Headless(true).NoSandbox(true)
	for _, f := range []string{"disable-gpu", "disable-quic", "no-first-run", "disable-background-networking", "disable-component-update", "disable-sync", "force-color-profile=srgb", "hide-scrollbars", "force-prefers-reduced-motion"} {
		name, value, _ := strings.Cut(f, "=")
		if value == "" {
			l.Set(flags.Flag(name))
		} else {
			l.Set(flags.Flag(name), value)
		}
	}
	// it would look but once a second, and for as long as the window lasts
	const least, most = 15 * time.Millisecond, 120 * time.Millisecond
	often := func() utils.Sleeper {
		return utils.EachSleepers(utils.BackoffSleeper(least, most, nil), utils.CountSleeper(int(3*patience/2/most)))
	}
	browser = rod.New().ControlURL(l.MustLaunch()).Sleeper(often).MustConnect()
	code := m.Run()
	browser.MustClose()
	l.Cleanup()
	os.Exit(code)
}

// workshop is a server with the demo's projects, and its address.
type workshop struct {
	t     *testing.T
	store *store.Store
	addr  string
	url   string
	stop  func()

	suppliers []*suppliers.Example
	version   string
}

// open makes one, for a journey that goes on beside others.
func open(t *testing.T) *workshop {
	t.Parallel()
	return openIn(t, t.TempDir())
}

// openIn is a workshop whose data is in a directory.
func openIn(t *testing.T, dir string) *workshop {
	st, err := store.Open(t.Context(), dir)
	require.NoError(t, err)
	require.NoError(t, demo.Seed(t.Context(), st))
	w := &workshop{t: t, store: st, addr: "127.0.0.1:0", suppliers: suppliers.Examples(), version: "test"}
	w.start()
	t.Cleanup(func() {
		w.stop()
		assert.NoError(t, st.Close())
	})
	return w
}

// start serves; after a stop, at the same address as before.
func (w *workshop) start() {
	l, err := net.Listen("tcp", w.addr)
	require.NoError(w.t, err)
	w.addr = l.Addr().String()
	w.url = "http://" + w.addr
	ctx, cancel := context.WithCancel(context.WithoutCancel(w.t.Context()))
	ended := make(chan error, 1)
	var sources []suppliers.Source
	for _, e := range w.suppliers {
		sources = append(sources, e)
	}
	go func() {
		ended <- server.Serve(ctx, l, server.New(server.Config{
			Store: w.store, Web: web.Files(), Version: w.version, Closing: ctx.Done(), Suppliers: sources,
		}))
	}()
	w.stop = sync.OnceFunc(func() {
		cancel()
		assert.NoError(w.t, <-ended)
	})
}

// project gives the id of a project by its name.
func (w *workshop) project(name string) string {
	all, err := w.store.Projects(w.t.Context())
	require.NoError(w.t, err)
	for _, p := range all {
		if p.Name == name {
			return p.ID
		}
	}
	require.Fail(w.t, "no such project", name)
	return ""
}

// stores does something to a project and waits until a change of it is stored: a page says that it is
// saved also before it knows of a change.
func (w *workshop) stores(name string, do func()) {
	w.t.Helper()
	revision := func() int64 {
		all, err := w.store.Projects(w.t.Context())
		require.NoError(w.t, err)
		for _, p := range all {
			if p.Name == name {
				return p.Revision
			}
		}
		return 0
	}
	was := revision()
	do()
	require.Eventually(w.t, func() bool { return revision() > was }, patience, 20*time.Millisecond, "a change of %s is stored", name)
}

// window is one window of the browser, with storage of its own.
type window struct {
	*rod.Page
	t *testing.T
}

func (w *workshop) window(path string) *window {
	win := w.blankWindow()
	win.MustNavigate(w.url + path).MustWaitLoad()
	return win
}

// blankWindow is one that has not been anywhere.
func (w *workshop) blankWindow() *window {
	b := browser.MustIncognito()
	p := b.MustPage("")
	p.MustSetViewport(1280, 800, 1, false)
	// A browser has one focus, and a window that another takes it from leaves the field that it
	// is in: each is told that it has it.
	require.NoError(w.t, proto.EmulationSetFocusEmulationEnabled{Enabled: true}.Call(p))
	p.MustEvalOnNewDocument(`{
		const ask = fetch;
		window.asking = 0;
		window.fetch = (...args) => (window.asking++, ask(...args).finally(() => window.asking--));
	}`)
	w.t.Cleanup(func() { _ = b.Close() }) // closing the page would ask about unsaved changes
	return &window{p.Timeout(wholeDay).WithPanic(func(v any) { require.Fail(w.t, fmt.Sprint(v)) }), w.t}
}

// kept waits until the page has its worker and all that it reads is kept by it: the server can stop then. Before, what is
// under way is told as old, as it is to a builder.
func (w *window) kept(shows string) {
	w.t.Helper()
	w.see(shows)
	w.until("the page has its worker", `() => navigator.serviceWorker.controller !== null`)
	w.MustReload().MustWaitLoad()
	w.see(shows)
	w.until("nothing is being read", `async () => {
		const none = () => window.asking === 0;
		return none() && (await new Promise((go) => setTimeout(go, 150)), none());
	}`)
}

// see waits until the page shows a text somewhere.
func (w *window) see(text string) {
	w.t.Helper()
	w.until(fmt.Sprintf("the page shows %q", text), `t => document.body.innerText.replace(/\s+/g, " ").includes(t)`, text)
}

// asks waits until the page asks a question, and has asked it for as long as it takes to read.
func (w *window) asks(title string) {
	w.t.Helper()
	w.see(title)
	w.until("a key answers it", `() => document.querySelector(".answers[data-read=true]") !== null`)
}

func (w *window) gone(text string) {
	w.t.Helper()
	w.until(fmt.Sprintf("the page no longer shows %q", text), `t => !document.body.innerText.replace(/\s+/g, " ").includes(t)`, text)
}

// prefers is what the system says that the builder would rather have.
func (w *window) prefers(what, value string) {
	w.t.Helper()
	media := []*proto.EmulationMediaFeature{{Name: what, Value: value}}
	require.NoError(w.t, proto.EmulationSetEmulatedMedia{Features: media}.Call(w))
}

// moving lets what changes glide to its place: most journeys have it jump there.
func (w *window) moving() {
	w.t.Helper()
	w.prefers("prefers-reduced-motion", "no-preference")
}

// dark turns the lights out, as the system does.
func (w *window) dark() {
	w.t.Helper()
	w.prefers("prefers-color-scheme", "dark")
	w.until("it is dark", `() => document.documentElement.dataset.theme === "dark"`)
}

// named checks that no piece goes by its id: all have letters.
func (w *window) named() {
	w.t.Helper()
	body := w.MustEval(`() => document.body.innerText`).Str()
	assert.NotRegexp(w.t, `\bp\d+\b|[⟨⟩]`, body, "a piece goes by its letter")
}

// until waits for a condition in the page and fails with what was waited for. What the
// condition asks about need not be there yet: while it throws, it does not hold.
func (w *window) until(what, js string, args ...any) {
	w.t.Helper()
	held := "async (...args) => { try { return await (" + js + ")(...args) } catch { return false } }"
	err := w.Timeout(patience).Wait(rod.Eval(held, args...).ByPromise())
	if err != nil {
		_, thrown := w.Eval(js, args...)
		body := w.MustEval(`() => document.body.innerText`).Str()
		require.NoError(
			w.t,
			errors.Join(err, thrown),
			"waiting until %s; the server says to the page: %s; the page says:\n%s",
			what,
			w.reaches(),
			body,
		)
	}
}

// reaches tells what the page gets of the server: past its worker, through it, and by a connection that stays.
func (w *window) reaches() string {
	res, err := w.Timeout(patience).Eval(`async () => {
		const soon = (p) => Promise.race([p, new Promise((go) => setTimeout(go, 5000, "nothing for 5 s"))]).catch(String);
		const get = (at) => fetch(at).then((r) => r.status + (r.headers.has("X-Kept") ? " as it was kept" : ""));
		const ws = () => new Promise((go) => {
			const s = new WebSocket("/api/follow?project=");
			s.onmessage = () => (go("heard"), s.close());
			s.onclose = (e) => go("closed " + e.code + " " + e.reason);
		});
		return "page of " + document.documentElement.dataset.version + "; past the worker " + await soon(get("/api/about?" + Math.random())) +
			"; through it " + await soon(get("/api/about")) + "; follow " + await soon(ws());
	}`)
	if err != nil {
		return err.Error()
	}
	return res.Value.Str()
}

// field finds a form field by its label.
func (w *window) field(label string) *rod.Element {
	w.t.Helper()
	e, err := w.Timeout(patience).ElementByJS(rod.Eval(`label => {
		for (const l of document.querySelectorAll("label"))
			if (l.innerText.trim().startsWith(label)) return l.control;
		return document.querySelector('[aria-label="' + CSS.escape(label) + '"]') ?? document.querySelector('[aria-label="' + label + '"]');
	}`, label))
	require.NoError(w.t, err, "the field %q", label)
	return e.Timeout(patience)
}

// wrong waits until a field is marked as wrong, and the reason that stands with it says something.
func (w *window) wrong(label, why string) {
	w.t.Helper()
	e := w.field(label)
	w.until(fmt.Sprintf("%q stands at %q", why, label), `(id, label, why) => {
		const e = document.getElementById(id) ?? document.querySelector('[aria-label="' + label + '"]');
		const said = document.getElementById(e.getAttribute("aria-describedby"));
		return e.getAttribute("aria-invalid") === "true" && said.innerText.includes(why);
	}`, e.MustProperty("id").Str(), label, why)
}

// write replaces a field's text as a person would: select all and type.
// A change is shown as being saved from that very moment: to see "Saved" after it is to see
// that it is saved.
func (w *window) write(label, text string) {
	w.t.Helper()
	f := w.field(label)
	f.MustSelectAllText().MustInput(text)
}

// choose opens a short list by its label and takes a value from it.
func (w *window) choose(label, value string) {
	w.t.Helper()
	w.click(fmt.Sprintf("[role=combobox][aria-label=%q]", label))
	w.click(fmt.Sprintf(".menu [role=option][data-value=%q]", value))
	w.until("the list closes", `() => !document.querySelector(".menu")`)
}

// click presses the middle of what a selector finds, once nothing else of the
// page is in the way.
func (w *window) click(selector string) {
	w.t.Helper()
	e, err := w.Timeout(patience).Element(selector)
	require.NoError(w.t, err, selector)
	e.MustScrollIntoView()
	w.until("nothing covers "+selector, `s => {
		const e = document.querySelector(s), r = e?.getBoundingClientRect();
		return r?.width > 0 && e.contains(document.elementFromPoint(r.x + r.width / 2, r.y + r.height / 2));
	}`, selector)
	w.tap(e.MustShape().Box().X+e.MustShape().Box().Width/2, e.MustShape().Box().Y+e.MustShape().Box().Height/2)
}

// tap presses a point of the window.
func (w *window) tap(x, y float64) {
	w.t.Helper()
	require.NoError(w.t, w.Mouse.MoveTo(proto.NewPoint(x, y)))
	require.NoError(w.t, w.Mouse.Click(proto.InputMouseButtonLeft, 1))
}

// ready waits until a workbench shows its plan.
func (w *window) ready() {
	w.t.Helper()
	w.until("the tape reads", `() => document.querySelector('section[aria-label="The job in one line"]') !== null`)
}

// turning waits until the frame stands in space, drawn once.
func (w *window) turning() {
	w.t.Helper()
	w.ready()
	w.until("the frame turns", `() => document.querySelector(".stage-labels[data-drawn]") !== null`)
}

// lens changes to another lens by its tab.
func (w *window) lens(name string) {
	w.t.Helper()
	w.hit(
		"the lens "+name,
		rod.Eval(`n => [...document.querySelectorAll("[role=tab]")].find(e => e.innerText.trim().startsWith(n)) ?? null`, name),
	)
	w.until(
		"the lens is "+name,
		`n => document.querySelector('[role=tab][data-state=active]').innerText.startsWith(n) && !document.querySelector(".lens-sheet .waiting")`,
		name,
	)
}

// all reads every cell of the tape.
func (w *window) all() string {
	w.t.Helper()
	return w.MustEval(`() => [...document.querySelectorAll('section[aria-label="The job in one line"] .tape-figure')].map(e => e.innerText.replace(/\s+/g, " ").trim()).join(" | ")`).
		Str()
}

// allIs waits until the whole tape reads so.
func (w *window) allIs(want, when string) {
	w.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(20 * time.Millisecond) {
		if w.all() == want {
			return
		}
	}
	require.Equal(w.t, want, w.all(), when)
}

// change reads what the last change did to a cell of the tape.
func (w *window) change(label string) string {
	w.t.Helper()
	return w.MustEval(`label => {
		for (const c of document.querySelectorAll(".tape-cell"))
			if (c.children[0].textContent === label) return c.children[2].innerText.trim();
		return "";
	}`, label).Str()
}

// changeIs waits until the last change to a cell reads so.
func (w *window) changeIs(label, want string) {
	w.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(30 * time.Millisecond) {
		if w.change(label) == want {
			return
		}
	}
	assert.Equal(w.t, want, w.change(label), "what changed in the tape's %s", label)
}

// press presses a button or follows a link by its words.
func (w *window) press(words string) {
	w.t.Helper()
	w.hit(
		fmt.Sprintf("the button %q", words),
		rod.Eval(`words => [...document.querySelectorAll("button, a, summary, [role=menuitem], [cmdk-item]")]
		.find(e => (e.getAttribute("aria-label") ?? e.innerText).trim().startsWith(words) && !e.disabled) ?? null`, words),
	)
}

// hit presses an element with the mouse. One that moved away from under it in between is pressed where it is now: it was
// pressed once it was clicked, or is gone by that, or what it opens lies over it.
func (w *window) hit(what string, found *rod.EvalOptions) {
	w.t.Helper()
	for range 20 {
		e, err := w.Timeout(patience).ElementByJS(found)
		if err != nil {
			require.NoError(w.t, err, "%s is not in the page:\n%s", what, w.MustEval(`() => document.body.innerText`).Str())
		}
		e.MustEval(`() => {
			this.clicked = this.down = false;
			this.addEventListener("pointerdown", () => this.down = true, { once: true, capture: true });
			this.addEventListener("click", () => this.clicked = true, { once: true, capture: true });
		}`)
		_ = e.Timeout(time.Second).WaitStableRAF()
		require.NoError(w.t, e.Timeout(patience).Click(proto.InputMouseButtonLeft, 1), what)
		res, err := e.Eval(`() => this.clicked || (this.down && (!this.isConnected || this.hasAttribute("aria-haspopup")))`)
		if err != nil || res.Value.Bool() { // with an error there is another page
			return
		}
	}
	require.Fail(w.t, "it always moves away", what)
}

func (w *window) keys(ks ...input.Key) { w.Keyboard.MustType(ks...) }

// tape reads one cell of the tape along the bottom.
func (w *window) tape(label string) string {
	w.t.Helper()
	return w.MustEval(`label => {
		for (const c of document.querySelectorAll(".tape-cell"))
			if (c.children[0].textContent === label) return c.children[1].innerText.replace(/\s+/g, " ").trim();
		return "";
	}`, label).Str()
}

// tapeIs waits until a cell of the tape reads so.
func (w *window) tapeIs(label, want string) {
	w.t.Helper()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(30 * time.Millisecond) {
		if w.tape(label) == want {
			return
		}
	}
	assert.Equal(w.t, want, w.tape(label), "the tape's %s", label)
}

// frame gives the frame the focus and presses keys there.
func (w *window) frame(ks ...input.Key) {
	w.t.Helper()
	w.MustElement(".stage-list").MustFocus()
	w.keys(ks...)
}

// axe runs the accessibility checks of axe-core, or some of them, in a window that was told to
// let them past the page's policy, and wants no finding.
func (w *window) axe(what string, rules ...string) {
	w.t.Helper()
	if w.MustEval(`() => typeof axe === "undefined"`).Bool() {
		script, err := os.ReadFile("../web/node_modules/axe-core/axe.min.js")
		require.NoError(w.t, err)
		w.MustEval(`src => { (0, eval)(src) }`, string(script))
	}
	res := w.MustEval(`async rules => {
		const r = await axe.run(document, { resultTypes: ["violations"], rules: { "target-size": { enabled: true } }, ...(rules && { runOnly: rules }) });
		return JSON.stringify(r.violations.map(v => v.id + ": " + v.nodes.slice(0, 3).map(n => n.html.slice(0, 160) + " " + (n.any[0]?.message ?? "")).join(" | ")));
	}`, rules).Str()
	var found []string
	require.NoError(w.t, json.Unmarshal([]byte(res), &found))
	assert.Empty(w.t, found, what)
}
