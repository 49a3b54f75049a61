package e2e_test

import (
	"fmt"
	"math"
	"strings"
	"testing"
	"time"

	"github.com/go-rod/rod"
	"github.com/go-rod/rod/lib/input"
	"github.com/go-rod/rod/lib/proto"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// shows gives the text of an element, its white space folded.
func (w *window) shows(selector string) string {
	return w.MustEval(`s => (document.querySelector(s)?.innerText ?? "").replace(/\s+/g, " ").trim()`, selector).Str()
}

// middle gives the middle of an element that a script finds, once it stands still: the frame turns into view.
func (w *window) middle(js string, args ...any) (x, y float64) {
	w.t.Helper()
	still := 0
	for end := time.Now().Add(patience); still < 2 && time.Now().Before(end); w.drawn() {
		e, err := w.Timeout(patience).ElementByJS(rod.Eval(js, args...))
		require.NoError(w.t, err, js)
		shape, err := e.Shape()
		if err != nil || len(shape.Quads) == 0 {
			continue // it was drawn anew meanwhile
		}
		b := shape.Box()
		atX, atY := b.X+b.Width/2, b.Y+b.Height/2
		if still++; math.Abs(atX-x) > 0.5 || math.Abs(atY-y) > 0.5 {
			still = 0
		}
		x, y = atX, atY
	}
	return x, y
}

// drawn waits until the page has drawn three times: on a busy machine that takes its time.
func (w *window) drawn() {
	w.t.Helper()
	w.MustEval(`async () => { for (let n = 0; n < 3; n++) await new Promise(requestAnimationFrame); }`)
}

// spot looks over the frame with the mouse for a place that belongs to what is
// named, as a person would, and leaves the mouse there.
func (w *window) spot(named string) (x, y float64) {
	w.t.Helper()
	box := w.MustElement(".stage").MustShape().Box()
	for dy := 14.0; dy < box.Height-8; dy += 14 {
		for dx := 60.0; dx < box.Width-60; dx += 14 {
			x, y = box.X+dx, box.Y+dy
			require.NoError(w.t, w.Mouse.MoveTo(proto.NewPoint(x, y)))
			if strings.Contains(w.shows(".stage-hover"), named) {
				return x, y
			}
		}
	}
	require.Fail(w.t, "nothing on the frame is named "+named)
	return 0, 0
}

// Every change is told by the tape, undone in its turn, and done again.
func TestTheWorkbenchByMouse(t *testing.T) {
	w := open(t)
	p := w.window("/")
	p.moving()
	p.press("Club jump")
	p.turning()
	start := p.all()

	// a pipe by its letter on the frame is picked everywhere
	p.lens("Cut")
	p.turning()
	p.still(tags)
	x, y := p.middle(
		`() => [...document.querySelectorAll(".tag-letter")].find(e => e.textContent.startsWith("B") && e.style.visibility === "visible") ?? null`,
	)
	p.tap(x, y)
	p.until(
		"B is pressed in the cut list",
		`() => document.querySelector('[aria-label="Show B on the frame"]').getAttribute("aria-pressed") === "true"`,
	)
	p.until(
		"B is lit on the stick",
		`() => [...document.querySelectorAll(".stick-piece.is-lit b")].every(e => e.textContent.startsWith("B")) && document.querySelectorAll(".stick-piece.is-lit").length === 1`,
	)
	assert.Contains(t, p.shows(".picked"), "47 15⁄16″")
	p.press("Cut B") // why?
	p.see("makes 47.938″")
	p.keys(input.Escape)
	p.press("Show C on the frame")
	p.until(
		"both C of this copy are labelled",
		`() => [...document.querySelectorAll(".tag-letter")].filter(e => e.textContent.startsWith("C") && e.classList.contains("is-lit") || e.textContent === "C").length >= 2`,
	)

	tapes := []string{start}
	done := func(what string, act func()) {
		t.Helper()
		before := p.all()
		act()
		p.until(
			what+" changes the tape",
			`was => [...document.querySelectorAll('section[aria-label="The job in one line"] .tape-figure')].map(e => e.innerText.replace(/\s+/g, " ").trim()).join(" | ") !== was`,
			before,
		)
		p.settled()
		tapes = append(tapes, p.all())
		assert.NotEmpty(t, p.shows(".tape-last"), "%s: the tape says what was done", what)
	}

	p.lens("Size")
	done("a width", func() { p.write("Width", "5 ft") })
	assert.Equal(t, "+12″ wide", p.change("outside"))
	done("another meaning", func() { p.choose("What Width means", "outside") })
	done("a width on the frame", func() {
		p.click(`.size-label[title^="Width"]`)
		p.until("the label is a field", `() => document.activeElement?.getAttribute("aria-label") === "Width"`)
		p.KeyActions().Press(input.ControlLeft).Type(input.KeyA).MustDo()
		require.NoError(t, p.InsertText("50"))
		p.keys(input.Enter)
	})
	done("a pulled end", func() {
		x, y := p.middle(
			`() => [...document.querySelectorAll(".grip")].find(e => e.title.endsWith("Upright height") && e.style.visibility === "visible") ?? null`,
		)
		require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x, y)))
		require.NoError(t, p.Mouse.Down(proto.InputMouseButtonLeft, 1))
		for k := range 8 {
			require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x+2, y-float64(4*k))))
		}
		require.NoError(t, p.Mouse.Up(proto.InputMouseButtonLeft, 1))
		p.until(
			"the upright is longer",
			`() => { const [w, f] = document.querySelector('[id$="-why"]') && [...document.querySelectorAll("label")].filter(l => l.innerText === "Upright height").map(l => [l, document.getElementById(l.htmlFor).value])[0]; return f !== "36"; }`,
		)
	})
	pulled := p.field("Upright height").MustProperty("value").Str()
	assert.Regexp(t, `^\d+( \d+/(2|4|8|16))?$`, pulled, "a pull keeps to the tape's steps")
	done("a count", func() { p.write("How many", "3") })

	p.lens("Joints")
	done("a kind left dry", func() { p.press("Every tee: leave dry") })
	assert.Equal(t, "−18 cemented, +18 dry", p.change("cemented / dry"), "six sockets in each of three")
	done("a group left dry", func() { p.press("Every foot: leave dry") })
	done("one joint on the frame", func() {
		x, y := p.spot("in cap")
		p.tap(x, y)
		p.until("one ring is flipped, or the cap is picked", `() => document.querySelector(".picked, .tape-change:not(:empty)") !== null`)
		if p.shows(".picked") != "" {
			p.press("Leave it dry")
		}
	})
	p.lens("Buy")
	p.press("Show number 1,")
	p.until(
		"its row is lit, and the number on the frame",
		`() => document.querySelectorAll(".ware-row.is-lit").length === 1 && document.querySelector(".tag-count.is-lit")?.innerText === "1"`,
	)
	p.frame(input.KeyA)
	p.until(
		"a picked pipe lights its sticks",
		`() => [...document.querySelectorAll(".ware-row.is-lit")].every(e => e.innerText.includes("3/4 in pipe")) && document.querySelector(".ware-row.is-lit") !== null`,
	)
	done("a price", func() {
		p.press("Price of 3/4 in cap")
		p.MustElement(`input[aria-label="Price of 3/4 in cap"]`).MustSelectAllText().MustInput("2.50")
		p.keys(input.Enter)
		p.press("Only this project")
	})
	done("another unit", func() { p.choose("How lengths are shown", "metric") })
	require.Len(t, tapes, 11)

	for i := len(tapes) - 2; i >= 0; i-- {
		p.press("Undo")
		p.allIs(tapes[i], fmt.Sprintf("undone to step %d", i))
	}
	for i := 1; i < len(tapes); i++ {
		p.press("Redo")
		p.allIs(tapes[i], fmt.Sprintf("redone to step %d", i))
	}
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.allIs(tapes[len(tapes)-1], "after a reload")
}

