package e2e_test

import (
	"testing"

	"github.com/go-rod/rod/lib/input"
)

// A frame whose four pieces fill a stick to its last bit with a shear: the edge is told on the
// stick, what takes it off is offered and priced, and each press is taken back.
func TestAStickIsTakenOffItsKnifeEdge(t *testing.T) {
	d := open(t).blank()
	d.line("right 32 7/16 outside", 1)
	d.line("j2: up 32 7/16 outside", 2)
	d.line("left level with j1", 3)
	d.line("down to j1", 4)
	d.lens("Cut")
	d.press("Cut with: Ratchet shear")
	d.see("Stick 1, 10′, on a knife edge")
	d.see("1 stick is on a knife edge")
	d.see("4 × A cut up to 1/16\" shorter: 1/16\" less wide, 1/16\" less high, every loop closes; costs nothing more")
	d.press("Let A be up to 1/16\" shorter")
	d.gone("on a knife edge")
	d.see("29 15⁄16″")
	d.ctrl(input.KeyZ)
	d.see("Stick 1, 10′, on a knife edge")
	d.press("Buy one more 5' stick")
	d.gone("on a knife edge")
	d.tapeIs("sticks", "2")
	d.see("bought besides, as a spare.")
	d.press("Leave it out: 1 × 5′")
	d.tapeIs("sticks", "1")
	d.gone("as a spare")
	d.ctrl(input.KeyZ)
	d.tapeIs("sticks", "2")
	d.ctrl(input.KeyZ)
	d.tapeIs("sticks", "1")

	// a target size an eighth smaller keeps off the edge too, and it is said what gives way
	d.lens("Buy")
	d.lens("Cut")
	d.press("What would each spoilt cut cost?")
	d.see("4 of 4 cuts would cost a stick if it is spoilt")
	d.see("the worst to spoil: measure twice")
}

// The car takes 5 ft: nonsense is refused beside its field, and then every stick of 10 ft is cut in
// the shop, at a mark that is told.
func TestSticksAreCutForTheCar(t *testing.T) {
	p := open(t).window("/")
	p.press("Puppy jump")
	p.turning()
	p.lens("Buy")
	p.press("Say what the car takes")
	p.write("Longest it takes", "6o")
	p.keys(input.Enter)
	p.see("is no stick length; write it like 10 ft")
	p.write("Longest it takes", "5 ft")
	p.write("Then, each", "a dime")
	p.keys(input.Enter)
	p.see("not an amount of money; write it like")
	p.write("Then, each", "0.25")
	p.write("Cuts free", "2")
	p.keys(input.Enter)
	p.see("For every project, or for this one?")
	p.see("that no stick holds") // the tunnel's hoops
	p.press("Every project")
	p.see("The car takes 60″; a cut in the shop may be off by 1⁄8″, 2 are free, then $0.25 each.")
	p.see("cut in the shop")
	p.see("For the counter: please cut")
	p.see("cut at 60″ from one end; to carry 60″, 59 7⁄8″")
	p.lens("Cut")
	p.see("Cut in the shop at 60″ from one end; carried as 60″, 59 7⁄8″.")
	p.lens("Buy")
	p.press("Any length")
	p.press("Every project")
	p.see("Sticks are carried as they are.")
	p.lens("Cut")
	p.gone("Cut in the shop")
}

// One press has the sticks halved in the shop: each is drawn as the halves that are carried, with
// what each leaves.
func TestSticksAreHalved(t *testing.T) {
	p := open(t).window("/")
	p.press("Puppy jump")
	p.turning()
	p.lens("Buy")
	p.press("Have them halved in the shop")
	p.press("Only this project")
	p.see("The car takes 60″")
	p.lens("Cut")
	p.see("60″ to carry")
	p.see("59 7⁄8″ to carry")
	p.axe("halves")
	p.lens("Buy")
	p.press("Undo")
	p.see("Sticks are carried as they are.")
}

// A stick that measures otherwise than it is named: what it yields follows, and its price is that
// of its name.
func TestAStickIsAsLongAsItMeasures(t *testing.T) {
	p := open(t).window("/")
	p.press("Kit cart")
	p.turning()
	p.lens("Buy")
	p.press("Other lengths")
	p.write("Stick lengths on sale", "10 ft = 120 1/4, 5 ft = long")
	p.keys(input.Enter)
	p.see("is no stick length")
	p.write("Stick lengths on sale", "10 ft = 120 1/4, 5 ft")
	p.keys(input.Enter)
	p.see("For every project, or for this one?")
	p.press("Only this project")
	p.see("10′ that measures 120 1⁄4″")
	p.press("Other lengths")
	p.write("Stick lengths on sale", p.field("Stick lengths on sale").MustProperty("value").Str()+", 2 ft") // it reads what it shows
	p.keys(input.Enter)
	p.see("2′")
	p.see("10′ that measures 120 1⁄4″")
}
