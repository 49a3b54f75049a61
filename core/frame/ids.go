package frame

import (
	"fmt"
)

// Free gives an id that nothing has yet: the prefix with the next number.
func Free(prefix string, taken func(id string) bool) string {
	for n := 1; ; n++ {
		if id := fmt.Sprintf("%s%d", prefix, n); !taken(id) {
			return id
		}
	}
}

// Numbers are those that ids made next get, of each kind. A document's own are none: each id
// gets the lowest number that is free. Whoever draws a frame from lines gives each line numbers
// of its own, so that a name belongs to the line that made it.
type Numbers struct {
	Joints, Pipes Span
	Said          Span // of sizes and reasons, which share their numbers
	// Above is the highest number by which a joint is shown whose id is none: a joint of the frame's own that is made anew
	// gets a higher one, unless its line had its number before.
	Above int
}

// Span is numbers from From to before To, and when those are used up, from Then on. The zero
// value is all numbers.
type Span struct{ From, To, Then int }

// free gives an id that nothing has yet: the prefix with the next number of the span.
func (s Span) free(prefix string, taken func(id string) bool) string {
	for n := max(1, s.From); ; n++ {
		if s.To > 0 && n == s.To {
			n = max(n, s.Then)
		}
		if id := fmt.Sprintf("%s%d", prefix, n); !taken(id) {
			return id
		}
	}
}

// FreeJoint gives an id for another joint of a definition.
func (d *Document) FreeJoint(def *Definition) string {
	span := d.Numbers.Joints
	if above := d.Numbers.Above + 1; def == &d.Root && span.To == 0 {
		span.From = max(span.From, above)
	} else if def == &d.Root {
		span.Then = max(span.Then, above)
	}
	return span.free("j", func(id string) bool { return def.Joint(id) != nil || def.Use(id) != nil })
}

// FreePipe gives an id for another pipe of a definition.
func (d *Document) FreePipe(def *Definition) string {
	return d.Numbers.Pipes.free("p", func(id string) bool { return def.Pipe(id) != nil })
}

// FreeSize gives an id for another size: one that no size ever had.
func (d *Document) FreeSize() string {
	taken := map[string]bool{}
	d.EachSize(func(_ *Definition, s *Size) { taken[s.ID] = true })
	return d.serial("s", func(id string) bool { return taken[id] })
}

// FreeReason gives an id for another reason.
func (d *Document) FreeReason() string {
	return d.serial("r", func(id string) bool { return d.Names(nil, ReasonRef, id) })
}

func (d *Document) serial(prefix string, taken func(id string) bool) string {
	for {
		d.Serial++
		if s := d.Numbers.Said; s.To > 0 && d.Serial == s.To {
			d.Serial = max(s.To, s.Then)
		}
		if id := fmt.Sprintf("%s%d", prefix, d.Serial); !taken(id) {
			return id
		}
	}
}

// NextRank is the rank of what is said now: after all that was said before.
func (d *Document) NextRank() int {
	rank := 0
	for _, def := range d.Definitions() {
		for i := range def.Pipes {
			rank = max(rank, def.Pipes[i].Rank)
		}
		for i := range def.Reasons {
			rank = max(rank, def.Reasons[i].Rank)
		}
		for i := range def.Uses {
			rank = max(rank, def.Uses[i].Rank)
		}
	}
	d.EachSize(func(_ *Definition, s *Size) { rank = max(rank, s.Rank) })
	return rank + 1
}
