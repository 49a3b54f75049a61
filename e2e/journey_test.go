package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
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
	p.see("How big?")
	p.write("Width", "5'")
	p.write("Bar height", "1' 4\"")
	p.write("Upright height", "40 1/2")
	p.write("Foot depth", "60cm")
	p.tapeIs("outside", "65 7⁄16″ × 23 5⁄8″ × 40 1⁄2″")
	assert.NotEmpty(t, p.tape("sticks"))
	assert.Contains(t, p.tape("cost"), "made-up")
	p.lens("Cut")
	p.see("59 15⁄16″")
	p.see("Proven")
	p.lens("Buy")
	p.see("side-outlet tee")
	options := p.MustEval(`() => document.querySelectorAll("[role=option]").length`).Int()
	assert.Equal(t, 12+14, options, "every pipe and every fitting can be reached")
}

func TestWidthChangedEverythingFollows(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.moving()
	p.tapeIs("sticks", "4")
	cost := p.tape("cost")
	p.write("Width", "7 ft")
	p.tapeIs("outside", "89 7⁄16″ × 24″ × 36″")
	p.changeIs("outside", "+36″ wide")
	assert.NotEqual(t, "4", p.tape("sticks"))
	assert.NotEqual(t, cost, p.tape("cost"))
	assert.Contains(t, p.change("cost"), "+$")
	p.lens("Cut")
	p.see("83 15⁄16″") // 84 + 1.05 − 1.125 = 83.925
	p.lens("Size")
	p.choose("What Width means", "outside")
	p.lens("Cut")
	p.see("81 9⁄16″") // 84 − 2 × 0.66 = 82.68 centres − 1.125 = 81.555
	p.lens("Size")
	p.choose("Pipe size", "1")
	p.lens("Cut")
	p.see("1 in pipe")
	p.lens("Size")
	p.write("How many", "1")
	p.lens("Cut")
	p.see("12 pieces")
	p.lens("Size")
	p.field("How many").MustFocus()
	p.keys(input.Backspace, input.Digit4) // an empty field on the way is no 1
	p.lens("Cut")
	p.see("48 pieces")
}

func TestBadLengthShowsWhyAndKeepsTheText(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.tapeIs("outside", "53 7⁄16″ × 24″ × 36″")
	p.write("Width", "4 ft 30 cm")
	p.see("Two units fighting")
	p.see("Shown as it was before")
	assert.Equal(t, "4 ft 30 cm", p.field("Width").MustProperty("value").Str())
	assert.Equal(t, "true", *p.field("Width").MustAttribute("aria-invalid"))
	assert.Equal(t, "53 7⁄16″ × 24″ × 36″", p.tape("outside"), "the last good plan stays")
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.see("Two units fighting")
	assert.Equal(t, "4 ft 30 cm", p.field("Width").MustProperty("value").Str(), "nothing typed is lost")
	p.write("Width", "4 ft")
	p.gone("Two units fighting")
	p.tapeIs("outside", "53 7⁄16″ × 24″ × 36″")
}

func TestSaveReloadUndoRedo(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Puppy jump"))
	p.ready()
	p.write("Width", "40")
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″")
	p.write("Project name", "Tiny jump")
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″")
	p.write("Width", "50")
	p.tapeIs("outside", "55 7⁄16″ × 18″ × 20″")
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyZ).MustDo()
	p.tapeIs("outside", "45 7⁄16″ × 18″ × 20″") // what was typed in one go goes in one
	p.KeyActions().Press(input.ControlLeft).Type(input.KeyY).MustDo()
	p.tapeIs("outside", "55 7⁄16″ × 18″ × 20″")
	p.press("Sturdy Elbow") // leaving saves what is waiting
	p.see("Tiny jump")
	p.see("55 7⁄16″ × 18″ × 20″")
}