// tags reads where the letters stand on the frame.
const tags = `[...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join()`

// still waits until an expression of the page is the same in twelve pictures on end.
func (w *window) still(js string) {
	w.t.Helper()
	w.MustEval(`async () => {
		const read = () => JSON.stringify(` + js + `);
		for (let was = read(), same = 0; same < 12; ) {
			await new Promise(requestAnimationFrame);
			const now = read();
			same = now === was ? same + 1 : 0;
			was = now;
		}
	}`)
}

// settled waits until the tape stands still.
func (w *window) settled() {
	last, since := w.all(), time.Now()
	for end := time.Now().Add(patience); time.Now().Before(end); time.Sleep(15 * time.Millisecond) {
		if now := w.all(); now != last {
			last, since = now, time.Now()
		} else if time.Since(since) > 150*time.Millisecond {
			return
		}
	}
}

// focus presses Tab until what has the focus is called so.
func (w *window) focus(words string) {
	w.t.Helper()
	for range 140 {
		w.keys(input.Tab)
		if w.MustEval(`w => {
			const e = document.activeElement;
			const name = e.getAttribute("aria-label") ?? e.labels?.[0]?.innerText ?? e.innerText ?? "";
			return name.replace(/\s+/g, " ").trim().startsWith(w);
		}`, words).Bool() {
			return
		}
	}
	require.Fail(w.t, "not reached by Tab: "+words)
}

