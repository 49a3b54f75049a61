package floor_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/floor"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
)

// stool has four capped legs; the last, at d, ends so far above the floor.
func stool(t *testing.T, short string) []finding.Finding {
	b := modeltest.Built(t, `{"wireframe":1,"joints":{"a":[0,0,20],"b":[20,0,20],"c":[20,20,20],"d":[0,20,20],
		"a0":[0,0,0],"b0":[20,0,0],"c0":[20,20,0],"d0":[0,20,`+short+`]},
		"pipes":[["a","b"],["b","c"],["c","d"],["d","a"],["a","a0"],["b","b0"],["c","c0"],["d","d0"]]}`,
		func(d *frame.Document) {
			for i := range d.Root.Joints {
				if j := &d.Root.Joints[i]; len(j.ID) == 2 {
					j.End = frame.CappedEnd
				}
			}
		})
	return floor.Judge(b, nil)
}

func TestAStoolStands(t *testing.T) {
	assert.Empty(t, stool(t, "0"))
}

func TestAShortLegHovers(t *testing.T) {
	found := stool(t, "0.5")
	require.Len(t, found, 1)
	assert.Equal(t, "hovers", found[0].Code)
	assert.Equal(t, finding.Warn, found[0].Severity)
	assert.Equal(t, finding.All(finding.Joint, "d0"), found[0].Subjects)
	assert.InDelta(t, float64(measure.Inch/2), found[0].Figures[1].Value, 1)
}

// A leg that is short by less than a step of the tape makes the frame rock.
func TestALegAHairShortRocks(t *testing.T) {
	found := stool(t, "0.03")
	require.Len(t, found, 1)
	assert.Equal(t, "rocks", found[0].Code)
	assert.Equal(t, finding.Note, found[0].Severity)
}

// An upright square stands on one rail, until wheels widen its footing.
func TestASquareStandsOnALine(t *testing.T) {
	b := modeltest.Built(t, modeltest.Square, nil)
	found := floor.Judge(b, nil)
	require.Len(t, found, 1)
	assert.Equal(t, "stands-on-a-line", found[0].Code)
	wheel := fitting.Contact{Joint: "axle 1", At: measure.Point{20 * measure.Inch, 12 * measure.Inch, b.Floor}}
	assert.Empty(t, floor.Judge(b, []fitting.Contact{wheel}))
}

// Two uprights on feet of their own, the second with its foot so high.
func twoFeet(t *testing.T, high string, change func(d *frame.Document)) []string {
	b := modeltest.Built(t, `{"wireframe":1,"joints":{"f":[0,-10,0],"h":[0,0,0],"g":[0,10,0],"t":[0,0,40],
		"f2":[30,-10,`+high+`],"h2":[30,0,`+high+`],"g2":[30,10,`+high+`],"t2":[30,0,40]},
		"pipes":[["f","h"],["h","g"],["h","t"],["f2","h2"],["h2","g2"],["h2","t2"],["t","t2"]]}`, change)
	var codes []string
	for _, f := range floor.Judge(b, nil) {
		codes = append(codes, f.Code)
	}
	return codes
}

func TestAFootThatHangsIsFound(t *testing.T) {
	assert.NotContains(t, twoFeet(t, "0", nil), "hangs")
	assert.Contains(t, twoFeet(t, "6", nil), "hangs", "the other stands on the floor")
	assert.Contains(t, twoFeet(t, "0.9", nil), "hovers", "less than an inch hovers")
	assert.NotContains(t, twoFeet(t, "0.9", nil), "hangs")
}

// A leg that is shorter than the others hangs; an arm that hangs from above is none of the feet.
func TestALegThatHangsIsFound(t *testing.T) {
	found := stool(t, "6")
	require.NotEmpty(t, found)
	assert.Equal(t, "hangs", found[0].Code)
	assert.Equal(t, finding.All(finding.Joint, "d0"), found[0].Subjects)
}

// A line of uprights over stakes does not rock: the stakes hold it.
func TestWhatIsStakedDoesNotRock(t *testing.T) {
	line := `{"wireframe":1,"joints":{"a":[0,0,0],"b":[0,0,30],"c":[40,0,30],"d":[40,0,0]},"pipes":[["a","b"],["b","c"],["c","d"]]}`
	codes := func(end frame.End) (all []string) {
		b := modeltest.Built(t, line, func(d *frame.Document) {
			for i := range d.Root.Joints {
				if id := d.Root.Joints[i].ID; id == "a" || id == "d" {
					d.Root.Joints[i].End = end
				}
			}
		})
		for _, f := range floor.Judge(b, nil) {
			all = append(all, f.Code)
		}
		return all
	}
	assert.Contains(t, codes(frame.CappedEnd), "stands-on-a-line")
	assert.Empty(t, codes(frame.StakedEnd))
}
