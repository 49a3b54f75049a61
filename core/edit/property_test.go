package edit_test

import (
	"cmp"
	"context"
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/plan"
)

// look is what a frame comes to, without names, letters and where it stands:
// its pieces, fittings, sizes, links, checks, classes and holds.
func look(t require.TestingT, d *frame.Document) string {
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "shear"},
		shop(),
		plan.Work{},
	)
	require.NoError(t, err)
	f := &p.Frames[0]
	var out []string
	for _, x := range f.Pipes {
		out = append(out, fmt.Sprintf("pipe %s %s %s %s", x.Size, rounded(x.Exact), x.Class, x.Path))
	}
	for _, x := range p.Fittings {
		out = append(out, fmt.Sprintf("fitting %s %s %d", x.Kind, x.Size, x.Count))
	}
	for a := range f.Overall {
		out = append(out, fmt.Sprintf("outside %d %s", a, rounded(f.Overall[a].Size)))
	}
	for _, z := range f.Sizes {
		if !z.Inferred {
			out = append(out, fmt.Sprintf("size %s %s %s", z.Text, z.Is, rounded(z.Out)))
		}
	}
	for _, l := range f.Links {
		out = append(out, fmt.Sprintf("link %s", l.Kind))
	}
	for _, c := range f.ClearanceChecks {
		out = append(out, fmt.Sprintf("check %s %v", c.ID, c.Slack))
	}
	for _, i := range f.Insertions {
		out = append(out, fmt.Sprintf("held %s", i.Mode))
	}
	for _, x := range p.Findings {
		if slices.Contains([]string{"sizes-contradict", "too-short", "no-fitting", "zero-length", "turned-round"}, x.Code) {
			out = append(out, "finding "+x.Code)
		}
	}
	slices.Sort(out)
	return strings.Join(out, "\n")
}

func rounded(l measure.Length) measure.Length { return l.Round(measure.Inch / 10000) }

// some draws a frame line by line: of few lengths, so that much comes to stand
// at one place; what is asked is answered by chance. made gives the lines.
func some(t *rapid.T, most int) (h *hand, made []edit.Edit) {
	h = nothing(t)
	for range rapid.IntRange(1, most).Draw(t, "lines") {
		var g edit.Gesture
		joints := []string{""}
		if len(h.doc.Root.Joints) > 0 {
			joints = joints[:0]
			for _, j := range h.doc.Root.Joints {
				joints = append(joints, j.ID)
			}
		}
		joint := func() string { return rapid.SampledFrom(joints).Draw(t, "joint") }
		switch rapid.IntRange(0, 9).Draw(t, "what") {
		case 0:
			g = &edit.Join{From: joint(), To: joint()}
		case 1:
			if len(h.doc.Root.Pipes) == 0 {
				continue
			}
			g = &edit.Split{
				Pipe:   rapid.SampledFrom(h.doc.Root.Pipes).Draw(t, "pipe").ID,
				Length: rapid.SampledFrom([]string{"", "4", "5 cut"}).Draw(t, "at"),
			}
		default:
			way := rapid.SampledFrom([]string{"right", "left", "up", "down", "away", "near", "up right", "right away"}).Draw(t, "way")
			long := rapid.SampledFrom([]string{"10 cut", "10 cut", "20 cut", "10", "12 clear", "14 outside", "9 visible", "8 slot", "30 top"}).
				Draw(t, "long")
			g = &edit.Walk{From: joint(), Line: way + " " + long}
		}
		e := edit.Edit{Gesture: g}
		for range 6 {
			doc, _, err := plan.Edit(context.Background(), h.doc, e, nil)
			var q *edit.Question
			if errors.As(err, &q) {
				e.Answers = append(e.Answers, q.Options[rapid.IntRange(0, len(q.Options)-1).Draw(t, "answer")].ID)
				continue
			}
			if err == nil {
				h.doc, made = doc, append(made, e)
			}
			break
		}
	}
	return h, made
}

// try makes a gesture and says whether it was made; what it asks is no.
func (h *hand) try(g edit.Gesture) bool {
	doc, done, err := plan.Edit(context.Background(), h.doc, edit.Edit{Gesture: g}, nil)
	if h.err = err; err != nil {
		return false
	}
	h.doc, h.done = doc, done
	return true
}

