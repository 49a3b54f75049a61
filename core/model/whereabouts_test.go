package model_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/model/modeltest"
)

// A rack of two bays, 40 by 30: its corners, its middle post, and rails that would be told
// alike, which are counted.
func TestWhereThingsAre(t *testing.T) {
	b := modeltest.Built(t, `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[40,0,0],"d":[0,0,30],"e":[20,0,30],"f":[40,0,30]},`+
		`"pipes":[["a","b"],["b","c"],["d","e"],["e","f"],["a","d"],["b","e"],["c","f"]]}`, nil)
	w := b.Whereabouts()
	joint := func(id string) string { return w.Joint(b.Graph.Node(id)) }
	assert.Equal(t, "lower left corner", joint("a"))
	assert.Equal(t, "upper right corner", joint("f"))
	assert.Equal(t, "top", joint("e"))
	assert.Equal(t, []string{
		"bottom, 1st from the left", "bottom, 2nd from the left", "top, 1st from the left", "top, 2nd from the left",
		"left", "in the middle", "right",
	}, w.Pipes())

	// in space the front and the back are told too
	b = modeltest.Built(t, `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0],"c":[20,20,0],"d":[0,20,0],"e":[0,0,30]},`+
		`"pipes":[["a","b"],["b","c"],["c","d"],["d","a"],["a","e"]]}`, nil)
	w = b.Whereabouts()
	assert.Equal(t, "lower right back corner", w.Joint(b.Graph.Node("c")))
	assert.Equal(t, []string{"lower front", "lower right", "lower back", "lower left", "left front"}, w.Pipes())

	// a single pipe has but one place
	b = modeltest.Built(t, `{"wireframe":1,"joints":{"a":[0,0,0],"b":[20,0,0]},"pipes":[["a","b"]]}`, nil)
	assert.Equal(t, []string{""}, b.Whereabouts().Pipes())
	assert.Equal(t, "left", b.Whereabouts().Joint(0))
}
