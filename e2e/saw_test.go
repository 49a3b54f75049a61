package e2e_test

import (
	"encoding/json"
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

// At the saw one piece after the other is cut by the space bar; a reload finds it as it was, and a phone
// goes on. A cut goes wrong: what it can still be is said, and it is kept; its twins are made the same.
func TestAtTheSaw(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen") + "/cut")
	p.see("Where to cut")
	p.press("At the saw")
	p.see("to go")
	p.see("Set the stop to")
	p.keys(input.Space)
	p.see("1 of 9 cut")
	p.unbounced()
	p.keys(input.PageDown) // a pedal
	p.see("2 of 9 cut")
	p.keys(input.ArrowLeft)
	p.see("✓ cut")
	p.press("Not done after all")
	p.see("1 of 9 cut")
	p.axe("at the saw")
	p.MustReload().MustWaitLoad()
	p.see("1 of 9 cut") // the hash keeps it open
	phone := w.window("/p/" + w.project("Ring gate screen") + "/cut#saw")
	phone.MustSetViewport(390, 844, 2, true)
	phone.see("1 of 9 cut")
	phone.cutIt()
	phone.see("2 of 9 cut")
	p.see("2 of 9 cut")

	p.press("Cut wrong …")
	p.write("It came out at", "long")
	p.keys(input.Enter)
	p.see("is no length; write it like 23 5/8")
	p.write("It came out at", "20")
	p.until("it can be asked", `() => [...document.querySelectorAll("button")].some((b) => b.textContent === "What now?" && !b.disabled)`)
	p.press("What now?")
	p.see("Keep it, 20″ long")
	p.press("Keep it, 20″ long")
	p.see("to go")
	phone.see("2 of 9 cut")

	p.press("Leave the saw")
	p.see("Where to cut")
	p.lens("Log")
	p.see("to 20″")
}

// unbounced waits until a press at the saw is one of its own: what comes within a moment is the contact of the one before.
func (w *window) unbounced() {
	w.t.Helper()
	w.MustEval(`() => new Promise((go) => setTimeout(go, 260))`)
}

// cutIt presses the large button at the saw, and waits until the piece is counted.
func (w *window) cutIt() {
	w.t.Helper()
	w.until("a piece is to be cut", `() => [...document.querySelectorAll(".saw-main")].some((e) => e.textContent === "Cut it")`)
	w.unbounced()
	left := w.MustEval(`() => document.querySelector(".saw-left").textContent`).Str()
	w.press("Cut it")
	w.until("it is counted", `was => document.querySelector(".saw-left")?.textContent !== was`, left)
}

// A contact that bounces is one press however late a busy page hears of it; two presses are two, however fast it hears of both.
func TestAPedalThatBounces(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen") + "/cut#saw")
	p.see("to go")
	pressed := func(at ...time.Time) {
		for _, at := range at {
			for _, half := range []proto.InputDispatchKeyEventType{proto.InputDispatchKeyEventTypeKeyDown, proto.InputDispatchKeyEventTypeKeyUp} {
				key := input.PageDown.Encode(half, 0)
				key.Timestamp = proto.TimeSinceEpoch(float64(at.UnixMilli()) / 1000)
				require.NoError(t, key.Call(p))
			}
		}
	}
	p.MustEval(`() => {
		window.busy = 300;
		addEventListener("keydown", () => { for (const end = performance.now() + busy; performance.now() < end; ); }, true);
	}`)
	now := time.Now()
	pressed(now, now.Add(40*time.Millisecond))
	p.see("28 pieces to go")
	p.settled()
	p.see("28 pieces to go")

	p.MustEval(`() => new Promise((go) => { window.busy = 0; setTimeout(go, 1000); })`)
	now = time.Now()
	pressed(now.Add(-500*time.Millisecond), now.Add(-100*time.Millisecond))
	p.see("26 pieces to go")
}

// Whoever buys meanwhile, what is there is cut first: but the stick in the clamp stays there, and its piece on the card.
func TestWhatIsBoughtMeanwhileLeavesTheClamp(t *testing.T) {
	w := open(t)
	path := "/p/" + w.project("Ring gate screen")
	p := w.window(path + "/cut#saw")
	p.see("to go")
	card := func() string { return p.MustElement(".saw-card").MustText() }
	was := card()
	assert.Contains(t, was, "10′")
	shop := w.window(path + "/buy")
	shop.click(`[role=checkbox][aria-label*="5′"]`)
	p.see("1 × 5 ft (all bought)")
	assert.Equal(
		t,
		was,
		strings.Replace(card(), ", to be bought", "", 1),
		"nobody said that this one is there, and that is all that is new",
	)
	p.cutIt()
	assert.Contains(t, card(), "10′", "the rest of it comes next")
}

// A wrong piece is for the copy that its builder says, and what is left of a stick goes to the rack from the saw.
func TestCopiesAndLeftoversAtTheSaw(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump") + "/cut#saw")
	p.see("24 pieces to go")
	p.see("copy 1 of 2")
	for range 30 { // to the last, and back to the first of its stick
		p.keys(input.ArrowRight)
	}
	p.gone("Left of stick")
	for range 4 {
		p.keys(input.ArrowLeft)
	}
	for range 5 {
		p.keys(input.Space)
		p.settled()
		p.unbounced()
	}
	p.see("Left of stick 4, 3/4 in")
	p.axe("left over at the saw")
	p.press("To the rack")
	p.gone("Left of stick")
	p.see("19 pieces to go")
	for range 30 {
		p.keys(input.ArrowLeft)
	}
	p.press("Cut wrong …")
	p.click(`[aria-label="It is for copy"]`)
	p.until("the list is open", `() => document.querySelector(".menu") !== null`)
	p.keys(input.Escape)
	p.until("the list alone is closed", `() => !document.querySelector(".menu") && document.querySelector("dialog.saw")?.open === true`)
	p.choose("It is for copy", "2")
	p.write("It came out at", "53")
	p.press("What now?")
	p.press("Keep it, 53″ long")
	p.see("18 pieces to go")
	p.gone("Planning anew")
	all, err := w.store.Events(t.Context(), w.project("Club jump"), 0)
	require.NoError(t, err)
	var cut record.Event
	require.NoError(t, json.Unmarshal(all[len(all)-1].Body, &cut))
	require.NotNil(t, cut.Piece)
	assert.Equal(t, 2, cut.Piece.Copy)
	assert.Equal(t, 53*measure.Inch, cut.Length)
	w.window("/rack").see("R1")
}

// Deburring and marking are passes of their own over what is cut.
func TestDeburredAndMarked(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Lead stand") + "/cut#saw")
	p.see("to go")
	p.press("Deburr")
	p.see("Nothing is cut yet.")
	p.click(".saw-tasks button")
	p.cutIt()
	p.press("Mark")
	p.see("1 piece to go")
	p.see("mark at")
	p.press("Marked")
	p.see("all done")
	p.press("Deburr")
	p.press("Deburred")
	p.see("all done")
	p.press("Leave the saw")
	p.lens("Log")
	p.see("piece deburred")
	assert.NotContains(t, p.MustEval(`() => location.hash`).Str(), "saw")

	p = w.window("/p/" + w.project("Club jump") + "/cut#saw")
	p.see("24 pieces to go")
	p.cutIt()
	for range 30 { // to the last, and back to the first of its stick
		p.keys(input.ArrowRight)
	}
	for range 4 {
		p.keys(input.ArrowLeft)
	}
	p.cutIt()
	p.press("Deburr")
	p.see("2 pieces to go")
	p.see("A: 0 of 1 deburred") // the first that was cut, whichever stick is in the clamp
}

// What is left goes to the rack with one press, has its mark there, is measured true, and the next
// project cuts from it.
func TestLeftoversAreUsedByTheNext(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Cavaletti") + "/cut")
	p.see("Where to cut")
	for p.MustEval(`() => [...document.querySelectorAll(".lens-sheet .tick")].some(e => !e.disabled && e.getAttribute("aria-checked") !== "true")`).Bool() {
		p.cutOne()
		p.settled()
	}
	p.press("to the rack")
	p.see("on the rack")
	r := w.window("/rack")
	r.see("R1")
	r.see("would do for")
	r.setPrice("R1 measures", "long")
	r.see("is no length; write it like 38 1/2")
	r.keys(input.Escape)
	r.setPrice("Where R1 lies", "behind the door")
	r.see("behind the door")
	r.write("Put a piece there", "some pipe")
	r.keys(input.Enter)
	r.see("is not a unit")
	r.write("Put a piece there", "2 @ 61 1/2 of 3/4 pipe")
	r.keys(input.Enter)
	r.see("61 1⁄2″")
	r.axe("the rack")
	next := w.window("/p/" + w.project("Ring gate screen") + "/cut")
	next.see("from the rack")
	r.press("Throw R1 away")
	r.see("R1 thrown away")
	r.press("Undo")
	r.see("R1")
	r.setPrice("Scrap below", "20")
	r.see("Scrap below 20.")
	r.see("20″")
	r.press("Undo")
	r.gone("20″")
	r.see("R1")
}

// withoutNetwork opens a page at the saw, and opens it again when the server has stopped.
func (w *workshop) withoutNetwork(path string) *window {
	p := w.window(path)
	p.kept("to go")
	w.stop()
	p.MustReload().MustWaitLoad()
	p.see("to go")
	return p
}

// A page that was seen opens without the network, and goes on: what is cut then waits on the device, and
// is there once, when the server is back.
func TestWithoutTheNetwork(t *testing.T) {
	w := open(t)
	p := w.withoutNetwork("/p/" + w.project("Kit cart") + "/cut#saw")
	p.see("Kept on this device, as it was at")
	p.see("This plan is from")
	// nothing is cut by a plan that may be another by now, before somebody has said so
	assert.NotContains(t, p.MustElement(".saw").MustText(), "Cut it")
	p.click(".saw [data-accept]")
	p.cutIt()
	p.see("1 tick waits on this device")
	p.MustReload().MustWaitLoad()
	p.see("1 of ")
	p.click(".saw [data-accept]")
	p.cutIt()
	p.see("2 ticks wait on this device")
	w.start()
	p.until("it is sent", `() => !document.body.innerText.includes("on this device")`)
	other := w.window("/p/" + w.project("Kit cart") + "/cut")
	other.see(", 2 of ")
}

// So does the page of several projects that are cut together.
func TestTogetherWithoutTheNetwork(t *testing.T) {
	w := open(t)
	at := "/together?of=" + w.project("Kit cart") + "," + w.project("Lead stand") + "#saw"
	p := w.withoutNetwork(at)
	p.click(".saw [data-accept]")
	p.cutIt()
	p.see("tick waits on this device")
	p.MustReload().MustWaitLoad()
	p.see("tick waits on this device")
	w.start()
	p.until("it is sent", `() => !document.body.innerText.includes("on this device")`)
	other := w.window(at)
	other.see(", 1 of ")
}

// Rope is cut in the same lens, by the lengths that it is sold in; a list that cannot be read says why.
func TestRopeIsCutInTheSameLens(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump") + "/cut")
	p.press("Rope, webbing, foam, rod")
	p.write("Pieces for one copy", "4 @ rope")
	p.press("Add")
	p.see("no length; write how long it is")
	p.write("Pieces for one copy", "5000 @ 14")
	p.press("Add")
	p.see("5000 pieces; cut 1 to 2000")
	p.write("Pieces for one copy", "4 @ 14, 2 @ 9 ft")
	p.write("Thick or wide", "fat")
	p.press("Add")
	p.see("is no length; write it like 1/4")
	p.write("Thick or wide", "1/4")
	p.write("For", "net")
	p.press("Add")
	p.see("1⁄4″ rope: 1 × 50 ft")
	p.see("8 × 14″ of 1⁄4″ rope, for net")
	p.axe("rope")
	p.lens("Buy")
	p.see("1⁄4″ rope, 50′")
	p.press("Other lengths") // of the pipe
	p.keys(input.Escape)
	p.until(
		"of the rope",
		`() => { const b = [...document.querySelectorAll("button")].filter((b) => b.textContent === "Other lengths"); b.at(-1).click(); return b.length > 1 }`,
	)
	p.write("Lengths of 1⁄4″ rope on sale", "30 ft, 60 ft")
	p.keys(input.Enter)
	p.see("1⁄4″ rope, 30′")
	p.lens("Cut")
	p.press("Leave it out: 1⁄4″ rope of 14″")
	p.press("Leave it out: 1⁄4″ rope of 108″")
	p.gone("rope:")
	p.press("Undo")
	p.see("rope:")
}

// A stick that is not right is put aside by the one who says so, and what is good of it is planned: no piece of the stick
// as it was is offered any more. What cannot be is said where it is typed.
func TestAStickWithAFlaw(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Kit cart") + "/buy")
	p.click(`[role=checkbox][aria-label*="pipe"]`)
	p.see("1 of")
	p.lens("Cut")
	p.press("At the saw")
	p.see("to go")
	p.press("The stick is not right")
	for text, why := range map[string]string{
		"cracked":    "is no length",
		"80, 41":     "the good lengths come to more",
		"-3":         "",
		"60, NaN in": "",
	} {
		p.write("Good lengths of it", text)
		p.press("Plan with these")
		p.until("why "+text+" is not taken", `why => document.querySelector("#flaw-help[role=alert]")?.innerText.includes(why)`, why)
	}
	p.axe("a flaw that cannot be")
	p.write("Good lengths of it", "7, 30, 70")
	p.press("Plan with these")
	p.gone("Planning what is good of it")
	p.gone("The plan changed.")
	assert.NotContains(t, p.MustElement(".saw-where").MustText(), "to be bought", "what is there is cut first")
	p.see("Cut it")
	p.cutIt()
	p.press("Leave the saw")
	p.see("a part at home")
}

// Who says that a cut went wrong goes on with the pipe as it is: the wrong piece is not counted as cut, the rest of the stick in
// the hand comes first, and nothing is held as it was before. Without the server a piece can still be thrown away.
func TestAWrongCutIsNotCounted(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen") + "/cut#saw")
	p.see("to go")
	p.cutIt()
	p.see("1 of 9 cut")
	p.settled()
	stick := p.MustElement(".saw-where").MustText()
	p.press("Cut wrong …")
	p.write("It came out at", "7")
	p.press("What now?")
	p.press("Keep it, 7″ long")
	p.gone("Planning anew")
	p.gone("The plan changed.")
	p.see("1 of 9 cut")
	p.see("Cut it")
	assert.Equal(
		t,
		stick[:len("stick 1,")],
		p.MustElement(".saw-where").MustText()[:len("stick 1,")],
		"it goes on with the stick in the hand",
	)
	assert.Equal(t, 1, p.MustEval(`() => document.querySelectorAll(".saw-card.is-done").length + 1`).Int(), "what is shown is to be cut")

	w.stop()
	p.see("The server does not answer")
	p.press("Cut wrong …")
	p.press("It is of no use")
	p.see("1 tick waits on this device")
	w.start()
	p.gone("waits on this device")
	p.see("1 of 9 cut")
	p.press("Leave the saw")
	p.lens("Log")
	p.see("Spoilt 46")
}
