package procure_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
	"sturdyelbow/core/shop"
)

// buy procures some squares of 40 by 30 between centres, cemented, cut with a tool of the
// example's shop: pieces of 38 7/8 and 28 7/8, as a typical 3/4 elbow stops 9/16 from its centre.
func buy(t *testing.T, copies int, tool string, change func(d *frame.Document)) *procure.Purchase {
	b := modeltest.Built(t, modeltest.Square, func(d *frame.Document) {
		d.Mode = frame.Cemented
		if change != nil {
			change(d)
		}
	})
	s := shop.Example()
	with, ok := s.Tool(tool)
	require.True(t, ok)
	needs := []material.Line{{
		Spec: material.Spec{Ware: "bolt", Diameter: measure.Inch / 4, Length: 2 * measure.Inch}, Quantity: 1, Unit: "each",
		Where: []material.Place{{Kind: "link", ID: "bolt 1"}}, Rule: "through both pipes",
	}}
	p, err := procure.Procure(
		context.Background(),
		[]procure.Lot{{Built: b, Copies: copies, Needs: needs}},
		procure.Order{Shop: &s, Work: &record.Work{}, Tool: with},
	)
	require.NoError(t, err)
	return p
}

func ExampleProcure() {
	t := &testing.T{}
	p := buy(t, 1, "saw", nil)
	for _, c := range p.Cuts {
		fmt.Println(c.Letter, c.Size, c.Cut, c.Count)
	}
	for _, l := range p.Materials {
		fmt.Println(l.Ware, l.Size, l.Length, l.Quantity, l.Unit)
	}
	fmt.Println(p.Placed[0])
	// Output:
	// A 3/4 38 7/8" 2
	// B 3/4 28 7/8" 2
	// pipe 3/4 120" 1 stick
	// pipe 3/4 60" 1 stick
	// fitting 3/4 0" 4 each
	// bolt  2" 1 each
	// [{A 1} {B 2} {A 1} {B 2}]
}

// Letters leave out I and O, which read as 1 and 0 on a pipe, and go on with AA.
func TestLettersOfManyPieces(t *testing.T) {
	joints, pipes, x := `"j0":[0,0,0]`, "", 0
	for k := 1; k <= 26; k++ {
		x += 10 + k
		joints += fmt.Sprintf(`,"j%d":[%d,0,0]`, k, x)
		pipes += fmt.Sprintf(`,["j%d","j%d"]`, k-1, k)
	}
	b := modeltest.Built(t, `{"wireframe":1,"joints":{`+joints+`},"pipes":[`+pipes[1:]+`]}`, nil)
	s := shop.Example()
	p, err := procure.Procure(
		context.Background(),
		[]procure.Lot{{Built: b, Copies: 1}},
		procure.Order{Shop: &s, Work: &record.Work{}, Tool: s.Tools[0]},
	)
	require.NoError(t, err)
	require.Len(t, p.Cuts, 26)
	all := ""
	for i, c := range p.Cuts {
		all += c.Letter + " "
		assert.True(t, i == 0 || c.Cut < p.Cuts[i-1].Cut, "the longest first")
	}
	assert.Equal(t, "A B C D E F G H J K L M N P Q R S T U V W X Y Z AA AB ", all)
}

// Each copy needs its own of everything, hardware included, and its places are in the
// frame that it is for.
func TestEveryCopyIsBought(t *testing.T) {
	one, three := buy(t, 1, "saw", nil), buy(t, 3, "saw", nil)
	assert.Equal(t, 3*one.Totals.Net, three.Totals.Net)
	assert.Equal(t, 3*one.Totals.Fittings, three.Totals.Fittings)
	assert.Equal(t, 12, three.Totals.Pieces)
	last := three.Materials[len(three.Materials)-1]
	assert.Equal(t, 3, last.Quantity)
	assert.Len(t, three.Cuts, 2, "alike pieces are one letter, in every copy")
}

// With a shear no kerf is lost, and the tools that are only compared do not change what is bought.
func TestToolsAreCompared(t *testing.T) {
	p := buy(t, 3, "shear", nil)
	require.Len(t, p.Tools, len(shop.Tools()))
	for _, c := range p.Tools {
		assert.Equal(t, c.ID == "shear", c.Chosen, c.ID)
		assert.GreaterOrEqual(t, c.Sticks, p.Totals.Sticks, "%s needs no fewer sticks than a tool without kerf", c.ID)
	}
}

// A piece that is longer than any stick stays in the footage and on the list, and the
// shortest usual stick that holds it is offered.
func TestAPieceLongerThanAnyStick(t *testing.T) {
	p := buy(t, 1, "saw", func(d *frame.Document) {
		d.EachSize(func(_ *frame.Definition, s *frame.Size) {
			if s.Axis == "x" {
				s.Value = 150 * measure.Inch
			}
		})
	})
	long := measure.FromInches(150 - 2*0.5625)
	assert.Equal(t, 2*long+2*measure.FromInches(30-2*0.5625), p.Totals.Net)
	assert.Equal(t, []string{"A"}, p.Pipe[0].TooLong)
	require.NotEmpty(t, p.Findings)
	assert.Equal(t, "no-stock", p.Findings[0].Code)
	require.Len(t, p.Findings[0].Fixes, 1)
	assert.Equal(t, "Buy 20' sticks", p.Findings[0].Fixes[0].Label)
	found := false
	for _, l := range p.Materials {
		found = found || l.Unit == material.Piece && l.Quantity == 2 && l.Length == long
	}
	assert.True(t, found, "still to be found, as a line of its own")
}
