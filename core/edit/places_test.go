package edit_test

import (
	"context"
	"fmt"
	"path"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model"
)

// clipped draws a rail of 40 in with a post at each end, and clips at the places given.
func clipped(t *testing.T, places ...string) *hand {
	h := nothing(t)
	h.walk(h.walk(h.walk(h.begin(), "up 10"), "right 40 centre"), "down 10")
	for _, at := range places {
		h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{at}}})
	}
	return h
}

// spots are the points of the clips, and how each is said.
func spots(t require.TestingT, d *frame.Document) (at []measure.Point, says []string) {
	l, err := model.Locate(context.Background(), d, catalog.Typical())
	require.NoError(t, err)
	for i := range l.Graph.Links {
		b := &l.Graph.Links[i]
		s := l.Spot(b.On[0])
		require.True(t, s.On, "%s is on its pipe", b.ID)
		from := l.Graph.Nodes[l.Graph.Edges[b.On[0].Pipe].Ends[b.On[0].End]].ID
		at, says = append(at, s.At), append(says, l.Graph.Edges[b.On[0].Pipe].ID+" at "+b.Link.On[0].Says(from))
	}
	return at, says
}

func told(done edit.Done) (all []string) {
	for _, g := range done.GivenUp {
		all = append(all, mention.ByID(g.Was+" → "+g.Now+", "+g.Words))
	}
	return all
}

// A pipe that is split and made one again carries its places with it: each stays where it
// is, as it was typed, or says how it is measured now.
func TestPlacesStayWhereTheyAre(t *testing.T) {
	h := clipped(
		t,
		"p2 at 10",
		"p2 at 30",
		"p2 at 10 from j3",
		"p2 at 30 from j3",
		"p2 at 25 from the face of j3 on the front",
		"p2 at 30 from the end of j2",
	)
	was, says := spots(t, h.doc)
	assert.Equal(t, []string{
		"p2 at 10 from j2", "p2 at 30 from j2", "p2 at 10 from j3", "p2 at 30 from j3", "p2 at 25 from the face of j3, on the front", "p2 at 30 from the end of j2",
	}, says)

	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p2", Length: "20 centre"}})
	now, says := spots(t, h.doc)
	assert.Equal(t, was, now, "where they were")
	assert.Equal(t, []string{
		"p2 at 10 from j2", "p4 at 10\" from j5", "p4 at 10 from j3", "p2 at 10\" from j5", "p2 at 6 9/32\" from j5, on the front", "p4 at 10 9/16\" from j5",
	}, says)
	assert.Contains(t, told(h.done), "clip 2 at 30 from j2 → 10\" from j5, the pipe was split")
	assert.Equal(t, frame.Front, h.doc.Root.Links[4].On[0].Side)

	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{"j5"}}})
	now, says = spots(t, h.doc)
	assert.Equal(t, was, now, "one pipe again")
	assert.Equal(t, "p2 at 10 from j2", says[0])
	assert.Equal(t, "p2 at 10 from j3", says[2])
	assert.Contains(t, strings.Join(told(h.done), "\n"), "became one pipe")
	assert.NotContains(t, strings.Join(h.done.Also, "\n"), "goes")
}

// A place says from which end it is measured when its pipe becomes part of one that runs
// the other way.
func TestAPlaceKeepsTheEndThatItIsMeasuredFrom(t *testing.T) {
	h := nothing(t)
	h.walk(h.walk(h.walk(h.begin(), "up 10"), "right 40 centre"), "down 10")
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p2", Length: "15 centre"}})
	h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p4"}}})
	back := h.do(edit.Edit{Gesture: &edit.Join{From: "j3", To: "j5"}}).Pipe
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{back + " at 6"}}})
	was, says := spots(t, h.doc)
	assert.Equal(t, []string{back + " at 6 from j3"}, says)
	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{"j5"}}})
	now, says := spots(t, h.doc)
	assert.Equal(t, was, now)
	assert.Equal(t, []string{"p2 at 6 from j3"}, says)
	assert.NotContains(t, strings.Join(told(h.done), "\n"), "clip", "as it was typed")
}

