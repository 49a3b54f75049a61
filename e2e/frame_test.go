package e2e_test

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// drawer draws a frame by keyboard alone and counts what it does: a line
// typed, a thing picked, a button pressed are an action each.
type drawer struct {
	*window
	actions int
}

// blank begins a frame from nothing.
func (w *workshop) blank() *drawer {
	d := &drawer{window: w.window("/new")}
	d.see("From nothing")
	d.focus("From nothing")
	d.keys(input.Enter)
	d.actions++
	d.turning()
	d.see("Nothing here yet")
	return d
}

// line types a walk's line and runs it.
func (d *drawer) line(course string, pipes int) {
	d.t.Helper()
	d.keys(input.Escape)
	d.MustEval(`() => document.activeElement?.blur()`)
	d.keys(input.KeyI)
	d.until("the line has the focus", `() => document.activeElement?.matches("[data-walk]")`)
	d.retype(course)
	d.keys(input.Enter)
	d.actions++
	d.has(course, pipes)
}

func (d *drawer) has(what string, pipes int) {
	d.t.Helper()
	d.until(
		fmt.Sprintf("%s: %d pipes", what, pipes),
		`n => new RegExp("(^| )" + n + " pipes?,").test(document.querySelector("#frame-head")?.parentElement.innerText.replace(/\s+/g, " "))`,
		pipes,
	)
	d.settled()
}

// mark marks a joint by its name.
func (d *drawer) mark(joint string) {
	d.t.Helper()
	d.MustElement(".stage-list").MustFocus()
	for range 200 {
		heard := d.MustEval(`() => document.getElementById(document.querySelector(".stage-list").getAttribute("aria-activedescendant"))?.innerText ?? ""`).
			Str()
		if d.MustEval(`(heard, j) => new RegExp("(^|, |joint )" + j + "(,|:|$)").test(heard)`, heard, joint).Bool() {
			d.keys(input.Space)
			d.actions += 2 // picked and marked
			d.until(
				joint+" is marked",
				`j => [...document.querySelectorAll("h3")].some(h => / marked$/.test(h.innerText) && h.closest(".thing").innerText.includes(j))`,
				joint,
			)
			return
		}
		d.keys(input.ArrowDown)
		d.until(
			"another joint is picked",
			`h => (document.getElementById(document.querySelector(".stage-list").getAttribute("aria-activedescendant"))?.innerText ?? "") !== h`,
			heard,
		)
	}
	require.Fail(d.t, "no joint "+joint)
}

// fill types into a field found by Tab and presses Enter.
func (d *drawer) fill(field, text string) {
	d.t.Helper()
	d.MustElement(".stage-list").MustFocus()
	d.focus(field)
	d.retype(text)
	d.keys(input.Enter)
	d.actions++
}

// A wall of two bays and three levels on feet, from nothing, by keyboard
// alone, within forty actions; then thirty steps are undone and done again.
func TestAWallByKeyboardAlone(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("up 6", 1)
	d.line("up 21 x2", 3)
	d.line("j1: near 12 capped", 4)
	d.line("j1: away 12 capped", 5)
	d.mark("j2")
	d.mark("j3")
	d.mark("j4")
	d.fill("Another like j1", "46 clear")
	d.has("a second post with rails", 13)
	d.fill("Another like j7", "46 clear")
	d.has("a third post", 21)
	assert.LessOrEqual(t, d.actions, 40)
	t.Logf("the wall took %d actions", d.actions)
	// hubs 3 tees, outer posts 2 tees and an elbow each, the middle one 2
	// crosses and a tee, 6 caps
	assert.Equal(t, "18", d.tape("fittings"))
	assert.Equal(t, "95 7⁄16″ × 24 3⁄8″ × 49 5⁄16″", d.tape("outside"))

	// every bay is a size that can be typed
	d.fill("From j1 to j7", "40 clear")
	d.until(
		"the bay is smaller",
		`() => /^89/.test([...document.querySelectorAll(".tape-cell")].find(c => c.children[0].textContent === "outside").children[1].innerText)`,
	)
	d.settled()
	tapes := []string{d.all()}
	for k := range 21 {
		d.fill("From j1 to j7", fmt.Sprintf("%d clear", 41+k))
		d.until(
			"the tape follows",
			`was => [...document.querySelectorAll('section[aria-label="The job in one line"] .tape-figure')].map(e => e.innerText.replace(/\s+/g, " ").trim()).join(" | ") !== was`,
			tapes[len(tapes)-1],
		)
		d.settled()
		tapes = append(tapes, d.all())
	}
	last := d.all()
	for k := range 30 {
		d.MustElement(".stage-list").MustFocus()
		d.ctrl(input.KeyZ)
		if k < 21 {
			d.allIs(tapes[20-k], fmt.Sprintf("undone %d times", k+1))
		}
		d.settled()
	}
	d.see("Nothing here yet")
	for range 30 {
		d.ctrl(input.KeyY)
		d.settled()
	}
	d.allIs(last, "all done again")
}

