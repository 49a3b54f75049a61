package frame_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/frame"
)

// Every value that a builder chooses among has a label, and each label is of its own.
func TestEveryValueHasItsWords(t *testing.T) {
	for what, all := range map[string][]frame.Word{"meaning": frame.MeaningWords(), "class": frame.ClassWords(), "mode": frame.ModeWords(), "path": frame.PathWords()} {
		seen := map[string]bool{}
		for _, w := range all {
			assert.NotEmpty(t, w.Words, what)
			assert.False(t, seen[w.Words] || seen["="+w.Value], "%s %s", what, w.Value)
			seen[w.Words], seen["="+w.Value] = true, true
		}
	}
	assert.Equal(t, "cut long, trim to fit", frame.Label(frame.ClassWords(), frame.Trim))
	assert.Equal(t, "odd", frame.Label(frame.ClassWords(), frame.Class("odd")))
	assert.Len(t, frame.MeaningWords(), len(frame.Meanings()))
	assert.Len(t, frame.ClassWords(), len(frame.Classes()))
	assert.Len(t, frame.ModeWords(), len(frame.Modes()))
}
