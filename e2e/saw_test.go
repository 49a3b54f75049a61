package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
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
	phone.press("Cut it")
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

// Deburring and marking are passes of their own over what is cut.
func TestDeburredAndMarked(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Lead stand") + "/cut#saw")
	p.see("to go")
	p.press("Deburr")
	p.see("Nothing is cut yet.")
	p.click(".saw-tasks button")
	p.press("Cut it")
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
}
