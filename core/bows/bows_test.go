package bows_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/bows"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
)

// hoops are sprung pipes of 3/4 over the spans given, 40 in apart, each a half circle: their
// ends stand upright and they are π/2 times the span long.
func hoops(t *testing.T, spans ...string) []finding.Finding {
	joints, pipes := "", ""
	for i, s := range spans {
		if y := []string{"0", "40", "80"}[i]; i >= 0 {
			id := string(rune('a' + i))
			joints += `"` + id + `":[0,` + y + `,0],"` + id + `2":[` + s + `,` + y + `,0],`
			pipes += `["` + id + `","` + id + `2"],`
		}
	}
	b := modeltest.Built(t, `{"wireframe":1,"joints":{`+joints[:len(joints)-1]+`},"pipes":[`+pipes[:len(pipes)-1]+`]}`,
		func(d *frame.Document) {
			up := measure.Z.Dir()
			for i := range d.Root.Pipes {
				p := &d.Root.Pipes[i]
				p.Dir, p.Path, p.Spring = nil, frame.Sprung, &frame.Spring{Bow: &up, Leave: [2]measure.Dir{up, up}}
				span := map[string]float64{"40": 40, "60": 60, "100": 100, "160": 160}[spans[i]]
				d.AddSize(&d.Root, frame.Size{Pipe: p.ID, Meaning: frame.Centre, Value: measure.FromInches(span / 2), Label: "Rise"})
			}
		})
	return bows.Judge(b)
}

func codes(fs []finding.Finding) (all []string) {
	for _, f := range fs {
		all = append(all, f.Code)
	}
	return all
}

// 3/4 pipe is 1.05 in thick: on a half circle of radius R its outer fibre is stretched by
// 0.525/R, by 0.0066 at 80 in, 0.0105 at 50 in and 0.026 at 20 in.
func TestHowHardAHoopIsBent(t *testing.T) {
	assert.Equal(t, []string{"sprung-in-the-sun"}, codes(hoops(t, "160")))
	assert.Equal(t, []string{"bent-hard", "sprung-in-the-sun"}, codes(hoops(t, "100")))
	found := hoops(t, "40")
	assert.Equal(t, []string{"bent-too-far", "sprung-in-the-sun"}, codes(found))
	assert.Equal(t, finding.Stop, found[0].Severity)
	f := found[0].Figures
	assert.Equal(t, "strain", f[0].Name)
	assert.InDelta(t, 0.525/20, f[0].Value, 0.001)
	assert.Equal(t, "radius", f[1].Name)
	assert.InDelta(t, 0.525/bows.GoodStrain, measure.Length(f[1].Value).Inches(), 0.01, "easy from this radius on")
}

// Hoops of one degree are told as one, with the figures of the hardest bent; a straight
// pipe is nothing to tell.
func TestHoopsOfOneDegreeAreTogether(t *testing.T) {
	found := hoops(t, "60", "160", "40")
	assert.Equal(t, []string{"bent-too-far", "sprung-in-the-sun"}, codes(found))
	assert.Len(t, found[0].Subjects, 2)
	assert.InDelta(t, 0.525/20, found[0].Figures[0].Value, 0.001)
	assert.Len(t, found[1].Subjects, 3)
	assert.Empty(t, bows.Judge(modeltest.Built(t, modeltest.Square, nil)))
}