// apart makes a gesture; asked whether things that come close are to meet, it
// says no.
func (h *hand) apart(g edit.Gesture) bool {
	e := edit.Edit{Gesture: g}
	for {
		doc, done, err := plan.Edit(context.Background(), h.doc, e, nil)
		var q *edit.Question
		if !errors.As(err, &q) {
			if h.err = err; err == nil {
				h.doc, h.done = doc, done
			}
			return err == nil
		}
		i := slices.IndexFunc(q.Options, func(o edit.Option) bool { return strings.HasPrefix(o.ID, "apart") })
		if h.err = err; i < 0 {
			return false
		}
		e.Answers = append(e.Answers, q.Options[i].ID)
	}
}

// Grouping, taking the group apart, flipping twice, repeating once and giving a
// part a group of its own change no cut, size, link, check, class or hold.
func TestAPartIsWhatItWas(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, _ := some(t, 8)
		if len(h.doc.Root.Pipes) < 2 {
			return
		}
		pipe := func() string { return rapid.SampledFrom(h.doc.Root.Pipes).Draw(t, "pipe").ID }
		h.try(&edit.Link{Kind: frame.Clip, On: []string{pipe()}, Count: 2})
		h.try(&edit.Link{Kind: frame.Tie, On: []string{pipe(), pipe()}})
		h.try(&edit.Tolerance{Pipes: []string{pipe()}, Class: frame.Trim})
		h.try(&edit.ClearanceCheck{Name: "car", Kind: frame.Inside, Say: "40 x 30 x 30"})
		held := frame.ModeRule{Mode: frame.Slip}
		switch rapid.IntRange(0, 2).Draw(t, "held by") {
		case 0:
			held.Kind = rapid.SampledFrom([]catalog.Kind{"coupling", "tee", "elbow"}).Draw(t, "kind")
		case 1:
			held.Joint = h.doc.Root.Pipes[0].From
		}
		h.doc.ModeRules = []frame.ModeRule{held}
		h.doc.Followed = []string{pipe()}
		want := look(t, h.doc)
		if strings.Contains(want, "turned-round") || strings.Contains(want, "zero-length") || strings.Contains(want, "too-short") {
			return // there is no room for a pipe, and no gesture brings that anywhere
		}
		other := nothing(t)
		other.begin()
		if brought := other.try(&edit.Bring{From: *h.doc, On: "j1"}); !strings.Contains(want, "sizes-contradict") {
			require.True(t, brought, "%v", other.err)
			require.Equal(t, want, look(t, other.doc), "brought to an empty frame")
		} // what contradicts itself by a mode rule that no gesture made is asked about when it comes
		var joints []string
		for _, j := range h.doc.Root.Joints {
			if rapid.Bool().Draw(t, "in") {
				joints = append(joints, j.ID)
			}
		}
		if !h.try(&edit.MakeGroup{Name: "part", Joints: joints}) {
			return
		}
		require.Equal(t, want, look(t, h.doc), "grouped: %v", joints)
		require.GreaterOrEqual(t, frameOf(t, h.doc).Edge(h.doc.Followed[0]), 0, "what a pipe was cut to follows it")
		var inner []string
		for _, j := range joints {
			if rapid.Bool().Draw(t, "inner") {
				inner = append(inner, "part 1/"+j)
			}
		}
		if h.try(&edit.MakeGroup{In: "part 1", Name: "inner", Joints: inner}) {
			require.Equal(t, want, look(t, h.doc), "grouped inside: %v", inner)
			require.GreaterOrEqual(t, frameOf(t, h.doc).Edge(h.doc.Followed[0]), 0, "what a pipe was cut to follows it")
			if rapid.Bool().Draw(t, "apart again") {
				require.True(t, h.try(&edit.Ungroup{Part: "part 1/inner 1"}))
				require.Equal(t, want, look(t, h.doc), "ungrouped inside")
			}
		}
		axis := measure.Axis(rapid.IntRange(0, 2).Draw(t, "axis"))
		if h.try(&edit.Flip{Part: "part 1", Axis: axis}) {
			meets := func() bool { // it came to lie on something else, and says so
				return len(h.done.GivenUp) > 0 ||
					slices.ContainsFunc(h.done.Also, func(a string) bool { return strings.Contains(a, " meets ") })
			}
			if meets() {
				return
			}
			require.True(t, h.apart(&edit.Flip{Part: "part 1", Axis: axis}), "%v", h.err)
			if meets() {
				return // what a fitting had moved onto a pipe meets it when the part is set there anew
			}
			require.Equal(t, want, look(t, h.doc), "flipped twice")
		}
		if h.try(&edit.Repeat{Part: "part 1", Count: 2, Axis: axis, Pitch: "400"}) {
			require.True(t, h.try(&edit.Repeat{Part: "part 1#1", Count: 1}))
			require.Equal(t, want, look(t, h.doc), "repeated once")
		}
		if !h.try(&edit.Unique{Part: "part 1", Name: "own"}) {
			require.NoError(t, h.err)
		}
		require.Equal(t, want, look(t, h.doc), "unique")
		if h.try(&edit.Ungroup{Part: "part 1"}) {
			require.Equal(t, want, look(t, h.doc), "ungrouped")
		}
	})
}

