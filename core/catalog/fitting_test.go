package catalog_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/catalog"
)

// Every kind has a label, and no two share one.
func TestKindsHaveLabels(t *testing.T) {
	seen := map[string]bool{}
	for _, k := range catalog.Kinds() {
		assert.True(t, k.Known())
		assert.NotContains(t, k.Words(), "-45")
		assert.False(t, seen[k.Words()], k.Words())
		seen[k.Words()] = true
	}
	assert.Equal(t, "side-outlet elbow", catalog.SideOutletElbow.Words())
	assert.Equal(t, "reducing coupling", catalog.ReducingCoupling.Words())
	assert.True(t, seen["elbow 90°"] && seen["elbow 45°"])
}
