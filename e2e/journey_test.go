package e2e_test

import (
	"os"
	"path/filepath"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// A new jump from sizes typed the way people write them, to the cut list.
//
//	width 5' clear: 60 + 1.05 centres − 2 × 0.5625 = 59.925 → 59 15/16
func TestNewJumpFromTypedSizes(t *testing.T) {
	p := open(t).window("/")
	p.press("New frame")
	p.see("What are you building?")
	p.press("Jump")
	p.see("Proven")
	p.write("Width", "5'")
	p.write("Bar height", "1' 4\"")
	p.write("Upright height", "40 1/2")
	p.write("Foot depth", "60cm")
	p.see("59 15⁄16″")
	p.tapeIs("outside", "65 7⁄16″ × 23 5⁄8″ × 40 1⁄2″")
	p.see("side-outlet-tee")
	assert.NotEmpty(t, p.tape("sticks"))
	assert.Contains(t, p.tape("cost"), "example")
	assert.Equal(t, 12, len(p.MustElements("svg .piece")), "every pipe is drawn")
}

func TestWidthChangedEverythingFollows(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.tapeIs("sticks", "4")
	cost := p.tape("cost")
	p.see("47 15⁄16″")
	p.write("Width", "7 ft")
	p.see("83 15⁄16″") // 84 + 1.05 − 1.125 = 83.925
	p.gone("47 15⁄16″")
	p.tapeIs("outside", "89 7⁄16″ × 24″ × 36″")
	assert.NotEqual(t, "4", p.tape("sticks"))
	assert.NotEqual(t, cost, p.tape("cost"))
	p.choose("What Width means", "outside")
	p.see("81 9⁄16″") // 84 − 2 × 0.66 = 82.68 centres − 1.125 = 81.555
	p.choose("Pipe size", "1")
	p.see("1 pipe")
	p.write("How many", "1")
	p.see("12 pieces")
	p.field("How many").MustFocus()
	p.keys(input.Backspace, input.Digit4) // an empty field on the way is no 1
	p.see("48 pieces")
}

func TestBadLengthShowsWhyAndKeepsTheText(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.see("47 15⁄16″")
	p.write("Width", "4 ft 30 cm")
	p.see("Two units fighting")
	p.see("Shown as it was before")
	assert.Equal(t, "4 ft 30 cm", p.field("Width").MustProperty("value").Str())
	assert.Equal(t, "true", *p.field("Width").MustAttribute("aria-invalid"))
	p.see("47 15⁄16″") // the last good plan stays
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.see("Two units fighting")
	assert.Equal(t, "4 ft 30 cm", p.field("Width").MustProperty("value").Str(), "nothing typed is lost")
	p.write("Width", "4 ft")
	p.gone("Two units fighting")
}

func TestSaveReloadUndoRedo(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Puppy jump"))
	p.see("Proven")
	p.write("Width", "40")
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″")
	p.write("Project name", "Tiny jump")
	p.see("Saving")
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″")
	p.write("Width", "50")
	p.tapeIs("outside", "55 7⁄16″ × 18″ × 20″")
	for range 10 { // back to before the first keystroke, and no further
		p.KeyActions().Press(input.ControlLeft).Type(input.KeyZ).MustDo()
	}
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″")
	for range 10 {
		p.KeyActions().Press(input.ControlLeft).Type(input.KeyY).MustDo()
	}
	p.tapeIs("outside", "55 7⁄16″ × 18″ × 20″")
	p.press("Sturdy Elbow")
	p.see("Tiny jump")
}

func TestTwoWindowsDoNotOverwriteEachOther(t *testing.T) {
	w := open(t)
	path := "/p/" + w.project("Club jump")
	mine, theirs := w.window(path), w.window(path)
	mine.see("Proven")
	theirs.see("Proven")
	theirs.write("Width", "5 ft")
	theirs.see("Saving")
	theirs.see("Saved")
	mine.write("Width", "3 ft")
	mine.see("changed in another window")
	assert.Equal(t, "3 ft", mine.field("Width").MustProperty("value").Str())
	mine.press("Show the other")
	mine.gone("changed in another window")
	mine.until("the other width shows", `() => document.querySelector("input.field").value === "5 ft"`)

	mine.press("Undo")
	mine.until("mine is back", `() => document.querySelector("input.field").value === "3 ft"`)
	mine.see("Saved")
	theirs.MustReload().MustWaitLoad()
	theirs.see("Proven")

	theirs.write("Width", "6 ft")
	theirs.see("Saving")
	theirs.see("Saved")
	mine.write("Width", "3.5 ft")
	mine.see("changed in another window")
	mine.press("Keep mine")
	mine.see("Saved")
	theirs.MustReload().MustWaitLoad()
	theirs.until("mine is stored", `() => document.querySelector("input.field")?.value === "3.5 ft"`)
}

func TestPasteACutList(t *testing.T) {
	p := open(t).window("/cut")
	p.write("Pieces, one length", "24, 2\n18, 1\n15, 2\n12, 4\n7, 4\n2, about 2")
	p.see("line 6, count")
	p.write("Pieces, one length", "24, 2\n18, 1\n15, 2\n12, 4\n7, 4\n2, 2")
	p.write("Sticks on sale", "60")
	p.see("Pipe: 3 sticks")
	p.see("Proven")
	p.write("Sticks on sale", "five feet")
	p.see("is no stick length")
	p.MustReload().MustWaitLoad()
	assert.Contains(t, p.field("Pieces, one length").MustProperty("value").Str(), "18, 1", "the list is still there")
}

func TestPriceTypedOverLosesItsMark(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Weave poles in two sizes"))
	p.see("Proven")
	require.Contains(t, p.tape("cost"), "example")
	before := p.tape("cost")
	p.press("Price of 3/4 cap")
	f := p.MustElement(`input[aria-label="Price of 3/4 cap"]`)
	f.MustSelectAllText().MustInput("2.50")
	p.keys(input.Enter)
	p.see("Price of 3/4 cap: $2.50 $15.00")
	assert.NotEqual(t, before, p.tape("cost"))
	p.press("Tax rate")
	p.MustElement(`input[aria-label="Tax rate"]`).MustSelectAllText().MustInput("10")
	p.keys(input.Enter)
	p.see("Tax Tax rate: 10 %")
	other := w.window("/p/" + w.project("Puppy jump")) // the shop is every project's
	other.see("Tax Tax rate: 10 %")
}

func TestSticksOnSaleAreTheBuilders(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Octagon hoop"))
	p.see("2 × 10 ft and 1 × 5 ft")
	p.press("Other lengths")
	f := p.MustElement(`input[aria-label="Stick lengths on sale"]`)
	f.MustSelectAllText().MustInput("10 ft, a long one")
	p.keys(input.Enter)
	p.see("is no stick length")
	f.MustSelectAllText().MustInput("10 ft, 20 ft")
	p.keys(input.Enter)
	p.see("3/4 pipe: 3 × 10 ft")
	p.see("20' sticks of 3/4 pipe have no price and are left out")
	p.press("Price of on sale: 3/4 pipe, 20′ stick")
	p.MustElement(`input[aria-label="Price of on sale: 3/4 pipe, 20′ stick"]`).MustInput("5")
	p.keys(input.Enter)
	p.see("3/4 pipe: 1 × 20 ft and 1 × 10 ft")
	p.press("Other lengths")
	p.MustElement(`input[aria-label="Stick lengths on sale"]`).MustSelectAllText().MustInput("10 ft, 3 m")
	p.keys(input.Enter)
	p.see("3000 mm")
	p.press("Other lengths")
	assert.Equal(t, "10′, 3000 mm", p.MustElement(`input[aria-label="Stick lengths on sale"]`).MustProperty("value").Str(), "not rounded to a fraction")
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
	p.see("1-1/2x3/4")
	p.tapeIs("outside", "32 1⁄4″ × 20 1⁄4″ × 27 3⁄4″")
	p.write("x0 → x1, wide", "20")
	p.tapeIs("outside", "37 1⁄4″ × 20 1⁄4″ × 27 3⁄4″")

	dir := t.TempDir()
	wait := browserDownload(p, dir)
	p.press("Save as")
	p.press("Wireframe, JSON")
	data := wait()
	assert.Contains(t, data, `"wireframe": 1`)
	assert.Contains(t, data, `20,`)
}

// browserDownload catches the next download of a window.
func browserDownload(p *window, dir string) func() string {
	require.NoError(p.t, proto.BrowserSetDownloadBehavior{Behavior: proto.BrowserSetDownloadBehaviorBehaviorAllow, BrowserContextID: p.Browser().BrowserContextID, DownloadPath: dir}.Call(p.Browser()))
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

// Changing to millimetres changes what is shown and what a bare number means
// from then on, never what was said before.
func TestMillimetresKeepWhatWasSaid(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.see("47 15⁄16″")
	p.choose("How lengths are shown", "metric")
	p.tapeIs("outside", "1357.6 mm × 609.6 mm × 914.4 mm")
	p.write("Foot depth", "700")
	p.tapeIs("outside", "1357.6 mm × 700 mm × 914.4 mm")
	p.choose("How lengths are shown", "inches")
	p.tapeIs("outside", "53 7⁄16″ × 27 9⁄16″ × 36″")
}

func TestLetterPickedIsPickedEverywhere(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.see("Proven")
	p.press("Show C on the frame")
	p.until("both C pipes of the frame are lit", `() => document.querySelectorAll("svg .piece.lit").length === 2`)
	p.press("Cut B") // why?
	p.see("makes 47.938″")
	p.keys(input.Escape)
	p.gone("makes")
	p.MustElement(`svg .tag[data-letter="B"]`).MustClick()
	p.until("B is pressed in the list", `() => document.querySelector('[aria-label="Show B on the frame"]').getAttribute("aria-pressed") === "true"`)
}

func TestByKeyboardAlone(t *testing.T) {
	w := open(t)
	p := w.window("/new")
	p.see("What are you building?")
	focus := func(what, words string) {
		t.Helper()
		for range 60 {
			p.keys(input.Tab)
			if p.MustEval(`w => (document.activeElement.getAttribute("aria-label") ?? document.activeElement.labels?.[0]?.innerText ?? document.activeElement.innerText ?? "").trim().startsWith(w)`, words).Bool() {
				return
			}
		}
		require.Fail(t, "not reached by Tab: "+what)
	}
	focus("the jump", "Jump")
	p.keys(input.Enter)
	p.see("Proven")
	focus("the width", "Width")
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyA).MustDo()
	require.NoError(t, p.InsertText("5'"))
	p.see("59 15⁄16″")
	focus("why", "Cut A")
	p.keys(input.Enter)
	p.see("centre to centre")
	p.keys(input.Escape)
	p.gone("makes")
}

func TestAxeFindsNothing(t *testing.T) {
	w := open(t)
	for _, dark := range []bool{false, true} {
		for path, see := range map[string]string{"/": "Club jump", "/new": "Jump", "/cut": "Paste", "/p/" + w.project("Octagon hoop"): "Proven", "/p/" + w.project("Club jump"): "Proven", "/nowhere": "no such page"} {
			p := w.window("/")
			if dark {
				require.NoError(t, proto.EmulationSetEmulatedMedia{Features: []*proto.EmulationMediaFeature{{Name: "prefers-color-scheme", Value: "dark"}}}.Call(p))
			}
			p.MustNavigate(w.url + path).MustWaitLoad()
			p.see(see)
			p.axe(path)
		}
	}
}

func TestPhoneNeedsNoSidewaysScrolling(t *testing.T) {
	w := open(t)
	for _, path := range []string{"/", "/new", "/cut", "/p/" + w.project("Octagon hoop")} {
		p := w.window(path)
		p.MustSetViewport(390, 844, 2, true)
		p.MustWaitStable()
		wide := p.MustEval(`() => document.documentElement.scrollWidth`).Int()
		assert.LessOrEqual(t, wide, 390, path)
	}
}

func TestServerGoneKeepsWhatWasTyped(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.see("Proven")
	w.stop()
	p.write("Width", "52")
	p.see("Not saved yet")
	p.see("The server does not answer")
	w.start()
	p.see("Saved")
	p.gone("The server does not answer")
	p.tapeIs("outside", "57 7⁄16″ × 24″ × 36″")
	assert.Equal(t, "52", p.field("Width").MustProperty("value").Str())
}

func TestDeleteAndPutBack(t *testing.T) {
	p := open(t).window("/")
	p.see("Puppy jump")
	p.press("Delete Puppy jump")
	p.see("“Puppy jump” is deleted.")
	p.press("Put it back")
	p.gone("is deleted")
	p.MustReload().MustWaitLoad()
	p.press("Puppy jump")
	p.see("Proven")
}
