package server_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/server"
)

// What lies on the rack has marks that stay, and says what could be cut from it.
func TestTheRackSaysWhatItHolds(t *testing.T) {
	c, _ := serve(t)
	c.get("POST", "/api/projects", project("Jump", nil), nil)
	save := func(change func(s *plan.Shop)) plan.Shop {
		var shop server.StoredShop
		c.get("GET", "/api/shop", nil, &shop)
		change(&shop.Shop)
		c.get("PUT", "/api/shop", map[string]any{"revision": shop.Revision, "shop": shop.Shop}, nil)
		c.get("GET", "/api/shop", nil, &shop)
		return shop.Shop
	}
	save(func(s *plan.Shop) {
		s.Rack = append(
			s.Rack,
			plan.Offcut{ID: "a", Size: "3/4", Length: 20 * measure.Inch, Count: 1},
			plan.Offcut{ID: "b", Size: "2", Length: 50 * measure.Inch, Count: 1},
		)
	})
	now := save(func(s *plan.Shop) {
		s.Rack = append(s.Rack[1:], plan.Offcut{ID: "c", Size: "3/4", Length: 60 * measure.Inch, Count: 1, Place: "behind the door"})
	})
	require.Len(t, now.Rack, 2)
	assert.Equal(t, "R2", now.Rack[0].Mark, "it keeps what is written on it")
	assert.Equal(t, "R3", now.Rack[1].Mark)
	var rack []server.OnRack
	c.get("GET", "/api/rack", nil, &rack)
	require.Len(t, rack, 2)
	assert.Empty(t, rack[0].Uses, "no project has 2 in pipe")
	require.Len(t, rack[1].Uses, 1)
	u := rack[1].Uses[0]
	assert.Equal(t, "Jump", u.Name)
	assert.Equal(t, 60*measure.Inch, u.Length+u.Left)
	assert.Equal(t, "behind the door", rack[1].Place)
}
