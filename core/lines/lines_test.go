package lines_test

import (
	"errors"
	"os"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
)

// bench is a frame on which every line of the manual can be read.
func bench(t require.TestingT) *frame.Document {
	_, doc, _ := drawn(t, `right 24 cut times 3
j1: up 20 cut
right 24 cut times 2
j5: up 20 cut
right 24 cut
j4: near 12 cut
near 6 cut
call z@j8 shelf
group foot j10 j11`)
	return doc
}

var code = regexp.MustCompile("`([^`]*)`")

// Everything that the manual shows can be read, and every form is in it.
func TestTheManualSaysWhatCanBeSaid(t *testing.T) {
	data, err := os.ReadFile("../../docs/lines.md")
	require.NoError(t, err)
	doc := bench(t)
	known := tools(t).Known(doc)
	known.Marked = []string{"j3", "j4"}
	known.Letters = func() []lines.Lettered {
		return []lines.Lettered{{Pipe: "p1", Letter: "B", Where: "upper left"}, {Pipe: "p4", Letter: "C"}}
	}
	said := map[string]bool{}
	n := 0
	for _, row := range strings.Split(string(data), "\n") {
		if !strings.HasPrefix(row, "- ") {
			continue
		}
		for k, m := range code.FindAllStringSubmatch(row, -1) {
			line := m[1]
			if k > 0 && !strings.Contains(line, " ") { // a word that may stand in the line before
				continue
			}
			if strings.ContainsAny(line[:1], "0123456789") {
				line = "right " + line
			}
			pen := lines.Pen{At: "j4", Each: []string{"j3", "j4"}}
			got, err := lines.Read(line, pen, known)
			if line == "along y" {
				continue
			}
			require.NoError(t, err, line)
			n++
			if got.Edit.Gesture == nil {
				continue
			}
			said[edit.NameOf(got.Edit.Gesture)] = true
			again, err := lines.Read(lines.Write(got.Edit, pen, ""), pen, known)
			require.NoError(t, err, line)
			assert.Equal(t, got.Edit, again.Edit, line)
		}
	}
	assert.Greater(t, n, 80)
	for _, name := range []string{"walk", "begin", "join", "split", "fit", "end", "hold", "delete", "size", "group", "repeat", "mirror", "place",
		"turn", "flip", "ungroup", "unique", "ring", "bow", "bay", "level", "even", "name", "insert", "remove", "stand", "check", "custom",
		"link", "slide", "class"} {
		assert.True(t, said[name], "the manual says nothing of %s", name)
	}
}

// What cannot be read says where it is, and how to mend it.
func TestALineSaysWhatIsWrongAndWhere(t *testing.T) {
	known := tools(t).Known(bench(t))
	for line, want := range map[string]struct {
		at         int
		what, hint string
	}{
		"right 4 cut dry":        {12, "\"dry\" says nothing", "capped"},
		"right touching A":       {15, "\"A\" says nothing", "leave it out"},
		"to j1":                  {0, "which way", "right to j1"},
		"level with j1":          {0, "which way", "right level with j1"},
		"mirror marked at x0":    {7, "no joint is marked", "mirror j1 j2"},
		"rigth 24":               {0, "begins no line", "right 24 cut"},
		"right 24 cats":          {9, "cats", ""},
		"j1: right to j77":       {13, "j77", "gone"},
		"j77: up 4":              {0, "j77", "gone"},
		"split j1-j2 by 10":      {12, "not expected", "split PIPE [at LENGTH] [from JOINT]"},
		"split Z at 4":           {6, "no pipe", "letter"},
		"tee at j3 spare inward": {16, "which way", "FITTING at JOINTS"},
		"join j1":                {7, "missing", "join JOINT to JOINT"},
		"repeat foot 3 at":       {16, "missing", "repeat"},
		"mirror j1 at x99":       {13, "no place", "x2"},
		"size 7":                 {5, "no pipe size", "3/4"},
		"units feet":             {6, "no unit", "units mm"},
		"right up down 5":        {0, "directions", "two"},
		"right 5 to j3":          {6, "at once", "leave one"},
		"up 4 times many":        {11, "times", "1 to 50"},
		"foot = cap j1":          {0, "takes the name", "leave"},
		"j1 = right 4":           {0, "there is a joint j1 already", "another name"},
		"right":                  {0, "no length", "46 clear"},
	} {
		got, err := lines.Read(line, lines.Pen{At: "j4"}, known)
		if err == nil { // what a gesture refuses
			_, _, err = tools(t).Edit(known.Document, got.Edit)
		}
		var r *edit.Refusal
		require.True(t, errors.As(err, &r), "%s: %v", line, err)
		assert.Contains(t, r.What, want.what, line)
		assert.Contains(t, r.Hint, want.hint, line)
		if want.at > 0 {
			assert.Equal(t, want.at, r.At, "%s: %v", line, r)
		}
	}
}

// A page of nonsense is read without harm, whatever it is.
func FuzzRead(f *testing.F) {
	for _, s := range []string{
		"right 24 cut", "j1 j2: up 4 x3", "foot = j1: near 12 size 1 capped", "do {\"walk\":{}}", "do {", "tee at j1 spare 0.1;2;x open",
		`cut "B upper left" trim by 1/4`, "mirror marked at x@j1 (apart) # why #: j9", "part hub ports left 1, right 1", "a = b = c", ":", "#", "(", "((a))",
		"repeat foot 1 times 3 at 40 joined", "stand turned 1 about x, 2 about", "start {}", "within", "size", "\x00\xff", "right up@999 4", "to to to",
	} {
		f.Add(s)
	}
	doc := bench(f)
	t := tools(f)
	f.Fuzz(func(test *testing.T, text string) {
		known := t.Known(doc)
		pen := lines.Pen{At: "j4", Each: []string{"j1"}}
		said, err := lines.Read(text, pen, known)
		var r *edit.Refusal
		if err != nil {
			require.True(test, errors.As(err, &r), "%v", err)
			require.NotEmpty(test, r.What)
			require.GreaterOrEqual(test, r.At, 0)
			require.LessOrEqual(test, r.At, len([]rune(text))+1)
			return
		}
		if said.Edit.Gesture == nil {
			return
		}
		line := lines.Write(said.Edit, pen, said.Comment)
		require.NotContains(test, line, "\n")
		again, err := lines.Read(line, pen, known)
		require.NoError(test, err, "%q is written as %q", text, line)
		require.Equal(test, line, lines.Write(again.Edit, pen, again.Comment), "%q", text)
	})
}
