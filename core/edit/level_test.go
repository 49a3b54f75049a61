package edit_test

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// oneMark is the distance up to which two places count as one.
const oneMark = measure.Inch / 500

// local gives the joints' coordinates in the frame's own axes, which lean with it.
func local(p *plan.Plan) map[string]measure.Point {
	f := &p.Frames[0]
	all := map[string]measure.Point{}
	for i, q := range f.Points() {
		if n := &f.Graph().Nodes[i]; len(n.Pipes) > 0 {
			all[n.ID] = f.Places[0].Local(q)
		}
	}
	return all
}

// torn says which joints were level along an axis of the frame, and are not any more.
func torn(was, now map[string]measure.Point) (bad []string) {
	for a := range measure.Axis(3) {
		ids := sortedIDs(was)
		slices.SortStableFunc(ids, func(x, y string) int { return int(was[x][a] - was[y][a]) })
		for i := 1; i < len(ids); i++ {
			p, q := ids[i-1], ids[i]
			_, here := now[p]
			_, there := now[q]
			if here && there && was[q][a]-was[p][a] <= oneMark && (now[q][a]-now[p][a]).Abs() > oneMark {
				bad = append(bad, fmt.Sprintf("along %s %s and %s are %.4f apart", a, p, q, (now[q][a]-now[p][a]).Inches()))
			}
		}
	}
	return bad
}

func sortedIDs(m map[string]measure.Point) (ids []string) {
	for id := range m {
		ids = append(ids, id)
	}
	slices.Sort(ids)
	return ids
}

// unlike says which pieces between the same two places, with equal stops and seats at both ends, are of two lengths.
func unlike(p *plan.Plan) (bad []string) {
	f := &p.Frames[0]
	at := f.Points()
	first := map[string]plan.Pipe{}
	for _, x := range f.Pipes {
		e := &f.Graph().Edges[f.Graph().Edge(x.Pipe)]
		u, v := f.Places[0].Local(at[e.Ends[0]]), f.Places[0].Local(at[e.Ends[1]])
		along, axes := measure.Axis(0), 0
		for a := range measure.Axis(3) {
			if (u[a] - v[a]).Abs() > oneMark {
				along, axes = a, axes+1
			}
		}
		if axes != 1 || e.Path != frame.Straight || x.Class != "" {
			continue
		}
		ends := []string{}
		for k, n := range e.Ends {
			ends = append(ends, fmt.Sprint(f.Places[0].Local(at[n])[along].Round(4*oneMark), at[n].Distance(x.Bare[k]).Round(4*oneMark)))
		}
		slices.Sort(ends)
		key := fmt.Sprint(along, x.Size, ends)
		if was, ok := first[key]; !ok {
			first[key] = x
		} else if was.Cut != x.Cut {
			bad = append(bad, fmt.Sprintf("%s is %s and %s is %s", was.Pipe, was.Cut.Tape(measure.Inches), x.Pipe, x.Cut.Tape(measure.Inches)))
		}
	}
	return bad
}

// begunWith are the frames of a starter: as it begins, and with each count least, one more, and larger.
func begunWith(t require.TestingT, s starter.Starter) (all []*frame.Document) {
	answers := []map[string]starter.Answer{nil}
	for _, p := range s.Prompts {
		if p.Input != starter.Count || p.Key == "lean" {
			continue
		}
		for _, n := range []int{p.Least, p.Least + 1, min(p.Most, p.Least+3)} {
			answers = append(answers, map[string]starter.Answer{p.Key: {Text: strconv.Itoa(n)}})
		}
	}
	for _, a := range answers {
		doc, err := s.Build(measure.Inches, a)
		require.NoError(t, err, "%s %v", s.ID, a)
		all = append(all, &doc)
	}
	return all
}

// Whatever is added to a starter's frame like what is there, at the press of a button and nothing else, is like it: the
// bay is as large as the last, what was level is level, and equal pieces are cut alike.
func TestABayIsLikeTheOneItIsLike(t *testing.T) {
	t.Parallel()
	tried, made := 0, 0
	for _, s := range starter.All() {
		for k, doc := range begunWith(t, s) {
			before := (&hand{t: t, doc: doc}).plan()
			was := local(before)
			for a := range measure.Axis(3) {
				planes := before.Frames[0].Places[0].Planes[a]
				if len(planes) < 2 {
					continue
				}
				last := planes[len(planes)-1]
				at := len(planes) - 2
				for at >= 0 && last.At-planes[at].At <= oneMark {
					at--
				}
				for _, like := range planes {
					half, _, err := plan.Edit(
						context.Background(), doc, edit.Edit{Gesture: &edit.Insert{Axis: a, After: like.Ref, Like: like.Ref}}, nil,
					)
					if err == nil && k == 0 && like.Ref != last.Ref {
						now := (&hand{t: t, doc: half}).plan()
						assert.Empty(t, torn(was, local(now)), "%s, along %s, half-way from %s", s.ID, a, like.Ref)
						assert.Empty(t, unlike(now), "%s, along %s, half-way from %s", s.ID, a, like.Ref)
					}
					tried++
					next, _, err := plan.Edit(
						context.Background(), doc, edit.Edit{Gesture: &edit.Insert{Axis: a, After: last.Ref, Like: like.Ref}}, nil,
					)
					if err != nil {
						continue
					}
					made++
					name := fmt.Sprintf("%s %d, along %s, another %s", s.ID, k, a, like.Ref)
					now := (&hand{t: t, doc: next}).plan()
					assert.Empty(t, torn(was, local(now)), name)
					assert.Empty(t, unlike(now), name)
					place := &now.Frames[0].Places[0]
					i, k := place.Find(a, planes[at].Ref), place.Find(a, last.Ref)
					bay := place.Planes[a][k].At - place.Planes[a][i].At
					assert.True(t, slices.ContainsFunc(place.Planes[a], func(l layout.Plane) bool {
						return !slices.ContainsFunc(l.Joints, func(id string) bool { _, old := was[id]; return old }) &&
							(l.At-place.Planes[a][k].At-bay).Abs() <= oneMark
					}), "%s stands as far from the last as that from the one before it, %s", name, bay.Tape(measure.Inches))
				}
			}
		}
	}
	t.Logf("%d of %d were made", made, tried)
	assert.Greater(t, made, 100)
}

