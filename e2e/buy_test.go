package e2e_test

import (
	"fmt"
	"testing"

	"github.com/go-rod/rod/lib/input"
	"github.com/stretchr/testify/assert"

	"sturdyelbow/internal/suppliers"
)

// setPrice types over a figure that is put right where it stands.
func (w *window) setPrice(what, text string) {
	w.press(what)
	w.MustElement(`input[aria-label="` + what + `"]`).MustSelectAllText().MustInput(text)
	w.keys(input.Enter)
}

// onList waits until a line of the shopping list is called so, or until none is.
func (w *window) onList(name string, is bool) {
	w.t.Helper()
	w.until(
		fmt.Sprintf("%q is on the list: %v", name, is),
		`(name, is) => [...document.querySelectorAll(".ware-name strong")].some((e) => e.textContent === name) === is`, name, is,
	)
}

// In the aisle: some are at home, some in the cart, a price is corrected as it is written on the
// shelf, what cannot be read stays with its reason, and no tick moves what is under the thumb.
func TestInTheAisle(t *testing.T) {
	p := open(t).window("/")
	p.press("Club jump")
	p.ready()
	p.MustSetViewport(390, 844, 2, true)
	p.lens("Buy")
	p.see("What to buy")
	top := func() int {
		return p.MustEval(`() => Math.round(document.querySelectorAll("[role=checkbox]")[1].getBoundingClientRect().top)`).Int()
	}
	before := top()
	p.click("[role=checkbox]")
	p.see("1 of ")
	p.until("it is sent", `() => !document.body.innerText.includes("waits on this device")`)
	assert.Equal(t, before, top(), "the first tick moves nothing")

	p.press("3/4 in tee")
	p.setPrice("3/4 in tee at home", "some")
	p.see("Write how many, like 8")
	p.keys(input.Escape)
	p.setPrice("3/4 in tee at home", "1")
	p.see("1 at home, ")
	p.press("One 3/4 in tee more in the cart")
	p.see("in the cart")
	p.press("One 3/4 in tee less in the cart")

	p.setPrice("Price of 3/4 in tee", "dear")
	p.see("not an amount of money")
	p.MustReload().MustWaitLoad()
	p.until("it is still typed", `() => document.querySelector('input[aria-label="Price of 3/4 in tee"]')?.value === "dear"`)
	p.MustElement(`input[aria-label="Price of 3/4 in tee"]`).MustSelectAllText().MustInput("3 for 2")
	p.keys(input.Enter)
	p.see("For every project, or for this one?")
	p.click(`dialog input[type=checkbox]`)
	p.press("Only this project")
	p.see("Price of 3/4 in tee: 3 for $2.00")
	p.see("What you change of prices and sticks is for this project only.")
	p.setPrice("Price of 3/4 in cap", ".50") // it is not asked again
	p.see("Price of 3/4 in cap: $0.50")
	p.press("Ask each time")
	p.setPrice("Price of 3/4 in pipe, 10' stick", "3")
	p.see("For every project, or for this one?")
	p.press("Leave it as it was")

	p.choose("Joints are cemented with", "one-step")
	p.choose("Spare fittings and bolts", "10000")
	p.see("1 spare among them")
	p.lens("Log")
	p.see("at home")
}

// Prices of many parts at once: pasted with a line that cannot be read, taken, and there in every
// project; and out as a file that is read again.
func TestManyPricesAtOnce(t *testing.T) {
	w := open(t)
	p := w.window("/prices")
	p.see("3/4 in tee")
	p.press("Paste or open a list")
	p.write("Where they are from", "Corner shop")
	p.write("A thing and its price a line", "3/4 tee .88\n3/4 pipe 10 ft 4.98\n3/4 tee, dear\n3/4 cap 10 for 6.98")
	p.press("Read it")
	p.see("1 line cannot be read")
	p.see("no price at its end")
	p.press("Take 3 prices")
	p.see("3 parts have new prices")
	p.until("the bad line stays", `() => document.querySelector("textarea")?.value === "3/4 tee, dear"`)
	p.see("Corner shop")
	p.press("Close")
	p.see("10 for $6.98")
	b := w.window("/p/" + w.project("Weave poles in two sizes") + "/buy")
	b.see("Price of 3/4 in cap: 10 for $6.98")
	b.see("4 left over")
	p.press("Undo")
	b.see("Price of 3/4 in cap: $0.79")
	p.choose("Currency", "EUR")
	p.see("Amounts are in EUR; none was converted")
	p.see("€0.79")
	p.press("Undo")
	p.see("$0.79")
	p.choose("Currency", "CAD")
	p.choose("Currency", "EUR")
	p.see("€0.79")
	w.window("/p/" + w.project("Weave poles in two sizes") + "/buy").see("Price of 3/4 in cap: €0.79")
	p.axe("prices")
}

