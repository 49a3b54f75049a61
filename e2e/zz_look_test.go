package e2e_test

import (
	"testing"
	"fmt"
	"time"

	"github.com/go-rod/rod/lib/input"
)

func (w *window) pic(name string) { time.Sleep(400*time.Millisecond); w.MustScreenshot("/tmp/pics/" + name + ".png") }
// say types a line as a newcomer; answers picks.
func (d *drawer) say(text string, answers ...input.Key) {
	d.keys(input.Escape)
	d.MustEval(`() => document.activeElement?.blur()`)
	d.keys(input.KeyW)
	d.until("focus", `() => document.activeElement?.matches("[data-walk]")`)
	d.retype(text)
	d.keys(input.Enter)
	time.Sleep(500*time.Millisecond)
	for _, a := range answers { d.keys(a); time.Sleep(500*time.Millisecond) }
	fmt.Println(text, "=>", d.MustEval(`() => [document.querySelector("#frame-head")?.parentElement.innerText, document.querySelector("[role=alert]")?.innerText, document.querySelector("[role=dialog]")?.innerText, document.querySelector(".tape-last")?.innerText].filter(Boolean).join(" | ").replace(/\s+/g," ")`).Str())
}

func TestZZName(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 48 cut", 1)
	d.line("j1: up 24 cut", 2)
	d.line("j2: up 24 cut", 3)
	d.MustSetViewport(390, 844, 2, true)
	d.press("More for j3, In height, from below")
	d.press("Give it a name")
	time.Sleep(700*time.Millisecond)
	fmt.Println(d.MustEval(`() => document.activeElement?.outerHTML`).Str())
	d.keys(input.KeyA, input.Equal, input.Enter)
	d.pic("nonsense")
}

func TestZZTrestle(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.say("right 16 cut")
	d.say("j1: down 14 cut")
	d.say("j2: down 14 cut")
	d.pic("t1")
	d.say("j1: left 2 cut")
	d.say("down near 6 cut")
	d.say("j5: down away 6 cut")
	d.say("j2: right 2 cut")
	d.say("down near 6 cut")
	d.say("j8: down away 6 cut")
	d.pic("t2")
	d.say("j6: to j9")
	d.say("j6: right to j9")
	d.say("j7: right to j10")
	d.pic("t3")
	d.say("j3: near 11 cut capped")
	d.say("j3: away 11 cut capped")
	d.say("j4: near 11 cut capped")
	d.say("j4: away 11 cut capped")
	d.pic("t4")
	d.lens("Cut")
	time.Sleep(time.Second)
	d.pic("t5")
}

func TestZZLead(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.pic("l0")
	d.choose("Size of the new pipe", "1-1/2")
	d.say("right 10 cut")
	d.say("right 10 cut")
	d.say("away 22 cut")
	d.say("j1: away 22 cut")
	d.say("right 3 cut")
	d.say("j4: left 3 cut")
	d.pic("l1")
	d.mark("j6"); d.mark("j7")
	d.pic("l1b")
	d.press("Run a pipe between them")
	time.Sleep(time.Second)
	d.pic("l2")
	d.say("j2: up 40 cut")
	d.say("left 4 cut capped")
	d.say("j8: right 4 cut capped")
	d.say("j6: up 3 cut")
	d.say("j7: up 3 cut")
	d.pic("l3")
	d.choose("Size of the new pipe", "2")
	d.say("j11: up 10 cut")
	d.say("up 4 cut")
	d.say("away 7 cut")
	d.say("up 3 cut")
	d.pic("l4")
	d.lens("Cut")
	time.Sleep(time.Second)
	d.pic("l5")
}
func TestZZWings(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.say("up 50 cut")
	d.say("right 36 cut")
	d.say("down 50 cut")
	d.say("left 36 cut", input.Digit1)
	d.pic("n1")
	d.mark("j1")
	d.keys(input.Escape)
	d.frame(input.ArrowDown)
	d.pic("n2")
	d.say("j1: split p1")
}
func TestZZRack(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.say("away 4 cut")
	d.say("away 16 cut")
	d.say("away 4 cut")
	d.say("j1: right 16 cut")
	d.say("away 4 cut")
	d.say("away 16 cut")
	d.say("away 4 cut")
	d.pic("r1")
	d.say("left 16 cut")
	d.pic("r2")
	for _, j := range []string{"j2","j3","j6","j7"} { d.say(j + ": down 7 cut capped") }
	d.pic("r3")
	d.MustElementR(".tape-cell", "findings").MustClick()
	time.Sleep(500*time.Millisecond)
	d.pic("r4")
	d.keys(input.Escape)
	// a nonsense line, millimetres, a cut that cannot hold
	d.say("j1: left 0 cut")
	d.say("j1: left -5")
	d.say("j1: left 5 parsecs")
	d.say("j9: right 12 cut")
	d.say("j2: right 15 cut")
	d.pic("r5")
	d.say("j2: right 16 cut")
	d.pic("r6")
}
