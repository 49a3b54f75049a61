package catalog_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

func Example() {
	c := catalog.Typical()
	tee, _ := c.Fitting(catalog.Tee, "3/4")
	fmt.Println(
		tee.Ports[2].Role,
		tee.Ports[2].Stop.Format(measure.Decimal, 0),
		"to the stop,",
		tee.Ports[2].Face().Format(measure.Decimal, 0),
		"to the rim",
	)
	for _, b := range c.Bushings("2", "3/4") {
		fmt.Println(b.Kind, b.Size)
	}
	// Output:
	// branch 0.5625 in to the stop, 1.2815 in to the rim
	// bushing 2x1
	// bushing 1x3/4
}

func in(x float64) measure.Length { return measure.FromInches(x) }

// 1-1/2 tee with a 3/4 pipe: 1.0 + (1.094 + 0.1875 − 0.719) = 1.5625.
func TestBushingAddsToTheStop(t *testing.T) {
	c := catalog.Typical()
	bs := c.Bushings("1-1/2", "3/4")
	require.Len(t, bs, 1)
	assert.Equal(t, in(0.5625), bs[0].AddedStop())
	assert.Empty(t, c.Bushings("1", "1"))
	assert.Len(t, c.Bushings("4", "1/2"), 3, "4x2, 2x1, 1x1/2")
}

func TestEveryShapeIsWhole(t *testing.T) {
	c := catalog.Typical()
	for _, s := range catalog.Sizes() {
		assert.InDelta(t, 0.67, c.HandTight(s), 0.17, "hand tight %s", s)
		assert.Positive(t, c.JointsPerQuart(s))
		for _, k := range catalog.JointKinds() {
			f, ok := c.Fitting(k, s)
			require.True(t, ok)
			for _, p := range f.Ports {
				assert.InDelta(t, 1, p.Dir.Dot(p.Dir), 1e-12)
				assert.GreaterOrEqual(t, 2*p.Body, 2*c.Pipe(s).OutsideDiameter)
			}
		}
	}
	_, ok := c.Fitting(catalog.Bushing, "1")
	assert.False(t, ok, "a bushing needs two sizes")
	_, ok = c.Fitting(catalog.Tee, "9")
	assert.False(t, ok)
}

func TestOverridesSayWhatIsMeasured(t *testing.T) {
	c, err := catalog.Typical().With(
		catalog.Override{Size: "3/4", Kind: catalog.Tee, Field: catalog.Stop90, Value: in(0.60)},
		catalog.Override{Size: "3/4", Field: catalog.SocketDepth, Value: in(0.75)})
	require.NoError(t, err)
	tee, _ := c.Fitting(catalog.Tee, "3/4")
	elbow, _ := c.Fitting(catalog.Elbow90, "3/4")
	assert.Equal(t, in(0.60), tee.Ports[0].Stop)
	assert.Equal(t, in(0.5625), elbow.Ports[0].Stop, "another kind keeps the typical figure")
	assert.Equal(t, in(0.75), elbow.Ports[0].Depth)
	assert.True(t, c.Figure(catalog.Tee, "3/4", catalog.Stop90).Measured)
	assert.False(t, c.Figure(catalog.Elbow90, "3/4", catalog.Stop90).Measured)
	old, _ := catalog.Typical().Fitting(catalog.Tee, "3/4")
	assert.Equal(t, in(0.5625), old.Ports[0].Stop, "the typical catalog never changes")
}

func TestOverridesThatNoPartCanHave(t *testing.T) {
	for name, o := range map[string]catalog.Override{
		"bottom wider than pipe":     {Size: "3/4", Field: catalog.BottomField, Value: in(1.051)},
		"entrance narrower":          {Size: "3/4", Field: catalog.EntranceField, Value: in(1.049)},
		"stop inside the other pipe": {Size: "3/4", Field: catalog.Stop90, Value: in(0.52)},
		"45 stop too near":           {Size: "3/4", Field: catalog.Stop45, Value: in(0.21)},
		"no wall left":               {Size: "3/4", Field: catalog.BodyDiameter, Value: in(1.28)},
		"no such size":               {Size: "5/8", Field: catalog.Stop90, Value: in(1)},
		"no such figure":             {Size: "3/4", Field: "colour", Value: in(1)},
		"no such kind":               {Size: "3/4", Kind: "wye", Field: catalog.Stop90, Value: in(1)},
		"nothing":                    {Size: "3/4", Field: catalog.SocketDepth},
	} {
		_, err := catalog.Typical().With(o)
		var oe *catalog.OverrideError
		if assert.ErrorAs(t, err, &oe, name) {
			assert.NotEmpty(t, oe.Hint)
		}
	}
}

func TestNominalSizes(t *testing.T) {
	for text, want := range map[string]catalog.Size{"3/4": "3/4", "1 1/2": "1-1/2", "1.5": "1-1/2", "2\"": "2", "½": "1/2"} {
		got, ok := catalog.ParseSize(text)
		assert.True(t, ok, text)
		assert.Equal(t, want, got)
	}
	_, ok := catalog.ParseSize("7")
	assert.False(t, ok)
	assert.Equal(t, catalog.Size("2"), catalog.Larger("2", "1-1/2"))
}
