package plan_test

import (
	"context"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/reading"
)

// rack is a square of 40 by 30 centre to centre.
func rack(t *testing.T) *frame.Document {
	d := &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Slip}
	for _, e := range []edit.Edit{{Gesture: &edit.Walk{Line: "right 40"}}, {Gesture: &edit.Walk{From: "j2", Line: "up 30"}}, {Gesture: &edit.Walk{From: "j3", Line: "left 40"}}, {Gesture: &edit.Join{From: "j4", To: "j1"}}} {
		var err error
		d, _, err = plan.Edit(context.Background(), d, e, nil)
		require.NoError(t, err)
	}
	return d
}

func planOf(t *testing.T, d *frame.Document, given map[string]measure.Length) *plan.Plan {
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1, Given: given}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	return p
}

func TestAListIsCheckedAgainstTheFrame(t *testing.T) {
	d := rack(t)
	p := planOf(t, d, nil)
	require.Nil(t, p.Frames[0].Check)
	cut := p.Frames[0].Pipes[0].Cut
	p = planOf(t, d, map[string]measure.Length{"p1": cut + measure.Inch})
	c := p.Frames[0].Check
	require.NotNil(t, c)
	require.Len(t, c.Loops, 1)
	require.Len(t, c.Seated, 3)
	assert.Greater(t, c.Seated[2].Gap, measure.Inch/2)
	assert.Equal(t, cut, p.Frames[0].Pipes[0].Cut, "the plan itself stays")
	var f *finding.Finding
	for i := range p.Findings {
		if p.Findings[i].Code == "list-open" {
			f = &p.Findings[i]
		}
	}
	require.NotNil(t, f)
	assert.Contains(t, f.Text, "across")
	require.Len(t, f.Fixes, 2)
	assert.Equal(t, "/frames/0/given/p1", f.Fixes[0].Edits[0].Path)
	// the fix, carried out, closes it
	p = planOf(t, d, map[string]measure.Length{"p1": c.Mends[0].Changes[0].To})
	assert.NotContains(t, codes(p), "list-open")
	assert.True(t, p.Frames[0].Check.Closed)
	p = planOf(t, d, map[string]measure.Length{"gone": 12 * measure.Inch})
	assert.Equal(t, []string{"gone"}, p.Frames[0].Check.Unknown)
	_, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1, Given: map[string]measure.Length{"p1": -1}}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	assert.ErrorContains(t, err, "/job/frames/0/given/p1")
}

func TestClassesOfTolerance(t *testing.T) {
	d := rack(t)
	set := func(e edit.Tolerance) {
		var err error
		d, _, err = plan.Edit(context.Background(), d, edit.Edit{Gesture: &e}, nil)
		require.NoError(t, err)
	}
	was := planOf(t, d, nil)
	set(edit.Tolerance{Pipes: []string{"p1"}, Class: frame.Trim})
	set(edit.Tolerance{Pipes: []string{"p2"}, Class: frame.OnFrame, Extra: "2"})
	p := planOf(t, d, nil)
	pipe := func(i int) plan.Pipe { return p.Frames[0].Pipes[i] }
	assert.Equal(t, pipe(0).Cut+measure.Inch/4, pipe(0).Ordered, "cut long by a quarter inch")
	assert.Equal(t, pipe(1).Cut+2*measure.Inch, pipe(1).Ordered)
	assert.True(t, pipe(1).Waits)
	assert.NotEqual(t, pipe(0).Letter, pipe(2).Letter, "two alike in the frame are no longer alike at the saw")
	assert.Equal(t, was.Totals.Net+measure.Inch/4+2*measure.Inch, p.Totals.Net, "what is held in reserve is bought")
	for _, g := range p.Cuts {
		assert.Equal(t, g.Cut, g.Sum.Total(), g.Letter)
	}
	for _, s := range p.Pipe[0].Sticks {
		for i, c := range s.Pieces {
			if c.Name == pipe(1).Letter {
				assert.Equal(t, len(s.Pieces)-1, i, "what waits is cut last")
			}
		}
	}
	set(edit.Tolerance{Pipes: []string{"p2"}, Class: frame.OnFrame, Measured: "28 3/4"})
	p = planOf(t, d, nil)
	assert.False(t, pipe(1).Waits)
	assert.Equal(t, measure.FromInches(28.75), pipe(1).Ordered)
	require.NotNil(t, p.Frames[0].Check, "and what was measured is checked against the rest")
	set(edit.Tolerance{Pipes: []string{"p1", "p2"}})
	assert.Empty(t, d.Tolerances)
	// a pipe that goes takes its class along
	set(edit.Tolerance{Pipes: []string{"p3"}, Class: frame.Rough})
	d, _, err := plan.Edit(context.Background(), d, edit.Edit{Gesture: &edit.Delete{Pipes: []string{"p3"}}}, nil)
	require.NoError(t, err)
	assert.Empty(t, d.Tolerances)
	for _, bad := range []edit.Tolerance{{Class: frame.Rough}, {Pipes: []string{"p9"}, Class: frame.Rough}, {Pipes: []string{"p1"}, Class: "fine"}, {Pipes: []string{"p1"}, Class: frame.Trim, Measured: "12"}, {Pipes: []string{"p1"}, Class: frame.Trim, Extra: "x"}} {
		_, _, err := plan.Edit(context.Background(), d, edit.Edit{Gesture: &bad}, nil)
		assert.Error(t, err)
	}
}

