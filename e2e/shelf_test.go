package e2e_test

import (
	"encoding/json"
	"os"
	"path/filepath"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/record"
)

func TestTheShelf(t *testing.T) {
	w := open(t)
	p := w.window("/")
	p.see("53 7⁄16″ × 24″ × 36″")
	p.until(
		"every project is drawn",
		`() => document.querySelectorAll(".card svg .piece").length > 60 && document.querySelectorAll(".card .state").length >= 6`,
	)
	p.keys(input.Slash) // search by key
	require.NoError(t, p.InsertText("jump pup"))
	p.see("1 project")
	p.gone("Octagon hoop")
	p.keys(input.Escape)
	p.see("Octagon hoop")

	p.press("More for Puppy jump")
	p.press("Duplicate")
	p.see("Puppy jump (copy)")
	p.press("More for Puppy jump (copy)")
	p.press("Rename")
	p.until("the name is a field", `() => document.activeElement.getAttribute("aria-label") === "New name of Puppy jump (copy)"`)
	require.NoError(t, p.InsertText("Kitten jump"))
	p.keys(input.Enter)
	p.see("Kitten jump")
	p.gone("Puppy jump (copy)")

	p.press("More for Kitten jump")
	p.press("Delete")
	p.see("“Kitten jump” is deleted, with what was done to it.")
	p.press("Put it back")
	p.gone("is deleted")
	p.MustReload().MustWaitLoad()
	p.press("Kitten jump")
	p.tapeIs("outside", "41 7⁄16″ × 18″ × 20″")
}

// Jobs bought in one go share sticks and cans.
func TestSeveralJobsAreBoughtTogether(t *testing.T) {
	w := open(t)
	p := w.window("/")
	p.see("ready to buy")
	p.press("Buy together")
	p.click(`[aria-label="Buy Club jump with the others"]`)
	p.see("1 project chosen")
	p.click(`[aria-label="Buy Ring gate screen with the others"]`)
	p.press("To the list")
	p.see("Bought together")
	p.see("less than apart")
	p.see("2 copies, alone 4 sticks, $61.40")
	p.see("46 7⁄16″")
	p.press("Show 1A on the sticks")
	p.until("A is lit", `() => document.querySelectorAll(".stick-piece.is-lit").length > 0`)
	p.click(`[role=radio][aria-label^="Cut with: Ratchet shear"]`)
	p.until(
		"the tool counts",
		`() => document.querySelector('[role=radio][aria-label^="Cut with: Ratchet shear"]').getAttribute("aria-checked") === "true"`,
	)
	p.axe("bought together")

	// what is ticked and cut here is in each project's record, and goes on after a reload
	p.press("3/4 in cap")
	p.press("One 3/4 in cap more in the cart")
	p.see("1 of ")
	p.press("At the saw")
	p.cutIt()
	p.cutIt()
	p.press("Cut wrong …")
	p.write("It came out at", "5")
	p.until("it can be asked", `() => [...document.querySelectorAll("button")].some((b) => b.textContent === "What now?" && !b.disabled)`)
	p.press("What now?")
	p.press("Keep it, 5″ long")
	p.press("Leave the saw")
	p.see(", 2 of ")
	p.press("What would each spoilt cut cost?")
	p.see("no single spoilt cut makes you buy more")
	p.MustReload().MustWaitLoad()
	p.see(", 2 of ")
	p.until(
		"the tool is kept",
		`() => document.querySelector('[role=radio][aria-label^="Cut with: Ratchet shear"]')?.getAttribute("aria-checked") === "true"`,
	)
	cuts, wrong := 0, 0
	for _, name := range []string{"Club jump", "Ring gate screen"} {
		one := w.window("/p/" + w.project(name) + "/cut")
		one.see("Where to cut")
		cuts += one.MustEval(`() => Number(/, (\d+) of \d+ pieces cut/.exec(document.body.innerText.replace(/\s+/g, " "))?.[1] ?? 0)`).Int()
		all, err := w.store.Events(t.Context(), w.project(name), 0)
		require.NoError(t, err)
		for _, e := range all {
			var done record.Event
			require.NoError(t, json.Unmarshal(e.Body, &done))
			if done.Kind == record.Cut && done.Length == 5*measure.Inch {
				wrong++
			}
		}
	}
	assert.Equal(t, 2, cuts)
	assert.Equal(t, 1, wrong, "what came out wrong is in the record of its project")
	// work that is begun goes on as it was begun, whatever is said for every project, and says so; what is
	// said for this purchase counts
	p.press("Have them halved in the shop")
	p.press("Every project")
	p.see("This goes by the figures it was begun with.")
	p.see("Sticks are carried as they are, as the work was begun with.")
	p.press("Have them halved in the shop")
	p.see("for this purchase")
	p.see("Saved")
	p.MustNavigate(w.url + "/together?of=gone").MustWaitLoad()
	p.see("There is no such project")
	p.MustNavigate(w.url + "/together?of=,").MustWaitLoad()
	p.see("No project is chosen.")
}

