package edit_test

import (
	"context"
	"errors"
	"fmt"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/plan"
)

// spot is a joint of a structure, by its places along the three axes, counted from 0.
type spot [3]int

// bar is a pipe of a structure between two of its spots, along the axis, the second spot further on.
type bar struct {
	from, to spot
	cut      measure.Length
}

// structure is a frame whose joints stand on a lattice, which is to be drawn.
type structure []bar

// anyStructure is a wall, a ladder, a box, a tower or a tree, with some of its pipes left out, whose cuts close.
func anyStructure(t *rapid.T) structure {
	var many [3]int
	loops := true
	switch kind := rapid.SampledFrom([]string{"wall", "ladder", "box", "tower", "tree"}).Draw(t, "kind"); kind {
	case "wall":
		many = [3]int{rapid.IntRange(2, 4).Draw(t, "columns"), 1, rapid.IntRange(2, 4).Draw(t, "rows")}
	case "ladder":
		many = [3]int{2, 1, rapid.IntRange(3, 6).Draw(t, "rungs")}
	case "box":
		many = [3]int{2, 2, 2}
	case "tower":
		many = [3]int{2, 2, 3}
	case "tree":
		many, loops = [3]int{3, 2, 4}, false
	}
	apart := [3][]measure.Length{}
	for a, n := range many {
		for range n {
			apart[a] = append(apart[a], rapid.SampledFrom([]measure.Length{in(9), in(12), in(14.5), in(24)}).Draw(t, "apart"))
		}
	}
	var all structure
	reached := map[spot]bool{{}: true}
	for len(all) == 0 {
		var maybe structure
		for x := range many[0] {
			for y := range many[1] {
				for z := range many[2] {
					for a, at := range []int{x, y, z} {
						if at+1 == many[a] {
							continue
						}
						from := spot{x, y, z}
						to := from
						to[a]++
						maybe = append(maybe, bar{from: from, to: to})
					}
				}
			}
		}
		maybe = rapid.Permutation(maybe).Draw(t, "pipes")
		for again := true; again; { // what hangs together with what there is
			again = false
			for i, b := range maybe {
				one, other := reached[b.from], reached[b.to]
				if !one && !other || one && other && (!loops || rapid.IntRange(0, 9).Draw(t, "left out") == 0) {
					continue
				}
				reached[b.from], reached[b.to] = true, true
				all, maybe, again = append(all, b), slices.Delete(maybe, i, i+1), true
				break
			}
		}
	}
	all = all.withoutCouplings()
	doc, _ := all.document(func(b bar) frame.Size {
		long := measure.Length(0)
		for a := range b.from {
			for k := b.from[a]; k < b.to[a]; k++ {
				long += apart[a][k]
			}
		}
		return frame.Size{Value: long, Meaning: frame.Centre}
	})
	l := located(t, doc)
	for i := range all {
		ends := frame.PipeEnd{Pipe: i}
		all[i].cut = l.Lengths[i] - l.Fits.TakeOff(ends)
		ends.End = 1
		all[i].cut -= l.Fits.TakeOff(ends)
	}
	return all
}

// withoutCouplings makes one pipe of two that go on straight where nothing else is.
func (s structure) withoutCouplings() structure {
	for {
		merged := false
		for i, b := range s {
			k := slices.IndexFunc(s, func(c bar) bool { return c.from == b.to })
			at := 0
			for _, c := range s {
				if c.from == b.to || c.to == b.to {
					at++
				}
			}
			if at == 2 && k >= 0 && s[k].axis() == b.axis() {
				s[i].to = s[k].to
				s, merged = slices.Delete(s, k, k+1), true
				break
			}
		}
		if !merged {
			return s
		}
	}
}

func (b bar) axis() int {
	for a := range b.from {
		if b.from[a] != b.to[a] {
			return a
		}
	}
	return 0
}

// document is a structure as a document, with a size for each pipe; the names of its joints are those of the spots.
func (s structure) document(size func(bar) frame.Size) (*frame.Document, map[spot]string) {
	doc := &frame.Document{Format: frame.Format, Name: "Frame", Units: measure.Inches, Size: "3/4", Mode: frame.Cemented}
	names := map[spot]string{}
	for _, b := range s {
		for _, at := range []spot{b.from, b.to} {
			if names[at] == "" {
				names[at] = doc.AddJoint(&doc.Root, frame.Joint{End: frame.FreeEnd})
			}
		}
		dir := measure.Dir{}
		dir[b.axis()] = 1
		z := size(b)
		z.Rank = doc.NextRank()
		z.Unit, z.Text = measure.Inches, inches(z.Value)
		z.Pipe = doc.AddPipe(&doc.Root, frame.Pipe{From: names[b.from], To: names[b.to], Dir: &dir, Rank: z.Rank})
		doc.AddSize(&doc.Root, z)
	}
	return doc, names
}

