package e2e_test

import (
	"testing"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// slowly lets calls whose address ends so wait until the returned function is called.
func (w *window) slowly(call string) (goOn func()) {
	w.t.Helper()
	held := make(chan struct{})
	// what the service worker lets through does not always come by here
	w.EnableDomain(&proto.NetworkEnable{})
	require.NoError(w.t, proto.NetworkSetBypassServiceWorker{Bypass: true}.Call(w))
	r := w.HijackRequests()
	require.NoError(w.t, r.Add("*"+call, "", func(h *rod.Hijack) {
		<-held
		h.ContinueRequest(&proto.FetchContinueRequest{})
	}))
	go r.Run()
	w.t.Cleanup(func() { _ = r.Stop() })
	return func() { close(held) }
}

// What is typed while a line runs is the next line, and stays.
func TestTextTypedWhileALineRuns(t *testing.T) {
	d := open(t).blank()
	d.line("right 40", 1)
	goOn := d.slowly("/api/edit")
	d.MustElement("[data-walk]").MustFocus()
	d.retype("up 20")
	d.keys(input.Enter)
	d.retype("left 40")
	goOn()
	d.has("the line that ran", 2)
	assert.Equal(t, "left 40", d.MustElement("[data-walk]").MustProperty("value").Str())
	d.keys(input.Enter)
	d.has("the next one", 3)
	d.until("it is empty then", `() => document.querySelector("[data-walk]").value === ""`)
}

// What is typed into another line of it while one runs is typed there: the line that ran does not take the focus back.
func TestASizeTypedWhileALineRuns(t *testing.T) {
	d := open(t).blank()
	d.line("right 40", 1)
	d.frame(input.ArrowRight)
	goOn := d.slowly("/api/edit")
	d.MustElement("[data-walk]").MustFocus()
	d.retype("up 20")
	d.keys(input.Enter)
	d.MustElement(".mark-field").MustFocus()
	d.retype("5")
	goOn()
	d.has("the line that ran", 2)
	d.until("the line is empty", `() => document.querySelector("[data-walk]").value === ""`)
	assert.True(t, d.MustEval(`() => document.activeElement === document.querySelector(".mark-field")`).Bool(), "it is typed on there")
}

// A price is read slowly: the next one is typed meanwhile, and so is what corrects the first.
func TestPricesTypedWhileOneIsRead(t *testing.T) {
	w := open(t)
	p := w.window("/prices")
	p.see("3/4 in tee")
	goOn := p.slowly("/api/prices/read")
	p.setPrice("Price of 3/4 in tee", "1.2")
	p.press("Price of 3/4 in cap")
	p.retype("4")
	goOn()
	p.see("$1.20")
	p.until(
		"it is typed on there",
		`() => document.activeElement?.getAttribute("aria-label") === "Price of 3/4 in cap" && document.activeElement.value === "4"`,
	)
	p.keys(input.Escape)

	stays, leaves := w.window("/prices"), w.window("/prices")
	for q, first := range map[*window]string{stays: "2.3", leaves: "3.4"} {
		q.see("3/4 in tee")
		goOn := q.slowly("/api/prices/read")
		q.setPrice("Price of 3/4 in tee", first)
		q.retype(first + "5")
		if q == leaves {
			q.press("Price of 1 in tee")
		}
		goOn()
	}
	leaves.see("3/4 in tee: 3.45.")
	stays.see("3/4 in tee: 2.3.")
	stays.until(
		"what was typed meanwhile is there",
		`() => document.querySelector('input[aria-label="Price of 3/4 in tee"]')?.value === "2.35"`,
	)
}

// Enter in a field, and leaving it while that is under way, changes it once.
func TestEnterThenLeavingSavesOnce(t *testing.T) {
	d := open(t).blank()
	d.line("right 40", 1)
	goOn := d.slowly("/api/edit")
	d.focus("From j1 to j2")
	d.retype("50")
	d.keys(input.Enter, input.Tab)
	d.MustEval(`() => {
		window.said = new Set();
		const look = () => { window.said.add(document.querySelector(".mark-field").value); requestAnimationFrame(look); };
		look();
	}`)
	goOn()
	d.until("it is done, and seen", `() => window.said.has("50″ centre")`)
	assert.Equal(t, "50|50″ centre", d.MustEval(`() => [...window.said].join("|")`).Str(), "it never says the old size again")
	d.ctrl(input.KeyZ)
	d.until(
		"one step back is the size before",
		`() => document.querySelector(".mark-field")?.value.startsWith("40") || document.querySelector(".mark-field")?.value.startsWith("41")`,
	)
}

// A finger that the system takes away ends the pull: what moves after that pulls nothing.
func TestACancelledTouchEndsThePull(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.turning()
	require.NoError(t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(p))
	x, y := p.middle(
		`() => [...document.querySelectorAll(".grip")].find(e => e.title.endsWith("Upright height") && e.style.visibility === "visible") ?? null`,
	)
	touch := func(kind proto.InputDispatchTouchEventType, at ...*proto.InputTouchPoint) {
		t.Helper()
		require.NoError(t, proto.InputDispatchTouchEvent{Type: kind, TouchPoints: append([]*proto.InputTouchPoint{}, at...)}.Call(p))
	}
	touch(proto.InputDispatchTouchEventTypeTouchStart, &proto.InputTouchPoint{X: x, Y: y})
	for k := 1; k <= 5; k++ {
		touch(proto.InputDispatchTouchEventTypeTouchMove, &proto.InputTouchPoint{X: x, Y: y - float64(6*k)})
	}
	p.until(
		"it is pulled",
		`() => ![...document.querySelectorAll("label")].some(l => l.innerText === "Upright height" && document.getElementById(l.htmlFor).value === "36")`,
	)
	touch(proto.InputDispatchTouchEventTypeTouchCancel)
	p.settled()
	pulled := p.field("Upright height").MustProperty("value").Str()
	require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x, y-120)))
	require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x, y-160)))
	p.settled()
	assert.Equal(t, pulled, p.field("Upright height").MustProperty("value").Str())
}

