package suppliers_test

import (
	"context"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/material"
	"sturdyelbow/core/supply"
	"sturdyelbow/internal/suppliers"
)

func sources(moods ...suppliers.Mood) (all []suppliers.Source) {
	for i, e := range suppliers.Examples() {
		if i < len(moods) {
			e.Mood = moods[i]
		}
		all = append(all, e)
	}
	return all
}

func TestTheExamplesSellDifferentThings(t *testing.T) {
	answers := suppliers.AskAll(context.Background(), sources(), time.Second)
	require.Len(t, answers, 3)
	corner := material.Spec{Ware: material.Fitting, Kind: "side-outlet-elbow", Size: "3/4"}
	for i, a := range answers {
		require.NoError(t, a.Err)
		assert.True(t, a.Example, "marked as made up")
		assert.NotEmpty(t, a.Date)
		assert.NotEmpty(t, a.Offers)
		has := false
		for _, o := range a.Offers {
			has = has || o.Spec == corner
			assert.Positive(t, o.Amount)
		}
		assert.Equal(t, i == 2, has, a.Name)
	}
	assert.NotEmpty(t, answers[1].Sticks("3/4"))
	assert.NotEqual(t, answers[0].Sticks("3/4"), answers[1].Sticks("3/4"))
}

// One that is down or slow keeps nobody from hearing the others.
func TestMoods(t *testing.T) {
	begin := time.Now()
	answers := suppliers.AskAll(context.Background(), sources(suppliers.Down, suppliers.Slow, suppliers.Dearer), 80*time.Millisecond)
	assert.Less(t, time.Since(begin), 5*time.Second)
	require.Error(t, answers[0].Err)
	assert.ErrorContains(t, answers[1].Err, "within")
	require.NoError(t, answers[2].Err)
	well := suppliers.AskAll(context.Background(), sources(), time.Second)
	assert.Greater(t, answers[2].Offers[0].Amount, well[2].Offers[0].Amount)
	out := suppliers.AskAll(context.Background(), sources(suppliers.Out), time.Second)[0]
	for _, o := range out.Offers {
		if o.Ware == material.Fitting {
			assert.Equal(t, 1, o.Stock)
		}
	}
	own := suppliers.List{Of: supply.Supplier{ID: "x", Name: "Corner shop"}}
	a := suppliers.AskAll(context.Background(), []suppliers.Source{own}, time.Second)[0]
	assert.Equal(t, "Corner shop", a.Name)
}