func TestTwoWindowsDoNotOverwriteEachOther(t *testing.T) {
	w := open(t)
	path := "/p/" + w.project("Club jump")
	mine, theirs := w.window(path), w.window(path)
	mine.ready()
	theirs.ready()
	clash := func(late *window, was string, early *window, is string) { // one is being saved when the other's comes first
		goOn := late.slowly("/api/projects/" + w.project("Club jump"))
		late.write("Width", was)
		late.see("Saving")
		w.stores("Club jump", func() { early.write("Width", is) })
		early.see("Saved")
		goOn()
	}
	clash(mine, "3 ft", theirs, "5 ft")
	mine.see("changed in another window")
	mine.see("Width 3 ft, clear 5 ft, clear") // both versions, side by side
	assert.Equal(t, "3 ft", mine.field("Width").MustProperty("value").Str())
	mine.press("Take the other")
	mine.gone("changed in another window")
	mine.tapeIs("outside", "65 7⁄16″ × 24″ × 36″")

	mine.press("Undo")
	mine.tapeIs("outside", "41 7⁄16″ × 24″ × 36″")
	mine.see("Saved")
	theirs.tapeIs("outside", "41 7⁄16″ × 24″ × 36″") // it follows

	clash(theirs, "3.5 ft", mine, "6 ft")
	theirs.see("changed in another window")
	theirs.press("Keep mine")
	theirs.see("Saved")
	mine.tapeIs("outside", "47 7⁄16″ × 24″ × 36″")
}

func TestTwoWindowsThatChangedDifferentThingsKeepBoth(t *testing.T) {
	w := open(t)
	path := "/p/" + w.project("Club jump")
	mine, theirs := w.window(path), w.window(path)
	mine.ready()
	theirs.ready()
	goOn := mine.slowly("/api/projects/" + w.project("Club jump"))
	mine.write("Width", "5 ft")
	mine.see("Saving")
	w.stores("Club jump", func() { theirs.write("Foot depth", "30") })
	theirs.see("Saved")
	goOn()
	mine.see("both can be kept")
	mine.press("Keep both changes")
	mine.tapeIs("outside", "65 7⁄16″ × 30″ × 36″")
	mine.see("Saved")
	theirs.tapeIs("outside", "65 7⁄16″ × 30″ × 36″") // it follows
}

func TestTwoWindowsPutTheirPricesTogether(t *testing.T) {
	w := open(t)
	mine, theirs := w.window("/p/"+w.project("Weave poles in two sizes")+"/buy"), w.window("/p/"+w.project("Puppy jump")+"/buy")
	set := func(p *window, what, price string) {
		p.press(what)
		p.MustElement(`input[aria-label="` + what + `"]`).MustSelectAllText().MustInput(price)
		p.keys(input.Enter)
	}
	mine.ready()
	theirs.ready()
	set(theirs, "Tax rate", "10")
	theirs.press("Every project") // the other seven cost more
	theirs.see("Saved")
	set(mine, "Price of 3/4 in cap", "2.50")
	mine.press("Every project")
	mine.see("Tax rate: 10 %")
	mine.see("Price of 3/4 in cap: $2.50")
	mine.see("Saved")
	theirs.see("Tax rate: 10 %")
}

func TestPasteACutList(t *testing.T) {
	p := open(t).window("/cut")
	p.write("Pieces, a line each", "24, 2\n18, 1\n15, 2\n12, 4\n7, 4\n2, about 2")
	p.write("Sticks to cut from", "60")
	p.see("line 6: 2, about 2")
	p.see("\"about 2\" is not a number of pieces")
	p.see("1 line cannot be read, and is left out.")
	p.see("Pipe: 3 sticks") // of the others
	p.write("Pieces, a line each", "2 @ 24\"\n18\n2 pcs 15\n12, qty 4\n7 x4\nrails: 2 pcs, 2")
	p.see("Pipe: 3 sticks")
	p.see("Proven")
	p.press("How the lines were read")
	p.see("rails: 2 × 2\"")
	p.write("Sticks to cut from", "five feet")
	p.see("is no stick length")
	p.write("Sticks to cut from", "5 ft @ 2.50")
	p.see("$7.50")
	p.click("[role=checkbox]")
	p.see("1 of 3 sticks cut")
	p.MustReload().MustWaitLoad()
	p.until("the list is still there", `() => document.querySelector("textarea")?.value.includes("rails: 2 pcs")`)
	p.see("1 of 3 sticks cut")
	p.press("Show A on the sticks")
	p.axe("a list")
	p.press("To the shelf")
	p.see("On the shelf")
}

