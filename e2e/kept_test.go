package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// Posts of one length stand at one mark, and only happen to: one press keeps
// them level, a name is given to the plane, and a line runs as far as it.
func TestAPlaneIsKeptLevelAndNamed(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 48 cut", 1)
	d.line("j1: up 24 cut", 2)
	d.line("j2: up 24 cut", 3)
	d.see("only happens to stand there")
	d.press("Keep them level")
	d.gone("only happens to stand there")
	d.press("More for j3, In height, from below")
	d.press("Give it a name")
	d.until("its field has the focus", `() => document.activeElement?.labels?.[0]?.innerText === "What j3 is called"`)
	d.retype("a/b")
	d.keys(input.Enter)
	d.until(
		"why it is refused stands at the field",
		`() => /cannot be its name/.test(document.getElementById(document.activeElement.getAttribute("aria-describedby"))?.innerText)`,
	)
	d.axe("a refused name")
	d.fill("What j3 is called", "shelf")
	d.see("shelf")
	d.line("j1: near 12 cut", 4)
	d.line("j5: up to =shelf", 5)
	d.until(
		"it ends level with the others",
		`() => [...document.querySelectorAll('[data-plane="=shelf"]')].some(e => /3 joints/.test(e.innerText))`,
	)
	d.axe("a named plane")
}

// What gave way is told, offered back when what it gave way to has gone, and
// holds again by one press.
func TestWhatGaveWayIsOfferedBack(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 48 cut", 1)
	d.line("j1: up 24 cut", 2)
	d.line("right 48 cut", 3)
	d.keys(input.Escape, input.KeyI)
	d.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
	d.retype("j2: up 23 1/2 cut")
	d.keys(input.Enter)
	d.asks("Does it meet?")
	d.keys(input.Digit1)
	d.asks("What gives way?")
	d.axe("the question beside the frame")
	d.MustEval(
		`() => document.activeElement.dispatchEvent(new KeyboardEvent("keydown", { key: "1", repeat: true, bubbles: true, cancelable: true }))`,
	)
	d.see("1 was held, or came before the question could be read, and answered nothing")
	d.until(
		"the first answer keeps what was typed just now",
		`() => /1\s+24 cut of [A-Z](?: \([^()]+\))? gives way: it becomes 23 1.2" cut length/.test(document.querySelector(".answer:nth-child(1)")?.innerText)`,
	)
	d.keys(input.Digit1)
	d.gone("What gives way?")
	d.has("up 23 1/2 cut", 4)
	d.until(
		"the tape tells what gave way",
		`() => /24 cut of [A-Z](?: \([^()]+\))? → 23 1.2. cut length, gave way to 23 1.2 cut of [A-Z](?: \([^()]+\))?/.test(document.querySelector(".tape-last")?.innerText)`,
	)
	d.frame(input.Escape, input.ArrowRight, input.ArrowRight, input.ArrowRight, input.ArrowRight)
	d.until("the last post is picked", `() => /cut 23 1.2″/.test(document.querySelector(".thing")?.innerText ?? "")`)
	d.keys(input.Delete)
	d.press("24 cut length of B (left) holds again")
	d.frame(input.Escape, input.ArrowRight, input.ArrowRight, input.ArrowRight)
	d.until("it is 24 again", `() => /cut 24″/.test(document.querySelector(".thing")?.innerText ?? "")`)
	d.named()
}

// The first leg of a rack makes its side longer; with the leg on the other side
// both are even, and what gave way holds again as it was typed.
func TestARackOfLegsOneAfterTheOther(t *testing.T) {
	w := open(t)
	d := w.blank()
	for i, line := range []string{"away 4 cut", "away 16 cut", "away 4 cut", "j1: right 16 cut", "away 5 cut", "away 15 cut", "away 4 cut", "left 16 cut"} {
		d.line(line, i+1)
	}
	d.keys(input.Escape, input.KeyI)
	d.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
	d.retype("j2: down 7 cut capped")
	d.keys(input.Enter)
	d.asks("What gives way?")
	d.axe("the question with more answers")
	d.keys(input.ArrowUp) // from the first to the last, which is more
	d.until("more is asked for", `() => document.activeElement?.innerText.includes("more answers…")`)
	d.keys(input.Enter)
	d.until("the sixth has the focus", `() => /^6\s/.test(document.activeElement?.innerText)`)
	d.until(
		"every answer says what then stands",
		`() => { const all = [...document.querySelectorAll(".answer[data-option]")]; return all.length > 5 && all.every(b => /gives way: it becomes \d|slopes/.test(b.innerText)) }`,
	)
	d.MustEval(
		`() => [...document.querySelectorAll(".answer")].find(b => /^\d\s+4 cut of .* gives way: it becomes 5"/.test(b.innerText)).click()`,
	)
	d.has("a leg", 9)
	d.see("4 cut of D (upper right, 3rd from the front) → 5\" cut length")
	d.line("j6: down 7 cut capped", 10)
	d.see("4 cut length of E (upper right, 3rd from the front) holds again")
	d.tapeIs("findings", "1") // a leg at one end: it tips
	d.named()
}