// Several projects are bought as one is: shops are compared and one is taken, variants are set side by side,
// what is not on the shelf is replaced in the project that has it, and what a little saves is found in
// each; all of it can be taken back, and is there on another device.
func TestSeveralAreBoughtAsOneIs(t *testing.T) {
	w := open(t)
	table, jump := w.project("Scorekeeper's table"), w.project("Club jump")
	p := w.window("/together?of=" + jump + "," + table)
	p.see("A letter has its project’s number before it")
	told := func() string { return p.MustEval(`() => document.querySelector(".sticky")?.innerText ?? ""`).Str() }

	p.press("1 in side-outlet elbow")
	p.press("Not here")
	p.see("Scorekeeper's table: Two fittings that touch")
	p.press("Take it at 4 joints of Scorekeeper's table")
	p.see("In Scorekeeper's table: Two fittings at")
	assert.NotContains(t, told(), "⟨")
	p.gone("1 in side-outlet elbow")
	p.see("1A")
	other := w.window("/p/" + table + "/buy")
	other.see("What to buy")
	other.gone("1 in side-outlet elbow")
	p.press("Undo")
	p.see("1 in side-outlet elbow")
	other.see("1 in side-outlet elbow")

	p.press("Where to buy")
	p.see("Quay Street Counter")
	p.press("Buy at Quay Street Counter")
	p.see("This purchase has the prices and sticks of Quay Street Counter")
	p.onList("3/4 in pipe, 20′ stick", true)
	other.onList("3/4 in pipe, 20′ stick", false)
	p.see("Saved")
	second := w.window("/together?of=" + table + "," + jump)
	second.onList("3/4 in pipe, 20′ stick", true)
	second.choose("Joints are cemented with", "one-step")
	p.see("one-step cement")
	p.press("buy as every project does")
	p.onList("3/4 in pipe, 20′ stick", false)

	p.press("What if …")
	p.choose("Were it", "shear")
	p.see("Cut with: Ratchet shear")
	p.press("Take it: Cut with: Ratchet shear")
	second.until(
		"the tool is the other device's, too",
		`() => document.querySelector('[role=radio][aria-label^="Cut with: Ratchet shear"]')?.getAttribute("aria-checked") === "true"`,
	)
	p.press("Try every size a little smaller")
	p.see("Bar height, 20 to the top of the pipe (Club jump)")
	p.axe("bought together as one is")
}

