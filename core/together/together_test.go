package together_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/together"
)

func Example() {
	s := together.New(4)
	s.Join(0, 1, 5)
	s.Join(2, 1, 3)
	by, known := s.Between(0, 2)
	fmt.Println(int(by), known)
	_, known = s.Between(0, 3)
	fmt.Println(known)
	// Output:
	// 2 true
	// false
}

// Things placed on a line, joined in any order, are as far apart as where they stand,
// and thing 0 is the root of its set.
func TestOffsetsAreDifferencesOfPlaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		at := rapid.SliceOfN(rapid.Int64Range(-1000, 1000), 2, 12).Draw(t, "at")
		s := together.New(len(at))
		set := make([]int, len(at)) // by hand: the number of each thing's set
		for i := range set {
			set[i] = i
		}
		thing := rapid.IntRange(0, len(at)-1)
		for range rapid.IntRange(0, 20).Draw(t, "joins") {
			i, j := thing.Draw(t, "i"), thing.Draw(t, "j")
			s.Join(i, j, measure.Length(at[j]-at[i]))
			for k, from := range set {
				if from == set[j] && k != j {
					set[k] = set[i]
				}
			}
			set[j] = set[i]
		}
		for i := range at {
			for j := range at {
				by, known := s.Between(i, j)
				assert.Equal(t, set[i] == set[j], known)
				if known {
					assert.Equal(t, measure.Length(at[j]-at[i]), by)
				}
			}
			if s.Root(i) == s.Root(0) {
				assert.Zero(t, s.Root(i))
			}
		}
	})
}
