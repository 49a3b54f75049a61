package shop_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/shop"
)

// A document's own seats come before the shop's, and neither is changed.
func TestADocumentsOwnSeatsComeFirst(t *testing.T) {
	s := shop.Example()
	s.Seats = map[frame.Mode]float64{frame.Slip: 0.9, frame.Eased: 0.7}
	d := &frame.Document{Seats: map[frame.Mode]float64{frame.Slip: 0.8}}
	seated := s.Seated(d)
	assert.Equal(t, map[frame.Mode]float64{frame.Slip: 0.8, frame.Eased: 0.7}, seated.Seats)
	assert.Equal(t, map[frame.Mode]float64{frame.Slip: 0.8}, d.Seats)
	assert.Len(t, s.Seats, 2)
	assert.Same(t, d, (*shop.Shop)(nil).Seated(d), "without a shop there is nothing to put in")
}

// A mark of the socket's depth, 0.719, that shows by 0.0719 is a pipe nine tenths in; the
// measurement is forgotten again by itself.
func TestASeatIsMeasuredAndForgotten(t *testing.T) {
	s := shop.Example()
	mine, err := s.Calibrate(shop.Measured{Seat: frame.Slip, Trial: &catalog.Trial{Size: "3/4", Gap: measure.FromInches(0.0719)}})
	require.NoError(t, err)
	assert.InDelta(t, 0.9, mine.Seats[frame.Slip], 1e-6)
	assert.Empty(t, s.Seats, "the shop that was given is not touched")
	again, err := mine.Calibrate(shop.Measured{Forget: frame.Slip})
	require.NoError(t, err)
	assert.Empty(t, again.Seats)
	_, err = s.Calibrate(shop.Measured{Seat: "hoped", Trial: &catalog.Trial{Size: "3/4"}})
	var trial *catalog.TrialError
	require.ErrorAs(t, err, &trial)
	assert.Equal(t, "seat", trial.Field)
}

// 10 in with an elbow at each end, 12 1/2 over all over bodies of 1.32, stops 0.59 from each
// centre; it stands beside the typical figure.
func TestAStopStandsBesideTheTypicalOne(t *testing.T) {
	s := shop.Example()
	mine, err := s.Calibrate(shop.Measured{
		Trial: &catalog.Trial{
			Size:    "3/4",
			Kind:    catalog.Elbow90,
			Cut:     10 * measure.Inch,
			Outside: 25 * measure.Inch / 2,
			Body:    measure.FromInches(1.32),
			Ends:    2,
		},
	})
	require.NoError(t, err)
	c, err := mine.Catalog()
	require.NoError(t, err)
	figures, seats := mine.Rests(c, []catalog.Size{"3/4"})
	own := figures[len(figures)-1]
	assert.Equal(t, catalog.Elbow90, own.Kind)
	assert.InDelta(t, 0.59, own.Mine.Inches(), 1e-6)
	assert.InDelta(t, 0.5625, own.Typical.Inches(), 1e-6)
	assert.True(t, own.Measured)
	assert.Len(t, seats, len(frame.Modes()))
}

func TestWhatMakesNoSenseIsPointedAt(t *testing.T) {
	assert.NoError(t, new(shop.Example()).Validate())
	for path, spoil := range map[string]func(s *shop.Shop){
		"/shop/tools/5/kerf":   func(s *shop.Shop) { s.Tools[5].Kerf = 2 * measure.Inch },
		"/shop/seats/slip":     func(s *shop.Shop) { s.Seats = map[frame.Mode]float64{frame.Slip: 1.2} },
		"/shop/stock/0/size":   func(s *shop.Shop) { s.Stock[0].Size = "7/9" },
		"/shop/stock/1/length": func(s *shop.Shop) { s.Stock[1].Length = 0 },
		"/shop/rack/0":         func(s *shop.Shop) { s.Rack = []shop.Offcut{{Size: "3/4", Length: measure.Foot}} },
		"/shop/measurements/0": func(s *shop.Shop) { s.Measurements = []catalog.Override{{Size: "3/4", Field: "hope", Value: 1}} },
	} {
		s := shop.Example()
		spoil(&s)
		var bad shop.ValidationError
		require.ErrorAs(t, s.Validate(), &bad, path)
		require.Len(t, bad, 1, path)
		assert.Equal(t, path, bad[0].Path)
		assert.NotEmpty(t, bad[0].Hint)
	}
}

func TestAToolIsFoundByItsID(t *testing.T) {
	s := shop.Example()
	saw, ok := s.Tool("saw")
	assert.True(t, ok)
	assert.Equal(t, measure.Inch/8, saw.Kerf)
	_, ok = s.Tool("teeth")
	assert.False(t, ok)
}