func (w *window) ctrl(k input.Key) { w.KeyActions().Press(input.ControlLeft).Type(k).MustDo() }

// retype replaces what is in the field that has the focus.
func (w *window) retype(text string) {
	w.ctrl(input.KeyA)
	require.NoError(w.t, w.InsertText(text))
}

// pickNext opens the list that has the focus and goes down to a value.
func (w *window) pickNext(value string) {
	w.t.Helper()
	w.keys(input.Enter)
	w.until("the list has the focus", `() => document.activeElement?.getAttribute("role") === "option"`)
	w.keys(input.ArrowDown)
	w.until("the next has the focus", `v => document.activeElement?.dataset.value === v`, value)
	w.keys(input.Enter)
}

// The same by keyboard alone.
func TestTheWorkbenchByKeyboardAlone(t *testing.T) {
	w := open(t)
	p := w.window("/")
	p.see("ready to buy")
	p.focus("Club jump")
	p.keys(input.Enter)
	p.turning()
	tapes := []string{p.all()}
	done := func(what string) {
		t.Helper()
		p.until(
			what+" changes the tape",
			`was => [...document.querySelectorAll('section[aria-label="The job in one line"] .tape-figure')].map(e => e.innerText.replace(/\s+/g, " ").trim()).join(" | ") !== was`,
			tapes[len(tapes)-1],
		)
		p.settled()
		tapes = append(tapes, p.all())
	}

	p.keys(input.Digit7)
	p.see("Where to cut")
	p.keys(input.KeyB) // pipe B, from anywhere
	p.until(
		"B is pressed in the cut list",
		`() => document.querySelector('[aria-label="Show B on the frame"]').getAttribute("aria-pressed") === "true"`,
	)
	hears := func(pattern string) { // what a screen reader says is chosen
		t.Helper()
		p.until(
			"a screen reader hears "+pattern,
			`r => new RegExp(r).test(document.getElementById(document.querySelector(".stage-list").getAttribute("aria-activedescendant"))?.innerText ?? "")`,
			pattern,
		)
	}
	hears("^B(, .*)?: 3/4 in pipe, cut 47 15⁄16″")
	p.keys(input.ArrowRight)
	hears("^C(, .*)?: ")
	p.keys(input.ArrowDown)
	hears("^j[0-9]+(, .*)?: 3/4 in .*, cemented$")
	p.keys(input.Escape)
	hears("^$")

	p.keys(input.Digit1)
	p.see("How big?")
	p.focus("Width")
	p.retype("5 ft")
	done("a width")
	p.keys(input.ArrowUp, input.ArrowUp, input.ArrowDown) // steps of the tape, faster than it is planned
	p.until("it is a step wider", `() => document.activeElement.value === "60 1/16"`)
	done("a nudge")
	assert.Equal(t, "60 1/16", p.field("Width").MustProperty("value").Str())
	p.focus("What Width means")
	p.pickNext("outside")
	done("another meaning")
	p.focus("Foot depth")
	p.retype("30")
	done("a foot")

	p.MustElement(".stage-list").MustFocus()
	p.keys(input.Digit4)
	p.see("What stays dry?")
	p.frame(input.ArrowDown, input.Space)
	done("one joint")
	p.keys(input.ArrowDown, input.Space)
	done("the next joint")
	p.keys(input.KeyA, input.Space)
	done("both ends of A")
	p.keys(input.Slash)
	p.until("the commands are open", `() => document.activeElement?.getAttribute("aria-label") === "What do you want to do?"`)
	require.NoError(t, p.InsertText("every joint dry"))
	p.keys(input.Enter)
	done("all dry by command")

	p.frame(input.Digit6)
	p.see("What to buy")
	p.focus("Price of 3/4 in tee")
	p.keys(input.Enter)
	p.retype("3.10")
	p.keys(input.Enter)
	p.see("For every project, or for this one?")
	p.keys(input.Enter) // for this one
	done("a price")
	p.focus("How lengths are shown")
	p.pickNext("feet-inches")
	done("another unit")
	require.Len(t, tapes, 11)

	p.MustElement(".stage-list").MustFocus()
	for i := len(tapes) - 2; i >= 0; i-- {
		p.ctrl(input.KeyZ)
		p.allIs(tapes[i], fmt.Sprintf("undone to step %d", i))
	}
	for i := 1; i < len(tapes); i++ {
		p.ctrl(input.KeyY)
		p.allIs(tapes[i], fmt.Sprintf("redone to step %d", i))
	}
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.allIs(tapes[len(tapes)-1], "after a reload")
	p.KeyActions().Press(input.ShiftLeft).Type(input.Key('?')).MustDo()
	p.see("Turn the view")
	p.keys(input.Escape)
	p.gone("Turn the view")
}