func frameOf(t require.TestingT, d *frame.Document) *frame.Graph {
	g, err := frame.Expand(d)
	require.NoError(t, err)
	return g
}

// Deleting some at once is deleting one after the other, in any order.
func TestDeletingManyIsDeletingEach(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, _ := some(t, 9)
		var joints, pipes []string
		for _, j := range h.doc.Root.Joints {
			if rapid.IntRange(0, 3).Draw(t, "delete") == 0 {
				joints = append(joints, j.ID)
			}
		}
		for _, p := range h.doc.Root.Pipes {
			if rapid.IntRange(0, 3).Draw(t, "delete") == 0 {
				pipes = append(pipes, p.ID)
			}
		}
		if len(joints)+len(pipes) < 2 {
			return
		}
		start := h.doc
		if !h.try(&edit.Delete{Joints: joints, Pipes: pipes}) {
			return
		}
		together, held := h.doc, kept(h.done)
		var order []edit.Delete
		for _, j := range joints {
			order = append(order, edit.Delete{Joints: []string{j}})
		}
		for _, p := range pipes {
			order = append(order, edit.Delete{Pipes: []string{p}})
		}
		order = rapid.Permutation(order).Draw(t, "order")
		h.doc = start
		became := map[string]string{}
		for _, d := range order {
			for i, p := range d.Pipes {
				for became[p] != "" {
					p = became[p]
				}
				if d.Pipes[i] = p; h.doc.Root.Pipe(p) == nil {
					d.Pipes = nil
				}
			}
			for _, j := range d.Joints {
				if h.doc.Root.Joint(j) == nil {
					d.Joints = nil
				}
			}
			if len(d.Pipes)+len(d.Joints) == 0 {
				continue // it went with another one
			}
			if !h.try(&d) {
				return
			}
			held = held || kept(h.done)
			for _, also := range h.done.Also {
				var a, b string
				if n, _ := fmt.Sscanf(mention.ByID(also), "%s and %s are one pipe", &a, &b); n == 2 {
					became[b] = a
				}
			}
		}
		if held {
			require.Equal(t, bare(t, together), bare(t, h.doc), "joints %v, pipes %v, in the order %v", joints, pipes, order)
		} else {
			require.Equal(t, look(t, together), look(t, h.doc), "joints %v, pipes %v, in the order %v", joints, pipes, order)
		}
	})
}

// kept says whether a gesture kept something where it stood. Where that is
// depends on what was taken away before: a joint that loses its fitting moves,
// since the cuts at it hold.
func kept(done edit.Done) bool {
	return slices.ContainsFunc(done.Also, func(a string) bool {
		return strings.Contains(a, "it stood") || strings.Contains(a, "stays level") || strings.Contains(a, "keeps its place") ||
			strings.Contains(a, "are one pipe")
	})
}

// bare is what a frame has, without what depends on where something was kept:
// its pipes, how they meet, what was said of them, and its fittings where no
// pipe slopes as it happens to.
func bare(t require.TestingT, d *frame.Document) string {
	out := []string{fmt.Sprintf("%d pipes", len(d.Root.Pipes))}
	slopes := slices.ContainsFunc(d.Root.Pipes, func(p frame.Pipe) bool { return p.Dir == nil || p.Gave != nil })
	for _, l := range strings.Split(look(t, d), "\n") {
		if strings.HasPrefix(l, "size ") || !slopes && (strings.HasPrefix(l, "fitting ") || strings.HasPrefix(l, "held ")) {
			out = append(out, l)
		}
	}
	var degrees []int
	for _, n := range frameOf(t, d).Nodes {
		degrees = append(degrees, len(n.Pipes))
	}
	slices.Sort(degrees)
	return fmt.Sprintf("%s\n%v", strings.Join(out, "\n"), degrees)
}