// A foot is drawn to one side and mirrored to the other; what makes one longer
// makes the other longer.
func TestAFootIsMirrored(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("up 30", 1)
	d.line("j1: near 12 capped", 2)
	d.mark("j1")
	d.mark("j3")
	d.focus("Where the mirror stands")
	d.keys(input.Enter)
	d.until("the places are listed", `() => document.activeElement?.getAttribute("role") === "option"`)
	hub := `() => document.activeElement?.innerText.startsWith("j1, in depth")`
	for k := 0; k < 9 && !d.MustEval(hub).Bool(); k++ {
		d.keys(input.ArrowDown)
		d.still(`document.activeElement?.innerText ?? ""`)
	}
	d.until("at the hub", hub)
	d.keys(input.Enter)
	d.focus("Mirror")
	d.keys(input.Enter)
	d.has("the foot has two halves", 3)
	d.see("half 1")
	assert.Equal(t, "3", d.tape("fittings"), "a tee and two caps")
	d.see("24 3⁄8″")
	d.choose("Whose bays", "half 1")
	d.fill("From j3 to j1", "15")
	d.see("30 3⁄8″")
}

// A section of two posts and three rails, three times: crosses appear where
// they share an upright.
func TestASectionThreeTimes(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 36", 1)
	d.line("up 15 x2", 3)
	d.line("left 36", 4)
	d.line("down 15 x2", 6)
	d.mark("j3")
	d.mark("j6")
	d.press("Run a pipe between them")
	d.has("a middle rail", 7)
	for _, j := range []string{"j1", "j2", "j3", "j4", "j5", "j6"} {
		d.mark(j)
	}
	d.write("Group them as", "section")
	d.keys(input.Enter)
	d.see("section 1")
	d.press("Repeat, turn or mirror section 1")
	d.write("How many of section 1", "501")
	d.press("Make the copies")
	d.wrong("How many of section 1", "use 1 to 500")
	d.write("How many of section 1", "3")
	d.press("Make the copies")
	d.has("three sections", 17)
	d.lens("Buy")
	d.see("cross")
	row := d.shows(`.ware:has([aria-label*="cross"]), .ware`)
	assert.NotEmpty(t, row)
	assert.Equal(t, "12", d.tape("fittings"), "4 elbows, 6 tees and 2 crosses")
	d.lens("Frame")
	d.choose("Whose bays", "section 1#1")
	d.fill("From j1 to j2", "30")
	d.until(
		"all three follow",
		`() => /^91/.test([...document.querySelectorAll(".tape-cell")].find(c => c.children[0].textContent === "outside").children[1].innerText)`,
	)
}

// A round cut goes in and the size comes out: of a rail that spans its bay,
// and of a slope, for which another size gives way.
func TestACutLengthDrivesTheSize(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 30", 1)
	d.line("j1: up 20", 2)
	d.frame(input.ArrowRight)
	d.fill("Make it", "36")
	d.see("cut 36″")
	d.mark("j2")
	d.mark("j3")
	d.press("Run a pipe between them")
	d.has("a slope", 3)
	picked := `letter => document.querySelector(".thing .letter")?.innerText === letter`
	// pipes are picked in the order of their letters, the longest first; keys
	// that come faster than the picture follows all count
	d.frame(input.Escape, input.ArrowRight, input.ArrowRight, input.ArrowRight)
	d.until("the shortest is picked", picked, "C")
	d.frame(input.Escape, input.ArrowRight)
	d.until("the slope is picked", picked, "A")
	d.fill("Make it", "44")
	// three sizes cannot hold together: what gives way is asked, and answered by
	// keyboard
	d.asks("What gives way?")
	d.see("cannot hold together")
	d.axe("the question")
	d.until("an answer has the focus", `() => document.activeElement?.className === "answer"`)
	d.keys(input.ArrowDown, input.ArrowUp)
	d.until(
		"the post",
		`() => /20 centre to centre of [A-Z](?: \([^()]+\))? gives way: it becomes \d/.test(document.activeElement?.innerText)`,
	)
	d.keys(input.Enter)
	d.gone("What gives way?")
	d.see("cut 44″")
	d.until(
		"the tape tells what gave way",
		`() => /20 centre to centre of [A-Z](?: \([^()]+\))? → .*gave way to/.test(document.querySelector(".tape-last")?.innerText)`,
	)
	d.frame(input.Escape, input.ArrowRight, input.ArrowRight, input.ArrowRight)
	d.until(
		"the piece tells it too",
		`() => /gave way to .*44 cut of [A-Z](?: \([^()]+\))?/.test(document.querySelector(".said.is-gone")?.innerText ?? "")`,
	)

	// undo brings the question back; the mouse chooses otherwise
	d.MustElement(".stage-list").MustFocus()
	d.ctrl(input.KeyZ)
	d.asks("What gives way?")
	d.click(".answer:nth-child(2)")
	d.gone("What gives way?")
	d.until("the base gave way", `() => /36 cut of [A-Z](?: \([^()]+\))? → /.test(document.querySelector(".tape-last")?.innerText)`)
	d.see("cut 44″")
	// what gave way is drawn as it is, and what was asked for beside it, struck through
	d.lens("Size")
	d.see("36″ gave way to 20 centre to centre of C (left) and 44 cut of A (in the middle): it is 39 21⁄64″")
	d.until(
		"the frame shows both",
		`() => [...document.querySelectorAll(".size-label")].some(e => /36/.test(e.querySelector("s")?.innerText) && !/36/.test(e.querySelector("strong").innerText))`,
	)
	d.lens("Frame")
	d.MustElement(".stage-list").MustFocus()
	d.ctrl(input.KeyZ)
	d.asks("What gives way?")
	d.press("Leave everything as it was")
	d.gone("cut 44″")
	d.see("cut 36″")
}