// The view turns by key and by hand, and picks stay right in every view.
func TestTheViewTurns(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Scorekeeper's table") + "/cut")
	p.moving()
	p.turning()
	where := func() string {
		p.MustWaitStable()
		return p.MustEval(`() => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join()`).Str()
	}
	p.MustElement(".stage-list").MustFocus()
	seen := map[string]string{"corner": where()}
	shift := func(k input.Key) { p.KeyActions().Press(input.ShiftLeft).Type(k).MustDo() }
	for name, key := range map[string]input.Key{"front": input.Digit1, "side": input.Digit2, "top": input.Digit3} {
		shift(key)
		p.until(
			"the view moves",
			`was => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() !== was`,
			seen["corner"],
		)
		p.still(tags)
		seen[name] = where()
		shift(input.Digit4)
		p.until(
			"the corner again",
			`was => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() === was`,
			seen["corner"],
		)
	}
	assert.NotEqual(t, seen["front"], seen["side"])
	p.still(tags)
	p.keys(input.KeyO)
	p.until(
		"in perspective",
		`was => document.querySelector('[aria-label="Perspective"]').getAttribute("aria-pressed") === "true" && [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() !== was`,
		seen["corner"],
	)
	p.still(tags)
	p.keys(input.KeyO)
	p.until(
		"parallel again",
		`was => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() === was`,
		seen["corner"],
	)

	box := p.MustElement(".stage").MustShape().Box()
	require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(box.X+100, box.Y+box.Height-60)))
	require.NoError(t, p.Mouse.Down(proto.InputMouseButtonLeft, 1))
	for k := range 10 {
		require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(box.X+100+float64(12*k), box.Y+box.Height-60)))
	}
	require.NoError(t, p.Mouse.Up(proto.InputMouseButtonLeft, 1))
	p.until(
		"turned by hand",
		`was => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() !== was`,
		seen["corner"],
	)
	x, y := p.spot("A, ")
	p.tap(x, y)
	p.until("what was named is picked", `() => document.querySelector(".picked")?.innerText.startsWith("A")`)
}