func TestOpenAFileAndSaveItAgain(t *testing.T) {
	w := open(t)
	p := w.window("/")
	bad := filepath.Join(t.TempDir(), "bad.json")
	require.NoError(t, os.WriteFile(bad, []byte("{\"wireframe\":1,\n\"joints\":{\"a\":[0,0,0]},\n\"pipes\":[[\"a\",\"b\"]]}"), 0o600))
	file := p.MustElement("input[type=file]")
	file.MustSetFiles(bad)
	p.see(`/pipes/0, line 3: there is no joint "b"`)
	file.MustSetFiles("../testdata/cases/two-sizes.wireframe.json")
	p.tapeIs("outside", "32 1⁄4″ × 20 1⁄4″ × 27 3⁄4″")
	p.lens("Buy")
	p.see("1-1/2 × 3/4 in bushing")
	p.lens("Size")
	p.write("x0 → x1, wide", "20")
	p.tapeIs("outside", "37 1⁄4″ × 20 1⁄4″ × 27 3⁄4″")
	p.lens("Joints")
	p.press("The whole frame: leave dry")
	p.tapeIs("cemented / dry", "0 / 20")

	dir := t.TempDir()
	wait := browserDownload(p, dir)
	p.press("Save as")
	p.press("Wireframe, JSON")
	data := wait()
	assert.Contains(t, data, `"wireframe": 1`)
	assert.Contains(t, data, `20,`)
	assert.Contains(t, data, `"slip"`, "what was set in the workbench goes into the file")
}

// browserDownload catches the next download of a window.
func browserDownload(p *window, dir string) func() string {
	require.NoError(
		p.t,
		proto.BrowserSetDownloadBehavior{
			Behavior:         proto.BrowserSetDownloadBehaviorBehaviorAllow,
			BrowserContextID: p.Browser().BrowserContextID,
			DownloadPath:     dir,
		}.Call(
			p.Browser(),
		),
	)
	return func() string {
		for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(50 * time.Millisecond) {
			files, _ := filepath.Glob(filepath.Join(dir, "*"))
			if len(files) == 1 && !strings.HasSuffix(files[0], ".crdownload") {
				data, err := os.ReadFile(files[0])
				require.NoError(p.t, err)
				return string(data)
			}
		}
		require.Fail(p.t, "no download came")
		return ""
	}
}

// The build sheet holds what the shop and the saw need, and nothing of the page.
func TestTheBuildSheetOnPaper(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen"))
	p.ready()
	p.write("Width", "11 ft") // and at once, before it is saved
	p.ctrl(input.KeyP)
	p.see("132″ × 22″ × 40″ outside")
	p.press("To the workbench")
	p.ready()
	p.write("Width", "12 ft")
	p.ctrl(input.KeyP)
	p.see("Sticks, in cutting order")
	for _, s := range []string{"Cut", "Buy", "Join", "As asked for", "Take care", "46 7⁄16″", "3/4 in cross", "with example prices"} {
		p.see(s)
	}
	p.until("the frame is drawn", `() => document.querySelectorAll(".paper-picture .piece").length === 29`)
	require.NoError(t, proto.EmulationSetEmulatedMedia{Media: "print"}.Call(p))
	p.gone("To the workbench")
	pdf, err := p.PDF(&proto.PagePrintToPDF{})
	require.NoError(t, err)
	head := make([]byte, 5)
	_, err = pdf.Read(head)
	require.NoError(t, err)
	assert.Equal(t, "%PDF-", string(head))
}

func TestPhoneNeedsNoSidewaysScrolling(t *testing.T) {
	w := open(t)
	hoop := "/p/" + w.project("Octagon hoop")
	p := w.window("/nowhere")
	p.MustSetViewport(390, 844, 2, true)
	for _, page := range []struct{ path, see string }{
		{"/", "ready to buy"}, {"/new", "Jump"}, {"/cut", "Paste"},
		{"/together?of=" + w.project("Octagon hoop") + "," + w.project("Club jump"), "apart"},
		{hoop, "How big?"}, {hoop + "/joints", "What stays dry?"}, {hoop + "/buy", "What to buy"}, {hoop + "/cut", "Where to cut"},
		{hoop + "/sheet", "Take care"},
	} {
		p.MustNavigate(w.url + page.path).MustWaitLoad()
		p.see(page.see)
		require.NoError(t, p.WaitDOMStable(300*time.Millisecond, 0))
		wide := p.MustEval(`() => document.documentElement.scrollWidth`).Int()
		assert.LessOrEqual(t, wide, 390, page.path)
	}
}

