package reading_test

import (
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/reading"
)

func Example() {
	for _, it := range reading.Read("4 3/4\" tees, 2 caps\n4 @ 16\ntwo three-ways", "1/2") {
		fmt.Println(it.Line, it.What, it.Count, it.Kind, it.Kinds, it.Size, it.Length)
	}
	// Output:
	// 1 fitting 4 tee [] 3/4 0"
	// 1 fitting 2 cap [] 3/4 0"
	// 2 piece 4  [] 3/4 16"
	// 3 fitting 2  [tee side-outlet-elbow] 3/4 0"
}

// say writes items the way the corpus has them.
func say(items []reading.Item) string {
	var all []string
	for _, it := range items {
		s := ""
		switch it.What {
		case reading.Unknown:
			all = append(all, "unknown")
			continue
		case reading.Fitting:
			kind := string(it.Kind)
			if len(it.Kinds) > 0 {
				kind = fmt.Sprintf("?%s/%s", it.Kinds[0], it.Kinds[1])
			}
			s = fmt.Sprintf("%d %s %s", it.Count, kind, it.Size)
		default:
			s = fmt.Sprintf("%d %s %s", it.Count, it.What, it.Size)
		}
		if it.Assumed {
			s += "~"
		}
		if it.To != "" {
			s += " > " + string(it.To)
		}
		if it.Length > 0 {
			s += fmt.Sprintf(" %g", it.Length.Round(measure.Inch/1000).Inches())
		}
		if it.Ask != "" && len(it.Kinds) == 0 {
			s += " !"
		}
		all = append(all, s)
	}
	return strings.Join(all, " | ")
}

func TestTheCorpus(t *testing.T) {
	data, err := os.ReadFile("testdata/corpus.txt")
	require.NoError(t, err)
	n := 0
	for i, line := range strings.Split(string(data), "\n") {
		if line == "" || line[0] == '#' {
			continue
		}
		text, want, ok := strings.Cut(line, " =>")
		require.True(t, ok, "line %d", i+1)
		n++
		assert.Equal(t, strings.TrimSpace(want), say(reading.Read(text, "3/4")), "line %d: %s", i+1, text)
	}
	assert.GreaterOrEqual(t, n, 100, "lines of the corpus")
}

func TestAmbiguousNumbersAreAsked(t *testing.T) {
	it := reading.Read("1 1/2 tee", "3/4")[0]
	require.Len(t, it.Others, 1)
	assert.Equal(t, [2]any{1, catalog.Size("1/2")}, [2]any{it.Count, it.Size})
	assert.Equal(t, [2]any{1, catalog.Size("1-1/2")}, [2]any{it.Others[0].Count, it.Others[0].Size})
	assert.Equal(t, "1 of 1/2, or of 1-1/2?", it.Ask)
}

func TestTheSizeCarriesOn(t *testing.T) {
	items := reading.Read("all 1 inch:\n4 tees\n2 1/2\" caps (6)\nelbows: 8", "3/4")
	require.Len(t, items, 3)
	assert.Equal(t, catalog.Size("1"), items[0].Size)
	assert.True(t, items[0].Assumed)
	assert.Equal(t, items[1].Size, items[2].Size, "the last that was said")
}

func FuzzRead(f *testing.F) {
	data, err := os.ReadFile("testdata/corpus.txt")
	if err != nil {
		f.Fatal(err)
	}
	for _, line := range strings.Split(string(data), "\n") {
		f.Add(line)
	}
	f.Fuzz(func(t *testing.T, text string) {
		for _, it := range reading.Read(text, "3/4") {
			switch it.What {
			case reading.Fitting:
				if it.Kind == "" && len(it.Kinds) < 2 || !it.Size.Known() || it.Count < 1 {
					t.Fatalf("%+v", it)
				}
			case reading.Piece, reading.Stick:
				if !it.Size.Known() || it.Length < 0 || it.Length == 0 && it.Ask == "" {
					t.Fatalf("%+v", it)
				}
			}
		}
	})
}