// The palette closed by Escape leaves every key alive, and none of them goes to the
// project's name.
func TestKeysAfterThePalette(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.turning()
	name := p.field("Project name").MustProperty("value").Str()
	for range 2 {
		p.keys(input.Slash)
		p.until("the commands are open", `() => document.activeElement?.getAttribute("aria-label") === "What do you want to do?"`)
		require.NoError(t, p.InsertText("dry"))
		p.keys(input.Escape)
		p.until("they are closed", `() => document.querySelector("dialog[open]") === null`)
		p.KeyActions().Press(input.ShiftLeft).Type(input.Key('?')).MustDo()
		p.see("Turn the view")
		p.keys(input.Escape)
		p.gone("Turn the view")
	}
	p.keys(input.Digit4)
	p.see("What stays dry?")
	// the name is written, left by Enter, and is no target for keys any more
	p.MustElement(".name-field").MustClick()
	p.keys(input.Enter, input.Digit6)
	p.see("What to buy")
	p.MustElement(".name-field").MustClick()
	p.keys(input.Escape, input.Digit1)
	p.see("How big?")
	assert.Equal(t, name, p.field("Project name").MustProperty("value").Str())
}

// A letter is the name of a piece wherever the hand was, with Caps Lock or without, and I
// leads to the line; no letter is both.
func TestLettersArePieces(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen"))
	p.turning()
	for _, letter := range []string{"b", "B", "C"} {
		p.MustEval(`() => document.activeElement?.blur()`)
		p.MustEval(`k => document.body.dispatchEvent(new KeyboardEvent("keydown", { key: k, bubbles: true, cancelable: true }))`, letter)
		p.until(letter+" is picked", `l => document.querySelector(".picked .letter")?.innerText === l.toUpperCase()`, letter)
	}
	for _, i := range []string{"i", "I"} { // as a keyboard with Caps Lock says it
		p.lens("Size")
		p.MustEval(`k => document.body.dispatchEvent(new KeyboardEvent("keydown", { key: k, bubbles: true, cancelable: true }))`, i)
		p.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
	}
}

// The server stops in the middle of typing and comes back: everything that was typed is
// there, planned and saved, without a reload.
func TestTheServerStopsWhileOneTypes(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.turning()
	p.until("all lenses are there", `() => performance.getEntriesByType("resource").filter(e => /sheet-.*js$/.test(e.name)).length >= 4`)
	p.focus("Width")
	p.retype("5")
	w.stop()
	require.NoError(t, p.InsertText(" ft"))
	p.see("The server does not answer")
	p.focus("Foot depth")
	p.retype("30")
	p.until("it says that it is not saved", `() => document.querySelector(".save-note").innerText === "Not saved yet"`)
	p.lens("Cut") // which nobody has opened before
	p.see("Where do I cut?")
	p.until("with its sticks", `() => document.querySelector(".lens-sheet .stick")?.innerText !== undefined`)
	p.lens("Size")
	w.start()
	p.until("it is saved", `() => document.querySelector(".save-note").innerText === "Saved"`)
	p.gone("The server does not answer")
	p.tapeIs("outside", "65 7⁄16″ × 30″ × 36″")
	q := w.window("/p/" + w.project("Club jump"))
	assert.Equal(t, "5 ft", q.field("Width").MustProperty("value").Str())
	assert.Equal(t, "30", q.field("Foot depth").MustProperty("value").Str())
}

// A sheet whose code cannot be fetched is waited for: the page goes on, and so does the sheet once it can be.
func TestASheetIsWaitedFor(t *testing.T) {
	w := open(t)
	p := w.window("/")
	p.see("Club jump")
	require.NoError(t, proto.NetworkEnable{}.Call(p))
	require.NoError(t, proto.NetworkSetBlockedURLs{Urls: []string{"*/assets/sheet-*"}}.Call(p))
	p.MustNavigate(w.url + "/p/" + w.project("Club jump"))
	p.turning()
	p.keys(input.Digit6)
	p.see("Getting the sheet")
	p.keys(input.Digit1)
	p.write("Width", "5 ft")
	p.settled()
	p.tapeIs("outside", "65 7⁄16″ × 24″ × 36″")
	p.MustEval(`() => document.activeElement?.blur()`)
	p.keys(input.Digit7)
	p.see("Getting the sheet")
	require.NoError(t, proto.NetworkSetBlockedURLs{Urls: []string{}}.Call(p))
	p.see("Where to cut")
}