// In the aisle and at the saw: ticks with a thumb, kept over a reload.
func TestTickedOffOnAPhone(t *testing.T) {
	w := open(t)
	path := "/p/" + w.project("Octagon hoop")
	p := w.window(path + "/buy")
	p.MustSetViewport(390, 844, 2, true)
	p.see("0 of")
	p.until(
		"there is room for a thumb",
		`() => [...document.querySelectorAll(".tick")].every(e => { const b = e.getBoundingClientRect(); return b.width >= 32 && b.height >= 32; })`,
	)
	p.click("[role=checkbox]")
	p.see("1 of")
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.see("1 of")
	p.lens("Cut")
	p.press("Show the frame")
	p.until("the frame is there", `() => document.querySelector(".stage") !== null && document.querySelector(".stage").offsetHeight > 100`)
	p.click(`[aria-label="Stick 1 is cut"]`)
	cut := `() => document.querySelector('[aria-label="Stick 1 is cut"]')?.getAttribute("aria-checked") === "true"`
	p.until("the stick is cut, and no longer as it was saved", cut)
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.until("the stick is still cut", cut)
}

// Every page in the light, and the same in the dark.
func TestAxeFindsNothing(t *testing.T) {
	w := open(t)
	hoop, jump := "/p/"+w.project("Octagon hoop"), "/p/"+w.project("Club jump")
	for _, page := range []struct {
		path, see string
		then      func(p *window)
	}{
		{"/", "ready to buy", nil}, {"/new", "Jump", nil}, {"/cut", "Paste", nil}, {"/together?of=" + w.project("Club jump") + "," + w.project("Octagon hoop"), "apart", nil}, {"/nowhere", "no such page", nil},
		{hoop, "How big?", nil}, {hoop + "/joints", "What stays dry?", nil}, {hoop + "/buy", "What to buy", nil}, {hoop + "/cut", "Where to cut", nil}, {hoop + "/sheet", "Take care", nil},
		{"/p/" + w.project("Puppy jump"), "How big?", func(p *window) { p.write("Width", "4 fot"); p.see("is not a unit") }},
		{jump + "/joints", "What stays dry?", func(p *window) { p.turning(); p.press("Every cap: leave dry"); p.frame(input.ArrowDown) }},
		{jump + "/cut", "Where to cut", func(p *window) { p.turning(); p.frame(input.KeyB) }},
		{jump + "/buy", "What to buy", func(p *window) { p.click("[role=checkbox]"); p.see("1 of") }},
		{jump, "How big?", func(p *window) { p.turning(); p.frame(input.Slash); p.see("Cement every joint") }},
		{jump, "How big?", func(p *window) { p.press("Keys"); p.see("Turn the view") }},
	} {
		t.Run(page.path, func(t *testing.T) {
			t.Parallel()
			here := *w
			here.t = t
			p := here.blankWindow()
			require.NoError(t, proto.PageSetBypassCSP{Enabled: true}.Call(p))
			p.MustNavigate(w.url + page.path).MustWaitLoad()
			p.see(page.see)
			if page.then != nil {
				page.then(p)
			}
			p.axe(page.path)
			p.dark()
			p.axe(page.path+" in the dark", "color-contrast") // nothing else is another in the dark
			require.NoError(t, p.Browser().Close())
		})
	}
}

