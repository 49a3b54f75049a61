package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// A pipe drawn on a starter's frame leaves every field of the starter where it
// was; it waits while the post that it stands on is away; and only taking a post
// away asks, after which the count is still one to change.
func TestAStartersFrameStaysTheStarters(t *testing.T) {
	w := open(t)
	d := &drawer{window: w.window("/p/" + w.project("Ring gate screen") + "/frame")}
	d.turning()
	d.line("post 2/top: up 9 capped", 30)
	d.lens("Size")
	for _, label := range []string{"Width", "Height", "Bays", "Rails", "Lowest rail", "Foot depth"} {
		d.field(label)
	}
	d.see("→ j25, high")
	d.write("Width", "3700mm")
	d.until("the width is typed in another unit", `() => /3700|145/.test(document.querySelector(".tape-figure")?.innerText ?? "")`)
	assert.Equal(t, "3700mm", d.field("Width").MustProperty("value").Str())

	d.write("Bays", "2")
	d.press("findings")
	d.see("Set aside for now: a joint drawn by hand and a pipe drawn by hand.")
	d.see("It hangs on post 2/top, which is not there now, and comes back with it.")
	d.axe("what is set aside")
	d.keys(input.Escape)
	d.write("Bays", "3")
	d.gone("Set aside")
	d.see("→ j25, high")

	d.lens("Frame")
	d.has("all of it again", 30)
	d.focus("More for post 1, Across, left to right")
	d.keys(input.Enter)
	d.press("Take it away with what stands on it")
	d.see("Go on with a frame of your own?")
	d.see("what you answered for Bays")
	d.axe("the question")
	d.press("Leave everything as it was")
	d.has("nothing was done", 30)
	d.focus("More for post 1, Across, left to right")
	d.keys(input.Enter)
	d.press("Take it away with what stands on it")
	d.asks("Go on with a frame of your own?")
	d.keys(input.Digit1)
	d.has("a post less", 22)

	d.lens("Size")
	assert.Equal(t, "2", d.field("Bays").MustProperty("value").Str())
	assert.Equal(t, "3700mm", d.field("Width").MustProperty("value").Str())
	had := d.MustEval(`() => document.querySelectorAll("[role=option]").length`).Int()
	d.write("Bays", "3")
	d.until("a post more", `had => document.querySelectorAll("[role=option]").length > had`, had)
	d.write("Bays", "lots")
	d.see("is not a number from 1 to 24")
	d.write("Bays", "2")
	d.gone("is not a number")
	d.lens("Frame")
	d.has("as it was", 22)
	d.ctrl(input.KeyZ)
	d.axe("a frame of one's own")
}