func TestPriceTypedOverLosesItsMark(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Weave poles in two sizes") + "/buy")
	p.see("What to buy")
	require.Contains(t, p.tape("cost"), "made-up")
	before := p.tape("cost")
	p.press("Price of 3/4 in cap")
	f := p.MustElement(`input[aria-label="Price of 3/4 in cap"]`)
	f.MustSelectAllText().MustInput("a lot")
	p.keys(input.Enter)
	p.see("not an amount of money; write it like 4.98, .88, 98c, 3 for 20 or 7.98-8.49")
	f.MustSelectAllText().MustInput("2.50")
	p.keys(input.Enter)
	p.see("For every project, or for this one?")
	p.see("Octagon hoop") // it has caps too
	p.press("Only this project")
	p.see("Price of 3/4 in cap: $2.50 $15.00")
	p.changeIs("cost", "+$10.26") // 6 × (2.50 − 0.79)
	assert.NotEqual(t, before, p.tape("cost"))
	p.press("Undo") // a price is a change like any other
	p.tapeIs("cost", before)
	p.press("Redo")
	p.see("Price of 3/4 in cap: $2.50 $15.00")
	p.press("Tax rate")
	p.MustElement(`input[aria-label="Tax rate"]`).MustSelectAllText().MustInput("10")
	p.keys(input.Enter)
	p.press("Every project") // the only choice that there is
	p.see("Tax Tax rate: 10 %")
	p.see("Saved")
	other := w.window("/p/" + w.project("Puppy jump") + "/buy") // the shop is every project's
	other.see("Tax Tax rate: 10 %")
	other.gone("$2.50")
}

func TestSticksOnSaleAreTheBuilders(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Octagon hoop") + "/buy")
	p.onList("3/4 in pipe, 5′ stick", true)
	p.press("Other lengths")
	f := p.MustElement(`input[aria-label="Stick lengths on sale"]`)
	f.MustSelectAllText().MustInput("10 ft, a long one")
	p.keys(input.Enter)
	p.see("is no stick length")
	f.MustSelectAllText().MustInput("10 ft, 20 ft")
	p.keys(input.Enter)
	p.see("changes")
	p.press("Only this project")
	p.onList("3/4 in pipe, 5′ stick", false)
	p.press("findings")
	p.see("20' sticks of 3/4 pipe have no price and are left out")
	p.keys(input.Escape)
	p.press("Price of on sale: 3/4 in pipe, 20′ stick")
	p.MustElement(`input[aria-label="Price of on sale: 3/4 in pipe, 20′ stick"]`).MustInput("5")
	p.keys(input.Enter) // it changes no other: nothing is asked
	p.see("Price of on sale: 3/4 in pipe, 20′ stick: $5.00")
	p.onList("3/4 in pipe, 20′ stick", true)
	p.press("Other lengths")
	p.MustElement(`input[aria-label="Stick lengths on sale"]`).MustSelectAllText().MustInput("10 ft, 3 m")
	p.keys(input.Enter)
	p.see("3000 mm")
	p.press("Other lengths")
	assert.Equal(
		t,
		"10′, 3000 mm",
		p.MustElement(`input[aria-label="Stick lengths on sale"]`).MustProperty("value").Str(),
		"not rounded to a fraction",
	)
}

// Changing to millimetres changes what is shown and what a bare number means
// from then on, never what was said before.
func TestMillimetresKeepWhatWasSaid(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.ready()
	p.choose("How lengths are shown", "metric")
	p.tapeIs("outside", "1357.6 mm × 609.6 mm × 914.4 mm")
	p.write("Foot depth", "700")
	p.tapeIs("outside", "1357.6 mm × 700 mm × 914.4 mm")
	p.choose("How lengths are shown", "inches")
	p.tapeIs("outside", "53 7⁄16″ × 27 9⁄16″ × 36″")
}

func TestServerGoneKeepsWhatWasTyped(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.ready()
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
