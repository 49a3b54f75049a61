package mention_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/mention"
)

func ExampleNamed() {
	text := "24 cut of " + mention.Of("p2") + " from " + mention.Of("l corner, f")
	names := map[string]string{"p2": "B, upper left", "l corner, f": "j4"}
	fmt.Println(text)
	fmt.Println(mention.Named(text, func(id string) string { return names[id] }))
	// Output:
	// 24 cut of ⟨p2⟩ from ⟨l corner, f⟩
	// 24 cut of B, upper left from j4
}

// What a builder typed is no mention, unless it is written as one; a name may hold a mention's marks.
func TestOnlyMentionsAreNamed(t *testing.T) {
	for _, text := range []string{"", "p2", "48 < 50 > 2", "a ⟨ alone", "⟩ b ⟨"} {
		assert.Equal(t, text, mention.ByID(text))
	}
	assert.Equal(t, "foot 1/p2 meets j1", mention.ByID(mention.Of("foot 1/p2")+" meets "+mention.Of("j1")))
	assert.Equal(t, "⟨x⟩", mention.Named(mention.Of("p1"), func(string) string { return "⟨x⟩" }), "names are not looked into")
}