// Who knew the number keys before they moved is told so once; a newcomer is not, whatever
// switches they touch.
func TestOnlyWhoKnewOtherKeysIsToldOfThem(t *testing.T) {
	w := open(t)
	at := "/p/" + w.project("Club jump") + "/cut"
	p := w.window(at)
	p.see("Where to cut")
	p.MustElement(".stage-list").MustFocus()
	p.keys(input.KeyO)
	p.until("in perspective", `() => document.querySelector('[aria-label="Perspective"]').getAttribute("aria-pressed") === "true"`)
	p.MustReload().MustWaitLoad()
	p.see("Where to cut")
	assert.NotContains(t, p.MustElement("body").MustText(), "has its number for good now")

	p.MustEval(`() => localStorage.removeItem("sturdyelbow.keys-of-nine")`) // as it was before they moved
	p.MustReload().MustWaitLoad()
	p.see("has its number for good now")
	p.press("I know")
	p.gone("has its number for good now")
	p.MustReload().MustWaitLoad()
	p.see("Where to cut")
	assert.NotContains(t, p.MustElement("body").MustText(), "has its number for good now")
}

// Without WebGL the server's drawing takes the frame's place.
func TestWithoutWebGLEverythingStillWorks(t *testing.T) {
	w := open(t)
	p := w.window("/nowhere")
	_, err := p.EvalOnNewDocument(`HTMLCanvasElement.prototype.getContext = () => null`)
	require.NoError(t, err)
	p.MustNavigate(w.url + "/p/" + w.project("Club jump") + "/cut").MustWaitLoad()
	p.until("the drawing is there", `() => document.querySelectorAll(".stage svg .piece").length === 12`)
	p.frame(input.KeyB)
	p.until("B is lit", `() => [...document.querySelectorAll("svg .piece.lit")].map(e => e.dataset.letter).join() === "B"`)
	x, y := p.middle(`() => document.querySelector('svg .tag[data-letter="D"]')`)
	p.tap(x, y)
	p.until(
		"D is pressed in the list",
		`() => document.querySelector('[aria-label="Show D on the frame"]').getAttribute("aria-pressed") === "true"`,
	)
	p.lens("Joints")
	p.see("What stays dry?")
	before := p.tape("cemented / dry")
	p.settled()
	x, y = p.middle(`() => document.querySelector('svg [data-insertion="top.l|cup.l-top.l"] .ring')`)
	p.tap(x, y)
	p.changeIs("cemented / dry", "−2 cemented, +2 dry")
	p.until("the drawing follows", `() => document.querySelectorAll("svg .ring.dry").length === 1`)
	p.press("Undo")
	p.tapeIs("cemented / dry", before)
	p.lens("Size")
	p.write("Bar height", "3")
	p.until(
		"a finding is pinned to the drawing",
		`() => [...document.querySelectorAll(".tag-finding")].some(e => e.style.visibility === "visible")`,
	)
	p.MustElement(".stage").MustElement("svg")
}

// A finding sits where it belongs and is mended there.
func TestAFindingIsMendedOnTheFrame(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.turning()
	p.write("Bar height", "3")
	p.until("the tape counts it", `() => document.querySelector(".tape-figure.text-bad") !== null`)
	p.hit(
		"the pin of the finding",
		rod.Eval(
			`() => [...document.querySelectorAll(".tag-finding.is-stop")].find(e => e.style.visibility === "visible" && e.title.includes("two sockets take")) ?? null`,
		),
	)
	p.see("the fittings would overlap")
	p.see("Make Bar height")
	p.click(".note .btn-fix")
	p.until("nothing is wrong any more", `() => document.querySelector(".tape-figure.text-bad") === null`)
	assert.NotEqual(t, "3", p.field("Bar height").MustProperty("value").Str())
	p.press("Undo: Make Bar height")
	p.until("wrong again", `() => document.querySelector(".tape-figure.text-bad") !== null`)

	// the same from the tape, where every finding is listed; the fix is the shop's
	p.write("Bar height", "20")
	p.write("Width", "15 ft")
	p.press("findings")
	p.see("no stick is that long")
	p.click(".note .btn-fix")
	p.gone("no stick is that long")
	p.lens("Buy")
	p.see("20′ stick")
}

