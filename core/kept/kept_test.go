package kept_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/kept"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/model/modeltest"
)

// wide is the square with a width of its lower rail said to be 36 in, where the joints' places say 40.
func wide(t *testing.T, change func(s *frame.Size)) *model.Built {
	return modeltest.Built(t, modeltest.Square, func(d *frame.Document) {
		s := d.AddSize(
			&d.Root,
			frame.Size{Axis: "x", From: "a", To: "b", Value: 36 * measure.Inch, Meaning: frame.Centre, Text: "36", Unit: measure.Inches},
		)
		change(d.SizeOf(s))
	})
}

func TestWhatHoldsIsNoNews(t *testing.T) {
	assert.Empty(t, kept.Judge(modeltest.Built(t, modeltest.Square, nil), nil))
}

// A size that gave way says what it was and what it is, and can be taken up again.
func TestASizeThatGaveWayIsTold(t *testing.T) {
	b := wide(t, func(s *frame.Size) { s.Gave = &frame.GaveWay{Words: "40 between the rails"} })
	found := kept.Judge(b, nil)
	require.Len(t, found, 1)
	assert.Equal(t, "gave-way", found[0].Code)
	assert.Equal(t, finding.Note, found[0].Severity)
	assert.Equal(t, `40"`, found[0].Figures[1].Text)
	require.Len(t, found[0].Fixes, 2)
	assert.Equal(t, "Hold it again, and choose anew", found[0].Fixes[0].Label)
	assert.Equal(t, "Forget it", found[0].Fixes[1].Label)
}

// Where what it gave way to has gone, it is a question whether it is to hold again.
func TestASizeMayHoldAgain(t *testing.T) {
	b := wide(t, func(s *frame.Size) { s.Gave = &frame.GaveWay{Words: "a rail", Freed: true} })
	found := kept.Judge(b, nil)
	require.Len(t, found, 1)
	assert.Equal(t, "may-hold-again", found[0].Code)
	assert.Equal(t, finding.Question, found[0].Severity)
	assert.Equal(t, "Hold it again", found[0].Fixes[0].Label)
}

// Sizes that contradict each other are told with one choice for each that may give way.
func TestAContradictionHasItsChoices(t *testing.T) {
	b := wide(t, func(*frame.Size) {})
	require.Len(t, b.Clashes, 1)
	all := []finding.Finding{finding.New("hovers", finding.Note), finding.New("sizes-contradict", finding.Stop)}
	kept.Judge(b, all)
	assert.Empty(t, all[0].Fixes)
	require.NotEmpty(t, all[1].Fixes)
	for _, f := range all[1].Fixes {
		assert.Contains(t, f.Label, " gives way")
	}
}