// inches writes a length exactly.
func inches(l measure.Length) string {
	return strconv.FormatFloat(float64(l)/float64(measure.Inch), 'f', -1, 64)
}

func located(t require.TestingT, doc *frame.Document) *model.Located {
	l, err := model.Locate(context.Background(), doc, typical)
	require.NoError(t, err)
	return l
}

var ways = [3][2]string{{"left", "right"}, {"near", "away"}, {"down", "up"}}

// drawn makes a gesture that asks nothing; but where the cuts do not close yet, and nothing that is drawn shows which
// coupling becomes a tee, it may ask for that, and is told.
func (h *hand) drawn(e edit.Edit, text string) {
	doc, done, err := plan.Edit(context.Background(), h.doc, e, nil)
	var q *edit.Question
	if errors.As(err, &q) {
		require.Regexp(h.t, "^Meet .*, with (a tee|tees) at ", q.Options[0].Label, "%s\n%s", q.What, text)
		e.Answers = q.Options[0].Answers()
		doc, done, err = plan.Edit(context.Background(), h.doc, e, nil)
	}
	require.NoError(h.t, err, text)
	h.doc, h.done = doc, done
}

// A structure is drawn pipe by pipe, each by its cut or joined to what is there, in any order and from either end. Where its
// cuts close, nothing is asked, every pipe that arrives at a joint meets it, and every piece is as it was typed.
func TestAStructureIsDrawnInAnyOrder(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		for range 3 {
			drawnInAnyOrder(t)
		}
	})
}

func drawnInAnyOrder(t *rapid.T) {
	left := anyStructure(t)
	all := len(left)
	drawn := 0
	h := nothing(t)
	names := map[spot]string{left[rapid.IntRange(0, all-1).Draw(t, "first")].from: h.begin()}
	text, pieces := "", map[string]measure.Length{}
	for len(left) > 0 {
		var next structure // what hangs together with what is drawn
		for _, b := range left {
			if names[b.from] != "" || names[b.to] != "" {
				next = append(next, b)
			}
		}
		b := rapid.SampledFrom(next).Draw(t, "next")
		left = slices.DeleteFunc(left, func(c bar) bool { return c == b })
		drawn++
		from, to, way := b.from, b.to, 1
		if names[from] == "" || names[to] != "" && rapid.Bool().Draw(t, "turned round") {
			from, to, way = to, from, 0
		}
		line := ways[b.axis()][way] + " " + inches(b.cut) + " cut"
		text += fmt.Sprintf("%s: %s\n", names[from], line)
		var g edit.Gesture = &edit.Walk{From: names[from], Line: line}
		if names[to] != "" && rapid.IntRange(0, 2).Draw(t, "joined") == 0 {
			g = &edit.Join{From: names[from], To: names[to]}
			text += "joined to " + names[to] + "\n"
		}
		h.drawn(edit.Edit{Gesture: g}, text)
		pieces[h.done.Pipe] = b.cut
		if names[to] == "" {
			names[to] = h.done.Joint
		}
		require.Equal(t, names[to], h.done.Joint, text)
		require.Empty(t, h.done.GivenUp, text)
		require.Len(t, h.doc.Root.Pipes, drawn, text)
		require.Len(t, h.doc.Root.Joints, len(names), text)
	}
	for _, j := range h.doc.Root.Joints {
		require.Nil(t, j.Fitting, "%s waits for nothing any more\n%s", j.ID, text)
	}
	for _, p := range h.doc.Root.Pipes {
		require.NotNil(t, p.Dir, "%s runs straight, however it was drawn\n%s", p.ID, text)
	}
	cuts := map[string]measure.Length{}
	for _, p := range h.plan().Frames[0].Pipes {
		cuts[p.Pipe] = p.Cut
	}
	require.Len(t, cuts, all)
	for pipe, cut := range pieces {
		require.LessOrEqual(t, (cuts[pipe] - cut).Abs(), measure.Inch/32, "%s\n%s", pipe, text)
	}
}
