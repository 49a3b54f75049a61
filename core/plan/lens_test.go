package plan_test

import (
	"context"
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
)

// A kind is only known once the fittings are found: what is set for every tee
// reaches the plan, the seats, and a file written of it.
func TestAKindOfFittingLeftDry(t *testing.T) {
	job := build(t, "jump", nil)
	doc := &job.Frames[0].Document
	doc.ModeRules = []frame.ModeRule{{Kind: catalog.Tee, Mode: frame.Slip}}
	p := make1(t, job)
	f := &p.Frames[0]
	kind := map[string]catalog.Kind{}
	for _, j := range f.Joints {
		kind[j.ID] = j.Kind
	}
	dry := 0
	for _, i := range f.Insertions {
		assert.Equal(t, kind[i.Joint] == catalog.Tee, i.Mode == frame.Slip, i.ID)
		if i.Mode == frame.Slip {
			dry++
			assert.Equal(t, 0.85, i.Seat)
			assert.Equal(t, "set for every tee", i.Reason)
		}
	}
	assert.Equal(t, 6, dry, "three sockets at each of two tees")
	assert.Equal(t, 6, p.Totals.Dry)
	// the post's middle piece ends in a tee: 15 % of a socket of 0.719 stays empty
	cemented := make1(t, build(t, "jump", nil))
	assert.Equal(t, measure.FromInches(0.719*0.15), exact(cemented, "cup.l-top.l")-exact(p, "cup.l-top.l"))

	data, lost, err := wireframe.Write(f.Graph(), f.Points())
	require.NoError(t, err)
	assert.Empty(t, lost)
	again, err := wireframe.Read(data)
	require.NoError(t, err)
	assert.Equal(t, p.Totals.Dry, make1(t, plan.Job{Frames: []plan.FrameUse{{Document: *again, Copies: 1}}, Tool: "saw"}).Totals.Dry)
}

// Every pipe of the first copy knows its stick, and each stick gives the
// lengths that are asked of it.
func TestEveryPipeKnowsItsStick(t *testing.T) {
	job := build(t, "screen", map[string]starter.Answer{"width": {Text: "12 ft"}, "bays": {Text: "3"}, "rails": {Text: "3"}})
	for _, copies := range []int{1, 3} {
		job.Frames[0].Copies = copies
		p := make1(t, job)
		have := map[int]map[measure.Length]int{}
		for _, m := range p.Pipe {
			for n, s := range m.Sticks {
				have[n+1] = map[measure.Length]int{}
				for _, piece := range s.Pieces {
					have[n+1][piece.Length]++
				}
			}
		}
		used := 0
		for _, pipe := range p.Frames[0].Pipes {
			require.Positive(t, pipe.Stick, pipe.Pipe)
			have[pipe.Stick][pipe.Cut]--
			assert.GreaterOrEqual(t, have[pipe.Stick][pipe.Cut], 0, "stick %d has no more pieces of %s", pipe.Stick, pipe.Cut)
			used++
		}
		assert.Equal(t, p.Totals.Pieces, used*copies)
	}
}

func TestPartsNameTheUsesOfGroups(t *testing.T) {
	p := make1(t, build(t, "screen", map[string]starter.Answer{"bays": {Text: "1"}}))
	var paths []string
	for _, part := range p.Frames[0].Instances {
		paths = append(paths, part.Path+" "+part.Group)
	}
	assert.Equal(t, []string{"left post", "left/foot foot", "right post", "right/foot foot"}, paths)
}

func fixes(p *plan.Plan, code string) (all []finding.Fix) {
	for _, f := range p.Findings {
		if f.Code == code {
			all = append(all, f.Fixes...)
		}
	}
	return all
}

// A bar at 2 in leaves no room above the foot. The fix that is offered is a
// height at which it goes together, and an eighth less does not.
func TestTheFixForATooShortPieceIsTheLeastThatWorks(t *testing.T) {
	for _, tc := range []struct {
		starter, key, text string
	}{{"jump", "bar", "3"}, {"jump", "foot", "2"}, {"screen", "low", "1 3/4"}, {"table", "depth", "2"}} {
		job := build(t, tc.starter, map[string]starter.Answer{tc.key: {Text: tc.text}})
		p := make1(t, job)
		require.Contains(t, codes(p), "too-short", tc.starter)
		offered := fixes(p, "too-short")
		require.NotEmpty(t, offered, "%s %s", tc.starter, tc.key)
		path := offered[0].Edits[0].Path
		const prefix = "/frames/0/document/sizes/"
		require.Equal(t, prefix, path[:len(prefix)])
		var text string
		require.NoError(t, json.Unmarshal(offered[0].Edits[0].Value, &text))
		value, err := measure.Parse(text, measure.Reading{Unit: measure.Inches})
		require.NoError(t, err)
		still := func(l measure.Length) bool {
			d := job.Frames[0].Document.Clone()
			d.SizeOf(path[len(prefix):]).Value = l
			q := make1(t, plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "saw"})
			return len(fixes(q, "too-short")) >= len(offered) && q.Findings[0].Code == "too-short"
		}
		assert.False(t, still(value), "%s %s: %s mends it", tc.starter, tc.key, value)
		assert.True(t, still(value-measure.Inch/8), "%s %s: less than %s does not", tc.starter, tc.key, value)
	}
}

func TestTheFixForTooLongAPipeIsALongerStick(t *testing.T) {
	p := make1(t, build(t, "jump", map[string]starter.Answer{"width": {Text: "15 ft"}}))
	offered := fixes(p, "no-stock")
	require.Len(t, offered, 2, "or a coupling")
	assert.Equal(t, "Buy 20' sticks", offered[0].Label)
	assert.Equal(t, "/shop/stock/-", offered[0].Edits[0].Path)
	var l plan.StockLength
	require.NoError(t, json.Unmarshal(offered[0].Edits[0].Value, &l))
	shop := plan.ExampleShop()
	shop.Stock = append(shop.Stock, l)
	mended, err := plan.Make(context.Background(), build(t, "jump", map[string]starter.Answer{"width": {Text: "15 ft"}}), shop, plan.Work{})
	require.NoError(t, err)
	assert.NotContains(t, codes(mended), "no-stock")
	assert.Contains(t, codes(mended), "stick-without-price", "and it is said that the new length has no price yet")
	assert.NotEmpty(t, mended.Bill.Unpriced)
	longer := fixes(make1(t, build(t, "jump", map[string]starter.Answer{"width": {Text: "30 ft"}})), "no-stock")
	require.Len(t, longer, 1, "no usual stick is that long")
	assert.Equal(t, "Join two pieces with a coupling", longer[0].Label)
}

// Tools with one kerf buy alike, and every tool of the shop is counted.
func TestEveryToolIsCounted(t *testing.T) {
	p := make1(t, build(t, "jump", nil))
	require.Len(t, p.Tools, len(plan.Tools()))
	by := map[measure.Length]procure.ToolCount{}
	for _, c := range p.Tools {
		if d, ok := by[c.Kerf]; ok {
			assert.Equal(t, d.Sticks, c.Sticks)
			assert.Equal(t, d.Cost, c.Cost)
		}
		by[c.Kerf] = c
	}
	assert.Len(t, by, 4)
}

func exact(p *plan.Plan, pipe string) measure.Length {
	for _, x := range p.Frames[0].Pipes {
		if x.Pipe == pipe {
			return x.Exact
		}
	}
	return 0
}
