package plan_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

func begun(t require.TestingT, id string, answers map[string]starter.Answer) *plan.Plan {
	s, ok := starter.Find(id)
	require.True(t, ok, id)
	doc, err := s.Build(measure.Inches, answers)
	require.NoError(t, err, id)
	p, err := plan.Make(plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 1}}, Tool: "saw"}, plan.ExampleShop(), plan.Work{})
	require.NoError(t, err, id)
	return p
}

// sound says what is wrong with a frame that began from a starter: anything
// above a note, a loop that does not close, a port or an end unaccounted for.
func sound(p *plan.Plan) (bad []string) {
	for _, f := range p.Findings {
		if f.Severity != finding.Note {
			bad = append(bad, f.Code+": "+f.Text)
		}
	}
	f := &p.Frames[0]
	for _, l := range f.Loops {
		if l.Off > p.Step+10 {
			bad = append(bad, fmt.Sprint("open loop ", l.Joints))
		}
	}
	if len(f.Ports.Open) > 0 || len(f.Ports.Bare) > 0 {
		bad = append(bad, fmt.Sprint("unaccounted ", f.Ports.Open, f.Ports.Bare))
	}
	return bad
}

func TestEveryStarterIsSound(t *testing.T) {
	for _, s := range starter.All() {
		assert.Empty(t, sound(begun(t, s.ID, nil)), s.ID)
	}
	assert.GreaterOrEqual(t, len(starter.All()), 16)
}