// What if: variants stand side by side with what they come to, one that cannot be read says why, and
// one press takes one. The bill is held against a budget and a bought one.
func TestWhatIf(t *testing.T) {
	p := open(t).window("/")
	p.press("Club jump")
	p.ready()
	p.lens("Buy")
	before := p.tape("sticks")
	p.press("What if")
	p.choose("What is otherwise", "width")
	p.write("Were it", "6 ft")
	p.press("Set beside")
	p.see("Width: 6 ft")
	p.write("Were it", "six")
	p.press("Set beside")
	p.see("Width: six")
	p.see("is not a unit")
	p.choose("What is otherwise", "tool")
	p.choose("Were it", "shear")
	p.see("Cut with: Ratchet shear")
	p.tapeIs("sticks", before) // nothing is changed yet
	p.axe("variants")
	p.press("Let go: Width: six")
	p.press("Take it: Width: 6 ft")
	p.tapeIs("outside", "77 7⁄16″ × 24″ × 36″")
	p.press("Undo")
	p.tapeIs("outside", "53 7⁄16″ × 24″ × 36″")

	p.press("What it is worth")
	p.setPrice("Budget", "much")
	p.see("not an amount of money")
	p.keys(input.Escape)
	p.setPrice("Budget", "40")
	p.see("over the budget")
	p.setPrice("One like it, bought", "45")
	p.see("less than 2 of them bought")
	p.press("3/4 in cap")
	p.press("What it is worth")
	p.see("It could be left out")
}

// The line that costs most is pipe: other sticks, tools and sizes are planned, and what costs less is taken.
func TestPipeCostsMost(t *testing.T) {
	p := open(t).window("/")
	p.press("Winners' wall")
	p.ready()
	p.lens("Buy")
	p.press("What it is worth")
	p.see("of it is one line: 1 in pipe, 10′ stick.")
	p.press("What other sticks, tools, cement or sizes save")
	p.see("Cut with the ratchet shear: $3.99 less, 1 stick fewer")
	p.see("3/4 in pipe and its fittings")
	p.axe("what other sticks save")
	p.press("Take it: cut with the ratchet shear")
	p.changeIs("cost", "−$3.99")
	p.press("Undo")
	p.press("What other sticks, tools, cement or sizes save")
	p.press("Take it: 3/4 in pipe and its fittings")
	p.onList("3/4 in pipe, 10′ stick", true)
}

// The line that costs most is a fitting: what another in its place saves is asked there, and taken.
func TestWhatCostsMost(t *testing.T) {
	p := open(t).window("/")
	p.press("Kit cart")
	p.ready()
	p.lens("Buy")
	cost := p.tape("cost")
	p.press("What it is worth")
	p.see("of it is one line: 1 in side-outlet tee.")
	p.press("What another in its place saves")
	p.see("Up to $")
	p.axe("what another saves")
	p.press("Take it at 2 joints")
	p.until("the bill is another", "(was) => !document.body.innerText.includes(was)", cost)
	p.press("Undo")
	p.tapeIs("cost", cost)
}

// A corner fitting is not on the shelf: what could stand there is told with what it does, and taken for
// every joint of its kind; what was typed stays.
func TestNotHere(t *testing.T) {
	p := open(t).window("/")
	p.press("Scorekeeper's table")
	p.ready()
	outside := p.tape("outside")
	p.lens("Buy")
	p.see("side-outlet elbow")
	p.press("1 in side-outlet elbow")
	p.press("Not here")
	p.see("Two fittings that touch")
	p.see("the outside size stays")
	p.see("+4 1 in tee")
	p.axe("instead of it")
	p.press("Take it at 4 joints")
	p.until(
		"it is bought no more",
		`() => ![...document.querySelectorAll(".ware-name")].some((e) => e.innerText.includes("side-outlet elbow"))`,
	)
	p.tapeIs("outside", outside)
	p.see("1 in elbow")
	p.lens("Cut")
	p.see("hidden nipple")
	p.press("Undo")
	p.lens("Buy")
	p.see("side-outlet elbow")
}