// A mark is pulled along its ruler with the mouse, and the bay follows by
// quarter inches; a plus on a joint says which way a pipe is to run.
func TestMarksArePulledAndPlussesPressed(t *testing.T) {
	w := open(t)
	d := w.blank()
	d.line("right 40", 1)
	d.line("up 20", 2)
	before := d.tape("outside")
	x, y := d.middle(
		`() => { const e = document.querySelector('[data-plane-grip="j2"]'); return e?.style.visibility === "visible" ? e : null; }`,
	)
	require.NoError(t, d.Mouse.MoveTo(proto.NewPoint(x, y)))
	require.NoError(t, d.Mouse.Down(proto.InputMouseButtonLeft, 1))
	for k := range 8 {
		require.NoError(t, d.Mouse.MoveTo(proto.NewPoint(x-float64(5*k), y-float64(k))))
	}
	require.NoError(t, d.Mouse.Up(proto.InputMouseButtonLeft, 1))
	d.until(
		"the bay is smaller",
		`was => [...document.querySelectorAll(".tape-cell")].find(c => c.children[0].textContent === "outside").children[1].innerText.replace(/\s+/g, " ").trim() !== was`,
		before,
	)
	d.settled()
	d.until(
		"by quarters of an inch",
		`() => /^\d+( [1-3]\/[24])?″? centre$/.test([...document.querySelectorAll(".mark-field")][0].value.replace("⁄", "/"))`,
	)
	d.MustElement(".stage-list").MustFocus()
	d.ctrl(input.KeyZ)
	d.tapeIs("outside", before)

	d.frame(input.ArrowDown)
	near := `() => [...document.querySelectorAll(".tag-plus")].find(e => e.title.includes("near") && e.style.visibility === "visible") ?? null`
	d.middle(near)
	d.still(`[...document.querySelectorAll(".tag-plus")].map(e => e.style.transform).join()`) // the view moves to the smaller frame
	x, y = d.middle(near)
	d.tap(x, y)
	d.until(
		"the direction is in the line",
		`() => document.querySelector("[data-walk]").value === "near " && document.activeElement.matches("[data-walk]")`,
	)
	require.NoError(t, d.InsertText("9"))
	d.keys(input.Enter)
	d.has("a pipe by its plus", 3)
}

// Nonsense is refused where it was typed, and nothing is lost.
func TestTheFrameLensRefusesNonsense(t *testing.T) {
	w := open(t)
	d := w.blank()
	for typed, says := range map[string]string{"sideways 4": "direction", "up": "length", "up 4 furlongs": "furlongs", "up right left 4": "3 directions"} {
		d.until("the line is there", `() => document.querySelector("[data-walk]") !== null`)
		d.MustElement("[data-walk]").MustSelectAllText().MustInput(typed)
		d.keys(input.Enter)
		d.until("it is refused: "+typed, `t => document.querySelector(".walk [role=alert]")?.innerText.includes(t)`, says)
		assert.Equal(t, typed, d.MustElement("[data-walk]").MustProperty("value").Str())
	}
	d.line("right 30", 1)
	d.until("it says no more", `() => document.querySelector(".walk [role=alert]") === null`)
	d.fill("From j1 to j2", "wide")
	d.until("the bay is refused", `() => [...document.querySelectorAll("[role=alert]")].length > 0`)
	d.MustEval(`() => document.activeElement?.blur()`)
	d.MustSetViewport(390, 844, 2, true)
	d.axe("the Frame lens on a phone")
	d.MustSetViewport(1280, 800, 1, false)
	d.frame(input.ArrowDown)
	d.axe("the Frame lens with a joint picked")
}
