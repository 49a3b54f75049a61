package weight_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/weight"
)

// A square of 3/4 pipe, 40 by 30 between centres: 2 × 38 7/8 and 2 × 28 7/8 of pipe at 0.226 lb a foot is
// 2.55 lb. Each of its four elbows has two ports of (1.05 + twice a wall) about 1.3 in body, some 1.28 in long.
func TestASquareIsWeighed(t *testing.T) {
	b := modeltest.Built(t, modeltest.Square, func(d *frame.Document) { d.Mode = frame.Cemented })
	w, found := weight.Judge(b)
	assert.Empty(t, found)
	assert.InDelta(t, (2*38.875+2*28.875)/12*0.226, w.Pipe, 0.001)
	assert.InDelta(t, 0.3, w.Fittings, 0.2, "an elbow of 3/4 is about an ounce")
	assert.InDelta(t, w.Pipe+w.Fittings, w.Total, 1e-9)
	heavy, _ := weight.Judge(modeltest.Built(t, modeltest.Square, func(d *frame.Document) { d.Size = "1-1/2" }))
	assert.Greater(t, heavy.Total, 2*w.Total)
}