// Where nothing contradicts, the same lines in another order are the same
// frame.
func TestTheOrderOfLinesDoesNotMatter(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		type line struct{ from, to, course string }
		var lines []line
		names := []string{"j1"}
		for k := range rapid.IntRange(2, 8).Draw(t, "lines") {
			l := line{rapid.SampledFrom(names).Draw(t, "from"), fmt.Sprintf("n%d", k),
				rapid.SampledFrom([]string{"right", "left", "up", "down", "away", "near", "up right"}).
					Draw(t, "way") +
					" " + rapid.SampledFrom([]string{"10 cut", "20 cut", "10", "12 clear", "14 outside", "9 visible", "8 slot", "30 top"}).
					Draw(t, "long"),
			}
			lines, names = append(lines, l), append(names, l.to)
		}
		draw := func(lines []line) (*hand, bool) {
			h := nothing(t)
			h.begin()
			for _, l := range lines {
				if !h.try(&edit.Walk{From: l.from, Line: l.course, Name: l.to}) || len(h.done.Also) > 0 {
					return h, false // something is met, or asked: names would differ
				}
			}
			return h, true
		}
		first, ok := draw(lines)
		if !ok {
			return
		}
		// another order in which every line begins at a joint that is there
		left, there := rapid.Permutation(lines).Draw(t, "order"), map[string]bool{"j1": true}
		var order []line
		for len(left) > 0 {
			i := slices.IndexFunc(left, func(l line) bool { return there[l.from] })
			order, there[left[i].to] = append(order, left[i]), true
			left = slices.Delete(left, i, i+1)
		}
		second, ok := draw(order)
		if !ok {
			return // it meets on the way what it did not in the first order
		}
		require.Equal(t, look(t, first.doc), look(t, second.doc), "%v\n%v", lines, order)
		byEnds := func(h *hand) map[string]measure.Length {
			all, name := map[string]measure.Length{}, map[string]string{}
			f := h.plan().Frames[0]
			for _, j := range f.Joints {
				name[j.ID] = j.Name
			}
			for _, p := range f.Pipes {
				from, to := name[p.From], name[p.To]
				all[min(from, to)+" "+max(from, to)] = rounded(p.Exact)
			}
			return all
		}
		require.True(t, maps.Equal(byEnds(first), byEnds(second)), "each pipe is what it was")
		require.True(t, cmp.Compare(len(first.doc.Root.Pipes), len(lines)) >= 0)
	})
}

// Undo is the document before: a gesture never changes the one it was given,
// and the same gesture on it gives the same again, question and all.
func TestAGestureIsMadeAgainTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		_, made := some(t, 6)
		again := nothing(t)
		for _, e := range made {
			doc, _, err := plan.Edit(context.Background(), again.doc, e, nil)
			require.NoError(t, err)
			again.doc = doc
			if len(e.Answers) > 0 {
				var q *edit.Question
				_, _, err := plan.Edit(context.Background(), again.doc, edit.Edit{Gesture: &edit.Keep{}}, nil)
				require.False(t, errors.As(err, &q))
			}
		}
		twice := nothing(t)
		for _, e := range made {
			doc, _, err := plan.Edit(context.Background(), twice.doc, e, nil)
			require.NoError(t, err)
			twice.doc = doc
		}
		require.Equal(t, again.doc, twice.doc)
	})
}

// Every typed size of a random frame holds or was named as giving way, and
// nothing that was accepted is a finding about the document's own rules.
func TestTypedSizesHoldInRandomFrames(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := nothing(t)
		for range rapid.IntRange(1, 4).Draw(t, "rounds") {
			more, made := some(t, 4)
			_ = more
			for _, e := range made {
				before := h.doc
				if w, ok := e.Gesture.(*edit.Walk); ok && len(before.Root.Joints) > 0 && before.Root.Joint(w.From) == nil {
					w.From = before.Root.Joints[0].ID
				}
				doc, done, err := settled(t, before, e.Gesture)
				if err != nil {
					continue
				}
				h.doc = doc
				holds(t, before, h, done)
			}
		}
	})
}