// Two fittings where one stood: places on the pipe that the second stands on are where they were, from whichever end, and on
// the nipple where that is.
func TestPlacesStayWhereTheCornerBecomesTwoFittings(t *testing.T) {
	h := nothing(t)
	h.begin()
	h.walk("j1", "right 40 centre")
	h.walk("j1", "away 30 centre")
	h.walk("j1", "up 20 centre")
	for _, on := range []string{"p1 at 10", "p1 at 1/4", "p1 at 10 from j2"} {
		h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{on}}})
	}
	was, _ := spots(t, h.doc)
	h.do(edit.Edit{Gesture: &edit.Apart{Joint: "j1", Along: measure.X, Move: measure.Z}})
	now, says := spots(t, h.doc)
	assert.Equal(t, was, now)
	nipple := h.done.Pipe
	assert.Equal(t, []string{"p1 at 7 7/16\" from j5", nipple + " at 1/4 from j1", "p1 at 10 from j2"}, says)
	assert.Contains(t, told(h.done), "clip 1 at 10 from j1 → 7 7/16\" from j5, the pipe was split")
}

// On a hoop a place is along the curve, and stays there when the crown gets a tee.
func TestPlacesOnAHoopFollowTheCurve(t *testing.T) {
	h := nothing(t)
	h.walk(h.begin(), "hoop right 60 rise 24")
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{"p1 at 12"}}})
	h.do(edit.Edit{Gesture: &edit.Link{Kind: frame.Clip, On: []string{"p1 at 60"}}})
	was, _ := spots(t, h.doc)
	assert.Greater(t, was[0][2], measure.Inch*6, "up the hoop")
	h.do(edit.Edit{Gesture: &edit.Split{Pipe: "p1"}})
	now, _ := spots(t, h.doc)
	for i := range was {
		assert.Less(t, was[i].Distance(now[i]), measure.Inch/2, "clip %d: only the hoop itself is another at its crown", i+1)
	}
}

// Whatever is split, taken away and sized: a place is where it was as long as the ends of
// its pipe are.
func TestPlacesThroughSplitsAndDeletions(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h, _ := some(t, 8)
		pipe := func() frame.Pipe { return rapid.SampledFrom(h.doc.Root.Pipes).Draw(t, "pipe") }
		for range 4 {
			if len(h.doc.Root.Pipes) > 0 {
				p := pipe()
				from := rapid.SampledFrom([]string{"", " from " + p.From, " from " + p.To, " from the face of " + p.To}).Draw(t, "from")
				h.try(
					&edit.Link{Kind: frame.Clip, On: []string{fmt.Sprintf("%s at %d%s", p.ID, rapid.IntRange(1, 19).Draw(t, "at"), from)}},
				)
			}
		}
		for range rapid.IntRange(1, 5).Draw(t, "gestures") {
			if len(h.doc.Root.Pipes) == 0 {
				return
			}
			var g edit.Gesture
			switch rapid.IntRange(0, 4).Draw(t, "gesture") {
			case 0:
				g = &edit.Delete{Joints: []string{rapid.SampledFrom(h.doc.Root.Joints).Draw(t, "joint").ID}}
			case 1:
				g = &edit.Delete{Pipes: []string{pipe().ID}}
			case 2:
				axis := rapid.Custom(func(t *rapid.T) measure.Axis { return measure.Axis(rapid.IntRange(0, 2).Draw(t, "axis")) })
				g = &edit.Apart{
					Joint: rapid.SampledFrom(h.doc.Root.Joints).Draw(t, "joint").ID,
					Along: axis.Draw(t, "along"),
					Move:  axis.Draw(t, "move"),
				}
			default:
				g = &edit.Split{Pipe: pipe().ID, Length: rapid.SampledFrom([]string{"", "4", "5 cut"}).Draw(t, "length")}
			}
			before := h.doc
			if !h.apart(g) {
				continue
			}
			nothingLost(t, before, h.doc, g, h.done)
			placesKept(t, before, h.doc, g, h.done)
			placesStand(t, before, h.doc, g)
		}
	})
}