// Eight elbows and four pieces: more sockets than pipe ends, and of the four
// sixteens the frame takes two.
func TestADescribedBuildIsTheBudget(t *testing.T) {
	d := rack(t)
	p := planOf(t, d, nil)
	cut := p.Frames[0].Pipes[0].Cut
	have := reading.Read(
		"8 3/4\" elbows, 2 tees\n4 pieces at "+cut.Format(measure.InInches, 0)+"\n1 10 ft stick of 3/4 pipe\n2 three-ways",
		"3/4",
	)
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "saw", Have: have},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	b := p.Budget
	require.NotNil(t, b)
	assert.Equal(t, 1, b.Asks)
	left := map[string]int{}
	for _, l := range b.Lines {
		left[string(l.What)+" "+string(l.Kind)+" "+l.Length.Round(measure.Inch).String()] = l.Left()
	}
	assert.Equal(t, 4, left["fitting elbow-90 0\""])
	assert.Equal(t, 2, left["fitting tee 0\""])
	assert.Equal(t, 2, left["piece  39\""])
	assert.Equal(t, -2, left["piece  29\""], "two that the list does not have")
	require.Len(t, b.Balance, 1)
	assert.Equal(t, [2]int{8*2 + 2*3, 4 * 2}, [2]int{b.Balance[0].Sockets, b.Balance[0].Ends})
	assert.Subset(t, codes(p), []string{"list-asks", "sockets-left", "footage-short"})
	assert.Nil(t, planOf(t, d, nil).Budget)
}

// A bench on two long legs and one a hair shorter: it rocks by that, and says
// so; by a sixteenth and more it hovers.
func TestAFrameThatRocksSaysByHowMuch(t *testing.T) {
	for short, want := range map[string]string{"3 31/32": "rocks", "3 7/8": "hovers", "4": ""} {
		d := &frame.Document{Format: frame.Format, Units: measure.Inches, Size: "3/4", Mode: frame.Slip}
		for _, w := range []edit.Walk{{Line: "right 20"}, {From: "j2", Line: "away 20"}, {From: "j1", Line: "down 4 capped"}, {From: "j2", Line: "down 4 capped"}, {From: "j3", Line: "down " + short + " capped"}} {
			var err error
			d, _, err = plan.Edit(context.Background(), d, edit.Edit{Gesture: &w}, nil)
			require.NoError(t, err)
		}
		all := codes(planOf(t, d, nil))
		for _, code := range []string{"rocks", "hovers"} {
			assert.Equal(t, code == want, slices.Contains(all, code), "%s: %v", short, all)
		}
	}
}
