package model

import (
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
)

// chase is a size that is sought so that another one holds: how high a hoop stands, whose side is
// as long as its builder said. It is found by the secant method, as one number of one unknown.
type chase struct {
	size, target string // their ids
	want         measure.Length
	value        measure.Length // tried last
	before, had  measure.Length // tried before that, and what the target came to then
	tried        int
}

// chaseRounds bounds how often a size is tried.
const chaseRounds = 40

// chaseEnough is how near the size that is to hold must come.
const chaseEnough = 200 * measure.Nanometre

// chases lists the sizes of a frame that are sought. Those of the document are not touched: the
// frame gets sizes of its own, which change.
func chases(g *frame.Graph) (all []*chase) {
	own := map[string]*frame.Size{}
	for i := range g.Sizes {
		z := &g.Sizes[i]
		if z.Solves == "" || z.Gave != nil {
			continue
		}
		if own[z.ID] == nil {
			c := *z.Size
			own[z.ID] = &c
			ch := &chase{size: z.ID, target: z.Solves, value: z.Value}
			for k := range g.Sizes {
				if g.Sizes[k].ID == z.Solves {
					ch.want = g.Sizes[k].Value
				}
			}
			all = append(all, ch)
		}
		z.Size = own[z.ID]
	}
	return all
}

// step tries another value, by what the target came to. It reports whether it holds.
func (c *chase) step(g *frame.Graph, s *layout.Solution) bool {
	got := measure.Length(-1)
	for i := range s.Sizes {
		if s.Sizes[i].ID == c.target {
			got = s.Sizes[i].Out
		}
	}
	if got < 0 || (got-c.want).Abs() <= chaseEnough {
		return true
	}
	slope := 1.0
	if c.tried > 0 && c.value != c.before && got != c.had {
		slope = float64(got-c.had) / float64(c.value-c.before)
	}
	next := c.value + measure.Length(float64(c.want-got)/slope)
	next = min(max(next, c.value/2, measure.Inch/4), 2*c.value) // no leap: the curve is a curve only so far
	c.before, c.had, c.value = c.value, got, next
	c.tried++
	for i := range g.Sizes {
		if g.Sizes[i].ID == c.size {
			g.Sizes[i].Value = next
		}
	}
	return false
}