// placesStand wants that a place is where it was, where its pipe had both its ends before
// and neither of them has moved.
func placesStand(t require.TestingT, before, after *frame.Document, g edit.Gesture) {
	locate := func(d *frame.Document) *model.Located {
		l, err := model.Locate(context.Background(), d, catalog.Typical())
		require.NoError(t, err)
		return l
	}
	was, now := locate(before), locate(after)
	for i := range was.Graph.Links {
		k := slices.IndexFunc(now.Graph.Links, func(l frame.ResolvedLink) bool { return l.ID == was.Graph.Links[i].ID })
		if k < 0 {
			continue
		}
		a, b := was.Graph.Links[i].On[0], now.Graph.Links[k].On[0]
		if was.Curves[a.Pipe] != nil || a.Datum != frame.FromCentre {
			continue // a hoop is another with a tee at its crown; a rim moves with what stands there
		}
		stood := !slices.ContainsFunc(was.Graph.Edges[a.Pipe].Ends[:], func(n int) bool {
			m := now.Graph.Node(was.Graph.Nodes[n].ID)
			return m >= 0 && was.Points[n] != now.Points[m]
		}) && !slices.ContainsFunc(now.Graph.Edges[b.Pipe].Ends[:], func(n int) bool {
			m := was.Graph.Node(now.Graph.Nodes[n].ID)
			return m >= 0 && was.Points[m] != now.Points[n]
		})
		p, q := was.Spot(a), now.Spot(b)
		turned := p.Along.Cross(q.Along)
		if stood && p.On && turned.Dot(turned) < 1e-12 { // two that were nearly in line are one that lies between
			require.True(t, q.On, "%s: %v is off its pipe after %T%+v", now.Graph.Links[k].ID, q, g, g)
			require.LessOrEqual(t, p.At.Distance(q.At), measure.Inch/1000, "%s: %v became %v by %T%+v", now.Graph.Links[k].ID, p, q, g, g)
		}
	}
}

// placesKept wants that a place along a pipe is still as it was typed, from the joint it
// was typed from, or is told of in what was done.
func placesKept(t require.TestingT, before, after *frame.Document, g edit.Gesture, done edit.Done) {
	if renames(g) {
		return
	}
	told := strings.Join(append(told(done), done.Also...), "\n")
	was, now := placesOf(t, before), placesOf(t, after)
	for id, places := range was {
		if _, there := now[id]; !there || slices.Equal(places, now[id]) {
			continue // what goes is looked at by nothingLost
		}
		for k, p := range places {
			renamed := after.Root.Joint(p.from) == nil // by a joint that it met
			if q := now[id][k]; p != q && !(renamed && p.at == q.at && p.datum == q.datum) {
				require.Contains(t, mention.ByID(told), path.Base(id), "%v became %v in silence with %T%+v", p, q, g, g)
			}
		}
	}
}

type placed struct {
	from  string
	at    measure.Length
	datum frame.Datum
}

// placesOf are the places along pipes of the frame's own links, by the links.
func placesOf(t require.TestingT, d *frame.Document) map[string][]placed {
	g := frameOf(t, d)
	all := map[string][]placed{}
	for i := range g.Links {
		l := &g.Links[i]
		for _, a := range l.On {
			p := placed{fmt.Sprint(a.Node), a.At, a.Datum}
			if a.Node < 0 {
				p.from = g.Nodes[g.Edges[a.Pipe].Ends[a.End]].ID
			} else {
				p.from = g.Nodes[a.Node].ID
			}
			all[l.ID] = append(all[l.ID], p)
		}
	}
	return all
}

// 5 cut from one end leaves no pipe on the other side of a joint on a piece that is 5 cut.
func TestAPipeIsNotSplitBeyondItsEnd(t *testing.T) {
	h := nothing(t)
	h.walk(h.walk(h.begin(), "up right 5 cut"), "right 20")
	for _, from := range []string{"j1", "j2"} {
		require.False(t, h.try(&edit.Split{Pipe: "p1", From: from, Length: "5 cut"}), from)
		assert.ErrorContains(t, h.err, "ends beyond the pipe")
	}
	require.True(t, h.try(&edit.Split{Pipe: "p1", From: "j2", Length: "2 cut"}), "%v", h.err)
}