// On a phone the strip and the tape lie over the page: a form that opens, the field that has
// the focus and the reason of a refusal are between them.
func TestOnAPhoneNothingIsBehindTheTape(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.MustSetViewport(390, 844, 1, true)
	p.turning()
	between := func(what, selector string) {
		t.Helper()
		p.until(what+" is in view", `s => {
			const r = document.querySelector(s).getBoundingClientRect(), edge = s => document.querySelector(s).getBoundingClientRect();
			return r.height > 0 && r.top >= edge("[role=tablist]").bottom && r.bottom <= edge(".tape").top;
		}`, selector)
	}
	p.focus("Add a check")
	p.keys(input.Enter)
	between("the form", "form.trial")
	p.focus("How large")
	p.retype("NaN x -4 x ∞")
	p.keys(input.Enter)
	p.wrong("How large", " ")
	between("why", "form.trial [role=alert]")
	p.MustEval(`() => scrollTo(0, 0)`)
	p.focus("Called")
	between("the field", "form.trial input")
}

// What was ticked without the network goes out from the shelf, too, of one project and of several; of a
// project that is gone it is said.
func TestWhatWaitsIsSentFromTheShelf(t *testing.T) {
	w := open(t)
	jump, table := w.project("Club jump"), w.project("Scorekeeper's table")
	both := []string{jump, table}
	slices.Sort(both)
	p := w.window("/")
	p.see("Club jump")
	leave := func(of, id string) {
		p.MustEval(`(of, id) => localStorage.setItem("sturdyelbow.done." + of + ".k", JSON.stringify([
			{ id, kind: "bought", ware: { ware: "fitting", kind: "cap", size: "3/4" }, count: 1 }]))`, of, id)
	}
	leave(jump, "one")
	leave(strings.Join(both, ","), "two")
	leave("GONE", "three")
	p.MustReload().MustWaitLoad()
	p.see("1 tick of a project that is gone waits on this device.")
	all, err := w.store.Events(t.Context(), jump, 0)
	require.NoError(t, err)
	require.Len(t, all, 2, "the caps are the jump's")
	assert.ElementsMatch(t, []string{"one", "two"}, []string{all[0].ID, all[1].ID})
	p.axe("what waits")
	p.press("Let them go")
	p.gone("waits on this device")
	// what the server has stays until a plan has it, too: a page that opens without the network shows it
	assert.Equal(t, "2 sent", p.MustEval(`() => { const all = Object.keys(localStorage).filter((k) => k.startsWith("sturdyelbow.done."));
		return all.length + (all.every((k) => JSON.parse(localStorage.getItem(k)).last > 0) ? " sent" : " waiting"); }`).Str())
}

// The labels of projects that are cut together have each letter with its project.
func TestLabelsOfSeveral(t *testing.T) {
	w := open(t)
	p := w.window("/together?of=" + w.project("Club jump") + "," + w.project("Lead stand"))
	p.press("Labels")
	p.see("Labels: ")
	p.see("in the order of the cuts")
	p.until("both are there", `() => { const t = [...document.querySelectorAll(".label")].map((l) => l.innerText);
		return t.some((x) => x.startsWith("1A")) && t.some((x) => x.startsWith("2A")) && t.some((x) => x.includes("Lead stand, ")) }`)
	p.axe("labels of several")
	p.press("Bought together")
	p.see("A letter has its project’s number before it")
}

// Two windows choose for one purchase at once: what each chose counts.
func TestTwoWindowsChooseForOnePurchase(t *testing.T) {
	w := open(t)
	at := "/together?of=" + w.project("Club jump") + "," + w.project("Lead stand")
	p, q := w.window(at), w.window(at)
	p.see("A letter has its project’s number before it")
	q.see("A letter has its project’s number before it")
	goOn := p.slowly("/api/purchases/*")
	p.choose("Joints are cemented with", "one-step")
	p.see("Saving …")
	time.Sleep(time.Second) // its save is on its way
	q.click(`[role=radio][aria-label^="Cut with: Ratchet shear"]`)
	q.see("Saved")
	p.see("Saving …")
	goOn()
	p.see("Saved")
	both := `() => document.querySelector('[role=radio][aria-label^="Cut with: Ratchet shear"]')?.getAttribute("aria-checked") === "true" &&
		document.querySelector('[aria-label="Joints are cemented with"]')?.dataset.value === "one-step"`
	p.until("both are here", both)
	q.until("both are there", both)
}