// What a slow server says of the starter comes after the frame was drawn: its sizes stand in the picture all the same, unless
// somebody has moved nearer meanwhile, which stays.
func TestSizesThatComeLateAreInThePicture(t *testing.T) {
	w := open(t)
	inside := `() => {
		const on = document.querySelector(".stage").getBoundingClientRect();
		return [...document.querySelectorAll(".grip")].every((e) => {
			const at = e.getBoundingClientRect();
			return at.left >= on.left && at.right <= on.right && at.top >= on.top && at.bottom <= on.bottom;
		});
	}`
	for _, nearer := range []int{0, 4} {
		p := w.window("/nowhere")
		goOn := p.slowly("/api/starters")
		p.MustNavigate(w.url + "/p/" + w.project("Club jump"))
		p.turning()
		assert.Empty(t, p.MustElements(".grip"), "the frame stands without its sizes")
		for range nearer {
			p.frame('+')
		}
		p.drawn()
		goOn()
		p.until("the sizes are there", `() => document.querySelectorAll(".grip").length === 4`)
		if nearer == 0 {
			p.until("all of them are in the picture", inside)
			continue
		}
		p.drawn()
		assert.False(t, p.MustEval(inside).Bool(), "who moved nearer stays there")
	}
}

// A joint that was set finds its setting again when it comes back.
func TestWhatWasSetOutlivesAChangeOfBays(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen") + "/joints")
	p.turning()
	p.press("post 2: leave dry")
	p.changeIs("cemented / dry", "−16 cemented, +16 dry")
	with := p.tape("cemented / dry")
	p.lens("Size")
	p.write("Bays", "2")
	p.until("three posts are cemented", `() => document.querySelectorAll("[role=option]").length < 50`)
	p.write("Bays", "3")
	p.tapeIs("cemented / dry", with)
	p.lens("Joints")
	p.press("As they began")
	p.tapeIs("cemented / dry", "58 / 0")
}

// A finger picks what it touches and turns the view.
func TestByTouch(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Scorekeeper's table") + "/cut")
	p.moving()
	p.turning()
	x, y := p.spot("A, ")
	p.tap(20, 700) // away with the mouse
	require.NoError(t, proto.EmulationSetTouchEmulationEnabled{Enabled: true}.Call(p))
	p.Touch.MustTap(x, y)
	p.until("the pipe under the finger is picked", `() => document.querySelector(".picked")?.innerText.startsWith("A")`)
	where := `() => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join()`
	was := p.MustEval(where).Str()
	box := p.MustElement(".stage").MustShape().Box()
	at := func(by float64) *proto.InputTouchPoint {
		return &proto.InputTouchPoint{X: box.X + 120 + by, Y: box.Y + box.Height - 50}
	}
	p.Touch.MustStart(at(0))
	for k := range 8 {
		p.Touch.MustMove(at(float64(10 * (k + 1))))
	}
	p.Touch.MustEnd()
	p.until("the view turned", `was => [...document.querySelectorAll(".tag-letter")].map(e => e.style.transform).join() !== was`, was)
}

