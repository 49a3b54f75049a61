package floor

import (
	"cmp"
	"slices"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/together"
)

// foot is what a single upright stands on, or would: the pipe's own end, or a hub with what lies level with it.
type foot struct {
	joint int            // the lowest, of the smallest number
	alone bool           // it is the upright's own end
	low   measure.Length // of its lowest body
	above measure.Length // where the upright's other end is
}

// feet finds what a single upright runs down to, with nothing below it: joints that level pipes join, from which one pipe
// leads up and none down. Its cost is linear in the pipes.
func feet(b *model.Built) (all []foot) {
	level := together.New(len(b.Graph.Nodes))
	for i := range b.Graph.Edges {
		e := &b.Graph.Edges[i]
		if (b.Points[e.Ends[0]][2] - b.Points[e.Ends[1]][2]).Abs() <= layout.OneMark {
			level.Join(e.Ends[0], e.Ends[1], 0)
		}
	}
	up, down, above := map[int]int{}, map[int]int{}, map[int]measure.Length{}
	for i := range b.Graph.Edges {
		e := &b.Graph.Edges[i]
		lo, hi := e.Ends[0], e.Ends[1]
		if b.Points[lo][2] > b.Points[hi][2] {
			lo, hi = hi, lo
		}
		if level.Root(lo) != level.Root(hi) {
			up[level.Root(lo)]++
			above[level.Root(lo)] = b.Points[hi][2]
			down[level.Root(hi)]++
		}
	}
	at, size := map[int]*foot{}, map[int]int{}
	for j := range b.Graph.Nodes {
		r := level.Root(j)
		if up[r] != 1 || down[r] != 0 || len(b.Graph.Nodes[j].Pipes) == 0 {
			continue
		}
		low := b.Points[j][2] - b.Fits.Extent(j, measure.Dir{0, 0, -1})
		if size[r]++; at[r] == nil {
			at[r] = &foot{joint: j, low: low}
		} else if low < at[r].low {
			at[r].joint, at[r].low = j, low
		}
	}
	for r, f := range at {
		f.alone, f.above = size[r] == 1, above[r]
		all = append(all, *f)
	}
	slices.SortFunc(all, func(x, y foot) int { return cmp.Compare(x.joint, y.joint) })
	return all
}

// hangs finds feet that hang in the air by an inch and more, where others of their kind, whose uprights come down from the
// same level, stand on the floor. What hangs lower than that is a contact that hovers. On wheels, and with legs that slide,
// a frame stands as it is moved: nothing is said of it.
func hangs(b *model.Built) (all []foot) {
	for i := range b.Graph.Links {
		if k := b.Graph.Links[i].Kind; k == frame.Axle || k == frame.Telescope {
			return nil
		}
	}
	found := feet(b)
	for _, f := range found {
		stands := slices.ContainsFunc(found, func(o foot) bool {
			return o.alone == f.alone && (o.above-f.above).Abs() <= layout.OneMark && o.low-b.Floor <= rocksFrom
		})
		if f.low-b.Floor >= measure.Inch && stands && b.Graph.Nodes[f.joint].End != frame.StakedEnd {
			all = append(all, f)
		}
	}
	return all
}
