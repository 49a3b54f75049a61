package drawing_test

import (
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/internal/drawing"
)

// A bow is drawn along its way, as an outline and the pipe in it, inside the
// picture.
func TestABowIsDrawnAlongItsWay(t *testing.T) {
	p := planned(t, "tunnel", "Tunnel")
	svg := drawing.Frame(&p.Frames[0], drawing.Options{Style: measure.InInches})
	lines := regexp.MustCompile(`<polyline class="(\w+)" points="([^"]+)"`).FindAllStringSubmatch(svg, -1)
	require.Len(t, lines, 2*10, "ten half hoops; the four parts of the spine are straight")
	box := regexp.MustCompile(`viewBox="(\S+) (\S+) (\S+) (\S+)"`).FindStringSubmatch(svg)
	require.NotNil(t, box)
	number := func(s string) float64 {
		v, err := strconv.ParseFloat(s, 64)
		require.NoError(t, err)
		return v
	}
	for _, l := range lines {
		points := strings.Fields(l[2])
		assert.Greater(t, len(points), 8)
		for _, q := range points {
			x, y, _ := strings.Cut(q, ",")
			assert.True(t, number(x) >= number(box[1]) && number(x) <= number(box[1])+number(box[3]), q)
			assert.True(t, number(y) >= number(box[2]) && number(y) <= number(box[2])+number(box[4]), q)
		}
	}
	assert.Equal(t, 10, strings.Count(svg, `<polyline class="pipe"`))
}

// A cart stands on two wheels: each has two sides, a rim and a hub.
func TestWheelsAreDrawn(t *testing.T) {
	p := planned(t, "cart", "Cart")
	n := elements(t, drawing.Frame(&p.Frames[0], drawing.Options{}))
	assert.Equal(t, 2*4, n["wheel"])
	p = planned(t, "table", "Table")
	assert.Zero(t, elements(t, drawing.Frame(&p.Frames[0], drawing.Options{}))["wheel"])
}
