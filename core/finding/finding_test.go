package finding_test

import (
	"fmt"
	"testing"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func Example() {
	fs := []finding.Finding{
		{Code: "b", Severity: finding.Note},
		{Code: "c", Severity: finding.Stop, Frame: 1},
		{Code: "a", Severity: finding.Stop},
		{Code: "a", Severity: finding.Question},
	}
	finding.Sort(fs)
	for _, f := range fs {
		fmt.Println(f.Severity, f.Code)
	}
	// Output:
	// stop a
	// stop c
	// question a
	// note b
}

func about(code string, severity finding.Severity, id string, frame int) finding.Finding {
	f := finding.New(code, severity, finding.All(finding.Pipe, id)...).With("long", 3*measure.Inch).Fixed(finding.Fix{Label: "Mend " + id})
	f.Frame = frame
	return f
}

// What is alike is one finding with a case for each, in the place of the first; another
// severity, another frame and codes that are not told together stay apart.
func TestWhatIsAlikeIsToldOnce(t *testing.T) {
	fs := []finding.Finding{
		about("short", finding.Stop, "a", 0),
		about("odd", finding.Note, "x", 0),
		about("short", finding.Stop, "b", 0),
		about("short", finding.Warn, "c", 0),
		about("short", finding.Stop, "d", 1),
		about("odd", finding.Note, "y", 0),
		about("short", finding.Stop, "a", 0),
	}
	all := finding.Group(fs, func(code string) bool { return code == "short" })
	require.Len(t, all, 5)
	first := all[0]
	assert.Equal(t, []string{"a", "b"}, first.IDs(), "each thing once")
	require.Len(t, first.Cases, 3)
	assert.Equal(t, finding.All(finding.Pipe, "b"), first.Cases[1].Subjects)
	assert.Len(t, first.Fixes, 2, "each fix once")
	assert.Len(t, fs[0].Fixes, 1, "the findings given are left as they are")
	assert.Equal(t, "x", all[1].Subject())
	assert.Empty(t, all[1].Cases)
	assert.Equal(t, []finding.Finding{}, finding.Group(nil, func(string) bool { return true }))
}

func TestFiguresKeepTheirUnits(t *testing.T) {
	type word string
	f := finding.New("c", finding.Note).
		With("length", measure.Inch).
		With("count", 3).
		With("share", 0.5).
		With("angle", finding.Degrees(30)).
		With("word", word("tee")).
		With("thing", finding.Subject{Kind: finding.Joint, ID: "j1"})
	var units []finding.Unit
	for _, g := range f.Figures {
		units = append(units, g.Unit)
	}
	assert.Equal(t, []finding.Unit{finding.Length, finding.Count, finding.Share, finding.Angle, finding.Words, finding.Things}, units)
	assert.Equal(t, measure.Inch, f.Length("length"))
	assert.Zero(t, f.Length("count"))
	assert.Empty(t, f.Subject())
	assert.Panics(t, func() { f.With("wrong", []int{1}) })
	g := f.With("one", 1)
	f.With("two", 2)
	assert.Equal(t, "one", g.Figures[len(g.Figures)-1].Name, "a finding is a value: two made of one do not share their figures")
}
