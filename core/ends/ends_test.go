package ends_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/ends"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/model/modeltest"
)

const post = `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[40,0,0],"d":[20,0,30]},"pipes":[["a","b"],["b","c"],["b","d"]]}`

func TestEndsNobodySpokeOf(t *testing.T) {
	found := ends.Judge(modeltest.Built(t, post, nil))
	require.Len(t, found, 1)
	assert.Equal(t, "ends-unsaid", found[0].Code)
	assert.ElementsMatch(t, finding.All(finding.Joint, "a", "c", "d"), found[0].Subjects)
	require.Len(t, found[0].Fixes, 2)
	assert.Equal(t, edit.Fix("Cap every open end", edit.Edit{Gesture: &edit.EndOf{All: true, End: frame.CappedEnd}}), found[0].Fixes[0])
}

// An end that is capped or open on purpose is spoken of; a closed frame has none.
func TestEndsThatWereSaid(t *testing.T) {
	said := modeltest.Built(t, post, func(d *frame.Document) {
		for i := range d.Root.Joints {
			switch d.Root.Joints[i].ID {
			case "a", "c":
				d.Root.Joints[i].End = frame.FreeEnd
			case "d":
				d.Root.Joints[i].End = frame.CappedEnd
			}
		}
	})
	assert.Empty(t, ends.Judge(said))
	assert.Empty(t, ends.Judge(modeltest.Built(t, modeltest.Square, nil)))
}
