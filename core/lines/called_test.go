package lines_test

import (
	"encoding/json"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
)

// A name that is given to a joint is shown, is understood, and changes no number: with and without it, the same joints have
// the same numbers.
func TestAGivenNameChangesNoNumber(t *testing.T) {
	text := "right 20 cut\nup 5 cut\n%sup 5 cut\nj3: near 4 cut\nj4: left 6 cut\n"
	_, plain, _ := drawn(t, fmt.Sprintf(text, ""))
	_, named, _ := drawn(t, fmt.Sprintf(text, "top = ")+"top: right 7 cut")
	for i, j := range plain.Root.Joints {
		assert.Equal(t, j.ID, named.Root.Joints[i].ID)
	}
	for i, p := range plain.Root.Pipes {
		assert.Equal(t, [2]string{p.From, p.To}, [2]string{named.Root.Pipes[i].From, named.Root.Pipes[i].To}, p.ID)
	}
	var shown []string
	for _, j := range planned(t, named).Frames[0].Joints {
		shown = append(shown, j.Name)
	}
	assert.Equal(t, []string{"j1", "j2", "j3", "top", "j5", "j6", "j7"}, shown)

	twice, err := lines.Parse("up 5\ntop = up 5\ntop = up 5")
	require.NoError(t, err)
	page, _, _ := (&lines.Page{Lines: twice}).Draw(empty(), tools(t))
	require.NotNil(t, page.Wrong)
	assert.Contains(t, page.Wrong.What, "top")
}

// The joints of a part keep the numbers that they are shown with when more is drawn, before it or after it, and none of
// those is given to another joint.
func TestANumberOnceShownIsNeverAnothers(t *testing.T) {
	text := "right 20 cut\nup 5 cut\nright 9 cut\ngroup stem j3 j4\nrepeat stem times 3 along y at 8\n"
	at := func(text string) map[string]string {
		_, doc, _ := drawn(t, text)
		names := map[string]string{}
		for _, j := range planned(t, doc).Frames[0].Joints {
			require.Empty(t, names[j.Name], "%s is two joints", j.Name)
			names[j.Name] = j.ID
		}
		return names
	}
	was := at(text)
	for _, more := range []string{"j1: left 12 cut", "j1: up 30 cut\nright 8 cut", "j4: away 10 cut\nfirst = up 3 cut"} {
		now := at(text + more)
		for name, id := range was {
			assert.Equal(t, id, now[name], "%s, after %q", name, more)
		}
		assert.Greater(t, len(now), len(was))
	}
}

// A letter that several pieces have means all of them where all can be meant, and where one is, their places are told. No
// two pieces have one name.
func TestALetterIsAllThatHaveIt(t *testing.T) {
	wall := "right 24 cut x3\nj1: up 12 cut x2\nj2: up 12 cut x2\nj3: up 12 cut x2\nj4: up 12 cut x2\n"
	_, doc, _ := drawn(t, wall)
	letter, seen := "", map[string]bool{}
	for _, p := range planned(t, doc).Frames[0].Pipes {
		if p.Cut == 12*measure.Inch {
			letter = p.Letter
		}
		require.False(t, seen[p.Letter+" "+p.Where], "%s %s is two pieces", p.Letter, p.Where)
		seen[p.Letter+" "+p.Where] = true
	}
	_, made, _ := drawn(t, wall+"make "+letter+" 10 cut")
	n := 0
	for _, p := range planned(t, made).Frames[0].Pipes {
		if p.Cut == 10*measure.Inch {
			n++
		}
	}
	assert.Equal(t, 8, n)
	all, err := lines.Parse(wall + "split " + letter)
	require.NoError(t, err)
	page, _, _ := (&lines.Page{Lines: all}).Draw(empty(), tools(t))
	require.NotNil(t, page.Wrong)
	assert.Contains(t, page.Wrong.Hint, letter+" ")
}

// What may be left out comes in any order, also before what may not.
func TestTheWordsOfAFormInAnyOrder(t *testing.T) {
	text := "right 20 cut\nup 5 cut\nright 9 cut\ngroup stem j3 j4\n"
	want := ""
	for _, line := range []string{
		"repeat stem times 5 along y at 8", "repeat stem along y at 8 times 5", "repeat stem at 8 times 5 along y", "repeat along y stem at 8 times 5",
	} {
		_, doc, _ := drawn(t, text+line)
		raw, err := json.Marshal(doc)
		require.NoError(t, err)
		if want == "" {
			want = string(raw)
		}
		assert.Equal(t, want, string(raw), line)
	}
	all, err := lines.Parse(text + "repeat stem along y at 8")
	require.NoError(t, err)
	page, _, _ := (&lines.Page{Lines: all}).Draw(empty(), tools(t))
	require.NotNil(t, page.Wrong, "how often is not said")
}