// Nonsense in every field is answered where it was typed, and stays there.
func TestNonsenseIsAnsweredInItsField(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Ring gate screen"))
	p.ready()
	good := p.tape("outside")
	for label, text := range map[string]string{"Width": "-4 ft", "Height": "<b>40</b>", "Bays": "3.5", "Rails": "999999999999999999999", "Lowest rail": "1/0", "Foot depth": "10000 ft"} {
		was := p.field(label).MustProperty("value").Str()
		p.write(label, text)
		p.wrong(label, " ")
		assert.Equal(t, text, p.field(label).MustProperty("value").Str())
		assert.Equal(t, good, p.tape("outside"), "the last good plan stays")
		p.write(label, was)
		p.until(
			label+" is good again",
			`l => { const f = [...document.querySelectorAll("label")].find(x => x.innerText === l); return document.getElementById(f.htmlFor).getAttribute("aria-invalid") === "false"; }`,
			label,
		)
	}
	p.write("How many", "none")
	p.until(
		"the count is marked",
		`() => [...document.querySelectorAll("label")].some(l => l.innerText === "How many" && document.getElementById(l.htmlFor).getAttribute("aria-invalid") === "true")`,
	)
	assert.Equal(t, good, p.tape("outside"))
	p.write("Project name", `<img src=x onerror="document.title='broken'">`)
	p.see("Saved")
	p.MustReload().MustWaitLoad()
	p.ready()
	assert.NotEqual(t, "broken", p.MustEval(`() => document.title`).Str())
	p.press("Sturdy Elbow")
	p.until("the name is words", `() => [...document.querySelectorAll(".card-name")].some(e => e.innerText.includes("<img"))`)
}

// A size on the frame takes another meaning there, and an unreadable length
// is answered there too.
func TestASizeIsSetOnTheFrame(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Club jump"))
	p.turning()
	p.click(`.size-label[title^="Width"]`)
	p.click(`.note [role=combobox][aria-label="What Width means"]`)
	p.click(`[role=option][data-value="outside"]`)
	p.tapeIs("outside", "51 1⁄16″ × 24″ × 36″") // centres 48 − 2 × 0.66 = 46.68; the bar stands out 2.2 at each end: 51.08
	f := p.MustElement(".note input")
	f.MustSelectAllText().MustInput("4 fot")
	p.until("the note says what is wrong", `() => document.querySelector(".note [role=alert]")?.innerText.includes("is not a unit")`)
	f.MustSelectAllText().MustInput("5'")
	p.tapeIs("outside", "63 1⁄16″ × 24″ × 36″")
	p.keys(input.Escape)
	p.until("the note is closed", `() => document.querySelector(".note") === null`)
	width := func() string { return p.field("Width").MustProperty("value").Str() }
	p.ctrl(input.KeyZ)
	require.Eventually(t, func() bool { return width() != "5'" }, patience, 20*time.Millisecond, "it is undone")
	if width() == "4 fot" {
		p.ctrl(input.KeyZ) // the two were not typed within a moment: each is a step
	}
	p.tapeIs("outside", "51 1⁄16″ × 24″ × 36″")
	p.choose("How lengths are shown", "metric")
	x, y := p.middle(
		`() => [...document.querySelectorAll(".grip")].find(e => e.title.endsWith("Width") && e.style.visibility === "visible") ?? null`,
	)
	require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x, y)))
	require.NoError(t, p.Mouse.Down(proto.InputMouseButtonLeft, 1))
	for k := range 6 {
		require.NoError(t, p.Mouse.MoveTo(proto.NewPoint(x+float64(5*k), y+float64(k))))
	}
	require.NoError(t, p.Mouse.Up(proto.InputMouseButtonLeft, 1))
	p.until(
		"the width is in whole millimetres",
		`() => { const l = [...document.querySelectorAll("label")].find(x => x.innerText === "Width"); return /^1[2-9]\d\d mm$/.test(document.getElementById(l.htmlFor).value); }`,
	)
	p.ctrl(input.KeyZ) // one pull is one step
	p.until(
		"pulled back in one step",
		`() => { const l = [...document.querySelectorAll("label")].find(x => x.innerText === "Width"); return document.getElementById(l.htmlFor).value === "4 ft"; }`,
	)
}

// A picture that is lost gives way to the drawing.
func TestALostPictureGivesWayToTheDrawing(t *testing.T) {
	w := open(t)
	p := w.window("/p/" + w.project("Octagon hoop"))
	p.turning()
	p.MustEval(`() => document.querySelector(".stage canvas").getContext("webgl2").getExtension("WEBGL_lose_context").loseContext()`)
	p.until("the drawing is there", `() => document.querySelectorAll(".stage svg .piece").length === 20`)
	p.write("Across", "30")
	p.changeIs("outside", "+2″ wide, +1″ high")
}
