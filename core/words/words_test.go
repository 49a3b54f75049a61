package words_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"sturdyelbow/core/words"
)

func TestALineIsParted(t *testing.T) {
	texts := func(line string) (all []string) {
		for _, w := range words.Of(line) {
			all = append(all, w.Text)
		}
		return all
	}
	assert.Empty(t, texts(" \t "))
	assert.Equal(t, []string{"right", "24", "cut"}, texts(" right  24\tcut"))
	assert.Equal(t, []string{"to", "foot 1/j3", "capped"}, texts("to foot 1/j3 capped"))
	assert.Equal(t, []string{"to", "post 1#2/j3"}, texts("to post 1#2/j3"))
	assert.Equal(t, []string{"level", "with", "top rail, left", "j3"}, texts(`level with "top rail, left", j3`))
	assert.Equal(t, []string{"5", "ft", `2"`}, texts(`5 ft 2"`), "an inch mark begins no quotation")
	assert.Equal(t, []string{`"top`, "rail"}, texts(`"top rail`), "nor does one that does not end")

	assert.Equal(
		t,
		[]string{"right", "24", "size", "1-1/2", "capped"},
		texts("right 24 size 1 1/2 capped"),
		"a size as one writes a length",
	)
	assert.Equal(t, []string{"right", "24", "1/2", "cut"}, texts("right 24 1/2 cut"))

	w := words.Of(`é "to" to,`)
	assert.False(t, w[1].Is("to"), "a quoted word is a name")
	assert.Equal(t, "to", w[1].Trimmed())
	assert.True(t, words.Of("To")[0].Is("to"))
	assert.Equal(t, "to", w[2].Trimmed())
	assert.Equal(t, 2, w[1].At, "in characters")
	assert.Equal(t, `"to"`, `é "to" to,`[w[1].From:w[1].To])
}

// A name that is written is read as it was, alone and before other words.
func TestANameIsReadAsItIsWritten(t *testing.T) {
	assert.Equal(t, words.Unsayable, words.Quote(`3" rail`))
	assert.Equal(t, "foot 1/j3", words.Quote("foot 1/j3"))
	assert.Equal(t, "foot 1", words.QuotePart("foot 1"))
	rapid.Check(t, func(t *rapid.T) {
		name := rapid.StringMatching(`[^"\s,;:]([^"\n\t]{0,12}[^"\s,;:])?`).Draw(t, "name")
		for _, line := range []string{words.Quote(name), "to " + words.Quote(name) + " capped", words.Quote(name) + ", j3"} {
			found := false
			for _, w := range words.Of(line) {
				found = found || w.Trimmed() == name
			}
			if !found {
				t.Fatalf("%q is read as %v", line, words.Of(line))
			}
		}
	})
}