// Cutting a pipe in two moves nothing: what was typed means the same with a coupling or a tee more.
func TestASplitMovesNothing(t *testing.T) {
	t.Parallel()
	for _, s := range starter.All() {
		for k, doc := range begunWith(t, s) {
			was := local((&hand{t: t, doc: doc}).plan())
			every := doc
			moved := func(what string, next *frame.Document) {
				now := local((&hand{t: t, doc: next}).plan())
				var first *measure.Point
				for _, id := range sortedIDs(was) {
					if p, here := now[id]; here {
						by := p.Sub(was[id])
						if first == nil {
							first = &by
						}
						assert.LessOrEqual(t, by.Sub(*first).Distance(measure.Point{}), oneMark, "%s %d, %s: %s moved", s.ID, k, what, id)
					}
				}
			}
			h := &hand{t: t, doc: doc}
			g, drawn := h.plan().Frames[0].Graph(), map[[2]string]bool{}
			for _, x := range h.plan().Frames[0].Pipes {
				e := &g.Edges[g.Edge(x.Pipe)]
				if key := [2]string{g.Scopes[e.Scope].Of, e.Drawn.ID}; drawn[key] { // one of a part is all of them
					continue
				} else {
					drawn[key] = true
				}
				if next, _, err := plan.Edit(context.Background(), doc, edit.Edit{Gesture: &edit.Split{Pipe: x.Pipe}}, nil); err == nil &&
					k == 0 {
					moved("split "+x.Pipe, next)
				}
				if next, _, err := plan.Edit(context.Background(), every, edit.Edit{Gesture: &edit.Split{Pipe: x.Pipe}}, nil); err == nil {
					every = next
				}
			}
			moved("all split", every)
			for a := range measure.Axis(3) {
				for _, l := range h.plan().Frames[0].Places[0].Planes[a] {
					if next, _, err := plan.Edit(context.Background(), doc, edit.Edit{Gesture: &edit.Insert{Axis: a, After: l.Ref, Split: true}}, nil); err == nil {
						moved(fmt.Sprintf("split along %s after %s", a, l.Ref), next)
					}
				}
			}
		}
	}
}

// What was measured to a cap is measured to the coupling that takes its place, and that is said.
func TestACapThatGoesIsSaid(t *testing.T) {
	h := nothing(t)
	h.doc = starterOf(t, "jump")
	planes := h.plan().Frames[0].Places[0].Planes[measure.Z]
	done := h.do(edit.Edit{Gesture: &edit.Insert{Axis: measure.Z, After: planes[len(planes)-1].Ref, Like: planes[len(planes)-1].Ref}})
	assert.Contains(
		t,
		done.Also,
		`Upright height 36 floor to cap top ends at a fitting now, where a pipe's end was: what hangs on it moves by 29/64"`,
	)
}

// The whole that is asked for is the whole that stands, also where the first joint of the outermost level is a pipe's bare
// end, and the fittings beside it stand out further.
func TestTheWholeIsMeasuredOverAllThatStandsThere(t *testing.T) {
	h := nothing(t)
	h.doc.Size = "1"
	h.walk("", "down 10 cut") // j1 is a bare end, j2 below it an elbow
	h.walk("j2", "right 20 cut")
	h.walk("j3", "up 10 cut")
	for a, typed := range map[measure.Axis]string{measure.X: "22 outside", measure.Z: "12 outside"} {
		h.do(edit.Edit{Gesture: &edit.Overall{Axis: a, Length: typed}, Answers: []string{"size s1", "size s2", "size s3"}})
		want, _ := measure.Parse(typed[:2], measure.Reading{})
		assert.Equal(t, want, h.plan().Frames[0].Overall[a].Size, "%s", typed)
	}
}

// Two uprights that were cut an eighth apart are told, and the fix makes their levels one, once it is said what gives way.
func TestLevelsThatAreNearlyOneAreMadeOne(t *testing.T) {
	h := nothing(t)
	h.walk("", "right 40 cut")
	h.walk("j1", "up 20 cut")
	h.walk("j2", "up 20 1/8 cut")
	h.walk("j3", "away 10 cut")
	h.walk("j4", "away 10 cut")
	apart := func() *finding.Finding {
		p := h.plan()
		if i := slices.IndexFunc(p.Findings, func(f finding.Finding) bool { return f.Code == "levels-apart" }); i >= 0 {
			return &p.Findings[i]
		}
		return nil
	}
	found := apart()
	require.NotNil(t, found)
	var fix edit.Edit
	require.NoError(t, json.Unmarshal(found.Fixes[0].Edits[0].Value, &fix))
	_, _, err := plan.Edit(context.Background(), h.doc, fix, nil)
	var q *edit.Question
	require.ErrorAs(t, err, &q, "both were typed")
	fix.Answers = []string{q.Options[0].ID}
	h.do(fix)
	assert.Nil(t, apart())
	assert.Empty(t, unlike(h.plan()))
}
