package starter_test

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

func Example() {
	s, _ := starter.Find("jump")
	doc, err := s.Build(measure.Inches, map[string]starter.Answer{"width": {Text: "4 ft"}, "bar": {Text: "20"}})
	if err != nil {
		fmt.Println(err)
		return
	}
	g, _ := frame.Expand(&doc)
	fmt.Println(doc.Name, len(g.Edges), "pipes")
	_, err = s.Build(measure.Inches, map[string]starter.Answer{"width": {Text: "4 ftt"}})
	fmt.Println(err)
	// Output:
	// Jump 12 pipes
	// width: "ftt" is not a unit; use in, ft, mm, cm or m
}

func TestEveryStarterIsAnOrdinaryDocument(t *testing.T) {
	for _, s := range starter.All() {
		doc, err := s.Build(measure.Inches, nil)
		require.NoError(t, err)
		data, err := json.Marshal(doc)
		require.NoError(t, err)
		var again frame.Document
		require.NoError(t, json.Unmarshal(data, &again))
		assert.Equal(t, doc, again, "%s comes back from JSON as it was", s.ID)
		_, err = frame.Expand(&again)
		assert.NoError(t, err, s.ID)
	}
	_, ok := starter.Find("castle")
	assert.False(t, ok)
}

func TestAnswersThatCannotBeUsed(t *testing.T) {
	s, _ := starter.Find("screen")
	_, err := s.Build(measure.Inches, map[string]starter.Answer{
		"width": {Text: "8 ft", Meaning: frame.Slot}, "height": {Text: "zero"}, "bays": {Text: "0"}, "rails": {Text: "two"},
		"low": {Text: "0"}, "size": {Text: "7/8"}, "mode": {Text: "tape"},
	})
	var ps starter.Problems
	require.ErrorAs(t, err, &ps)
	var keys []string
	for _, p := range ps {
		keys = append(keys, p.Key)
		assert.NotEmpty(t, p.Hint)
	}
	assert.Equal(t, "width height bays rails low size mode", strings.Join(keys, " "))
}

func TestBareNumbersAreInTheFramesUnit(t *testing.T) {
	s, _ := starter.Find("table")
	doc, err := s.Build(measure.Millimetres, map[string]starter.Answer{"width": {Text: "900"}})
	require.NoError(t, err)
	assert.Equal(t, 900*measure.Millimetre, doc.SizeOf("width").Value)
	mixed, err := s.Build(measure.Millimetres, map[string]starter.Answer{"width": {Text: "48", Unit: measure.Inches}})
	require.NoError(t, err)
	assert.Equal(t, 48*measure.Inch, mixed.SizeOf("width").Value, "an answer keeps the unit it was typed in")
	assert.Equal(t, 24*measure.Inch, doc.SizeOf("depth").Value, "defaults are inches in any unit")
}

// Starters stand by what they are for, and each has words by which it is found.
func TestStartersAreGrouped(t *testing.T) {
	groups := starter.Groups()
	at := 0
	for _, s := range starter.All() {
		i := slices.Index(groups, s.For)
		require.GreaterOrEqual(t, i, at, "%s stands with those %q", s.ID, s.For)
		at = i
		assert.NotEmpty(t, s.Words, s.ID)
	}
	assert.Equal(t, len(groups)-1, at, "every group has one")
}
