package joinery_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
)

func sockets(n int, size catalog.Size, m frame.Mode) (is []fitting.Insertion) {
	for range n {
		is = append(is, fitting.Insertion{Size: size, Mode: m})
	}
	return is
}

func Example() {
	r := joinery.Count(catalog.Typical(), []joinery.Copies{{Insertions: sockets(24, "3/4", frame.Cemented), Copies: 2}})
	fmt.Println(r.Cemented, "sockets,", r.Cement.Ounces, "fl oz of cement,", r.Primer.Ounces, "of primer")
	// Output: 48 sockets, 7.68 fl oz of cement, 3.84 of primer
}

// 48 sockets of 3/4 at 200 a quart: 48/200 × 32 = 7.68 fl oz, an 8 oz can.
func TestCansThatAreEnough(t *testing.T) {
	c := catalog.Typical()
	for n, want := range map[int][]joinery.Can{
		0: nil, 1: {{4, 1}}, 25: {{4, 1}}, 26: {{8, 1}}, 48: {{8, 1}}, 100: {{16, 1}}, 101: {{32, 1}}, 200: {{32, 1}},
		201: {{32, 1}, {4, 1}}, 320: {{32, 2}}, 400: {{32, 2}},
	} {
		r := joinery.Count(c, []joinery.Copies{{Insertions: sockets(n, "3/4", frame.Cemented), Copies: 1}})
		assert.Equal(t, want, r.Cement.Cans, "%d sockets", n)
	}
}

func TestSizesAndModesAreCountedApart(t *testing.T) {
	is := append(sockets(4, "1", frame.Cemented), sockets(3, "1/2", frame.Slip)...)
	is = append(is, sockets(2, "1", frame.Pinned)...)
	r := joinery.Count(catalog.Typical(), []joinery.Copies{{Insertions: is, Copies: 3}})
	assert.Equal(t, []joinery.Sockets{{Size: "1/2", Dry: 9}, {Size: "1", Cemented: 12, Dry: 6}}, r.BySize)
	assert.Equal(t, 12, r.Cemented)
	assert.Equal(t, 15, r.Dry)
	assert.InDelta(t, 12.0/125*32, r.Cement.Ounces, 0.01)
}
