package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"
)

// A piece that is measured on the frame waits at the saw, is said to, and is
// cut as it was measured; the rest is planned again.
func TestAPieceIsMeasuredOnTheFrame(t *testing.T) {
	d := open(t).square()
	d.frame(input.Escape, input.ArrowRight)
	d.until("a pipe is picked", `() => [...document.querySelectorAll(".thing")].some(e => /bottom: 3\/4 in pipe/.test(e.innerText))`)
	before := d.tape("pipe")
	d.choose("How exactly it is cut", "on-frame")
	d.see("in reserve")
	assert.NotEqual(t, before, d.tape("pipe"), "the reserve is bought")
	d.lens("Cut")
	d.see("uncut until the rest stands")
	d.lens("Frame") // what is picked stays picked
	d.see("How exactly it is cut")
	d.fill("Measured", "38 3/4")
	d.see("measured 38 3⁄4″, planned 38 7⁄8″")
	d.see("1⁄8″ open")
	d.lens("Cut")
	d.gone("uncut until the rest stands")
	d.ctrl(input.KeyZ)
	d.see("uncut until the rest stands")
}

// A foot of another project stands on a joint of this one.
func TestAFootIsBroughtFromAnotherProject(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("up 30 capped", 1)
	d.frame(input.Escape, input.ArrowDown)
	d.until("j1 is picked", `() => [...document.querySelectorAll(".walk-from strong")].some(e => /^j1(,|$)/.test(e.innerText))`)
	d.press("From another project")
	d.choose("Which project", w.project("Club jump"))
	d.press("Foot")
	d.has("the foot is there", 3)
	d.see("Foot 1")
	d.ctrl(input.KeyZ)
	d.has("and gone again", 1)
}

// A part that no catalog has is described once and stands where pipes meet so.
func TestAPartOfOnesOwnIsDescribed(t *testing.T) {
	d := open(t).blank()
	d.line("right 20", 1)
	d.line("j2: right up@22.5 20", 2)
	d.until("nothing fits there", `() => [...document.querySelectorAll(".tape-cell")].some(c => c.innerText.includes("✕"))`)
	d.press("Describe one")
	d.write("Name", "elbow 22-1/2")
	d.write("Its ports", "left")
	d.press("Take it")
	d.wrong("Its ports", "How far is the stop")
	d.write("Its ports", "left 3/8\nleft 1/2")
	d.press("Take it")
	d.wrong("Its ports", "point the same way")
	d.write("Name", "tee")
	d.press("Take it")
	d.wrong("Name", "one of the catalog's")
	d.write("Name", "elbow 22-1/2")
	d.write("Its ports", "left 3/8\nright up@22.5 3/8")
	d.press("Take it")
	d.until("it fits", `() => ![...document.querySelectorAll(".tape-cell")].some(c => c.innerText.includes("✕"))`)
	d.see("2 ports")
	d.press("Take the part away")
	d.until("and not without it", `() => [...document.querySelectorAll(".tape-cell")].some(c => c.innerText.includes("✕"))`)
}

// The folding stand says what it is folded, and how far it may be.
func TestAStandFolds(t *testing.T) {
	w := open(t)
	n := w.window("/new")
	n.see("Folding sling stand")
	n.press("Folding sling stand")
	n.turning()
	n.lens("Frame")
	n.see("left bolt: 1/4")
	n.see("folded")
	n.see("56°")
	n.write("Folds by", "170")
	n.press("Fold")
	n.see("meets")
	n.lens("Buy")
	n.see("Bolts, wheels, ties")
}