// Shops side by side, one of them down: what each has not, the cheapest split, by a day; a list of the
// builder's own among them; and the project buys at one of them, alone.
func TestShopsCompared(t *testing.T) {
	w := open(t)
	b := w.window("/prices")
	b.press("Paste or open a list")
	b.write("Where they are from", "Corner shop")
	b.write("A thing and its price a line", "3/4 tee .10\n3/4 cap .10")
	b.press("Read it")
	b.press("Keep as the list of Corner shop")
	b.see("2 prices")
	b.setPrice("Days of Corner shop", "soon")
	b.see("Write how many days, like 3")
	b.keys(input.Escape)

	w.suppliers[1].Mood = suppliers.Down
	p := w.window("/p/" + w.project("Club jump") + "/buy")
	p.see("What to buy")
	p.press("Where to buy")
	p.see("Mill Lane Barn")
	p.see("Not asked: it does not answer now.")
	p.see("It has not: 4 × 3/4 in side-outlet tee")
	p.see("Cheapest split")
	p.see("Corner shop:")
	p.setPrice("Needed within", "0")
	p.see("too late")
	p.see("Not to be had: 4 × 3/4 in side-outlet tee")
	p.press("whenever")
	p.axe("shops compared")
	p.press("Buy at Longmeadow by Mail")
	p.see("the prices and sticks of Longmeadow by Mail")
	p.onList("3/4 in pipe, 5′ stick", true)
	// what is typed is on sale then, and nothing else
	p.press("Other lengths")
	p.write("Stick lengths on sale", "10 ft")
	p.keys(input.Enter)
	p.onList("3/4 in pipe, 5′ stick", false)
	p.onList("3/4 in pipe, 10′ stick", true)
	p.press("Undo: ")
	p.onList("3/4 in pipe, 5′ stick", true)
	p.press("Undo: ")
	p.onList("3/4 in pipe, 10′ stick", true)
	other := w.window("/p/" + w.project("Cavaletti") + "/buy")
	other.onList("3/4 in pipe, 10′ stick", true) // nothing is on sale there for every project
}

// A Saturday for two projects, on a laptop and a phone: prices from a list, the list ticked in the aisle by
// phone, together with what is at home; the saw on the laptop, a cut that goes wrong in one of them, and
// the phone goes on; what is left goes to the rack.
func TestASaturday(t *testing.T) {
	w := open(t)
	of := "/together?of=" + w.project("Club jump") + "," + w.project("Cavaletti")
	laptop := w.window("/prices")
	laptop.press("Paste or open a list")
	laptop.write("A thing and its price a line", "3/4 pipe 10 ft 4.98\n3/4 pipe 5 ft 3.10\n3/4 tee .88\n3/4 cap 3 for 2\n3/4 hat 1")
	laptop.press("Read it")
	laptop.press("Take 4 prices")
	laptop.see("4 parts have new prices")

	phone := w.window(of)
	phone.MustSetViewport(390, 844, 2, true)
	phone.see("What to buy")
	phone.see("3 for $2.00")
	phone.press("3/4 in tee")
	phone.setPrice("3/4 in tee at home", "3")
	phone.see("3 at home, ")
	for phone.MustEval(`() => [...document.querySelectorAll(".ware .tick")].some((e) => e.getAttribute("aria-checked") !== "true")`).Bool() {
		phone.MustEval(`() => [...document.querySelectorAll(".ware .tick")].find((e) => e.getAttribute("aria-checked") !== "true").click()`)
		phone.settled()
	}
	phone.see("Everything is there.")

	laptop.MustNavigate(w.url + of).MustWaitLoad()
	laptop.see("Everything is there.")
	laptop.press("At the saw")
	for range 3 {
		laptop.cutIt()
	}
	laptop.press("Leave the saw")
	laptop.see(", 3 of ")
	phone.see(", 3 of ")

	own := w.window("/p/" + w.project("Cavaletti") + "/cut#saw")
	own.see("to go")
	own.press("Cut wrong …")
	own.until(
		"it can be asked",
		`() => [...document.querySelectorAll("button")].some((b) => b.textContent === "It is of no use" && !b.disabled)`,
	)
	own.press("It is of no use")
	own.see("Throw it away")
	own.press("Throw it away")
	own.see("to go")

	phone.press("At the saw")
	phone.see("to go")
	phone.cutIt()
	phone.press("Leave the saw")
	phone.see(", 4 of ")
	own.press("Leave the saw")
	own.lens("Log")
	own.see("poilt")
}
