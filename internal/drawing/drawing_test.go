package drawing_test

import (
	"context"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/drawing"
)

func planned(t require.TestingT, id, name string) *plan.Plan {
	s, _ := starter.Find(id)
	doc, err := s.Build(measure.Inches, map[string]starter.Answer{"mode": {Text: "slip"}})
	require.NoError(t, err)
	doc.Name = name
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 1}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	return p
}

func Example() {
	s, _ := starter.Find("table")
	doc, _ := s.Build(measure.Inches, nil)
	p, _ := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 1}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	svg := drawing.Frame(&p.Frames[0], drawing.Options{Style: measure.InInches})
	fmt.Println(strings.Count(svg, `class="piece"`), "pipes drawn")
	// Output: 16 pipes drawn
}

// elements reads the drawing as XML and counts elements by their class.
func elements(t *testing.T, svg string) map[string]int {
	n := map[string]int{}
	d := xml.NewDecoder(strings.NewReader(svg))
	for {
		tok, err := d.Token()
		if errors.Is(err, io.EOF) {
			return n
		}
		require.NoError(t, err)
		if e, ok := tok.(xml.StartElement); ok {
			for _, a := range e.Attr {
				if a.Name.Local == "class" {
					n[a.Value]++
				}
			}
		}
	}
}

func TestEveryPieceIsDrawnAndLettered(t *testing.T) {
	for _, s := range starter.All() {
		p := planned(t, s.ID, `<script>"&'`)
		svg := drawing.Frame(&p.Frames[0], drawing.Options{Style: measure.FeetInches})
		n := elements(t, svg)
		assert.Equal(t, len(p.Frames[0].Pipes), n["piece"], s.ID)
		assert.Equal(t, len(p.Frames[0].Pipes), n["tag"])
		dry := 0
		for _, i := range p.Frames[0].Insertions {
			if i.Pipe && i.Mode != frame.Cemented {
				dry++
			}
		}
		assert.Equal(t, dry, n["ring dry"], "an open ring at every dry joint")
		assert.Zero(t, n["ring cemented"])
		assert.NotContains(t, svg, "<script>")
	}
}

// A plain drawing leaves out what a thumbnail has no room for.
func TestAPlainDrawingHasNoLettersOrSizes(t *testing.T) {
	p := planned(t, "table", "Table")
	n := elements(t, drawing.Frame(&p.Frames[0], drawing.Options{Plain: true}))
	assert.Equal(t, len(p.Frames[0].Pipes), n["piece"])
	assert.Zero(t, n["tag"]+n["dim"])
}

// Every kind in the catalog has a picture, with a bore for each port that
// faces the viewer; a plug has none.
func TestEveryKindHasAPicture(t *testing.T) {
	all := drawing.Pictures()
	bores := map[catalog.Kind]int{
		catalog.Elbow90: 2, catalog.Elbow45: 1, catalog.Tee: 2, catalog.Cross: 2, catalog.Coupling: 1, catalog.SideOutletElbow: 3,
		catalog.SideOutletTee: 3, catalog.SideOutletCross: 3, catalog.SixWay: 3, catalog.Cap: 1, catalog.Bushing: 1, catalog.ReducingCoupling: 1, catalog.Plug: 0,
	}
	require.Len(t, all, len(bores))
	for k, want := range bores {
		assert.Equal(t, want, elements(t, all[k])["bore"], k)
	}
}
