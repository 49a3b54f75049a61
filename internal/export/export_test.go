package export_test

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/internal/export"
)

func Example() {
	ds, _ := export.ReadCutList("size,length,count\n3/4,23 5/8,4\n1,5'7\",2\n", measure.Inches)
	for _, d := range ds {
		fmt.Println(d.Count, "of", d.Material, d.Length)
	}
	_, err := export.ReadCutList("3/4, 23 5/8, 4\n3/4, about 9, 2", measure.Inches)
	fmt.Println(err)
	// Output:
	// 4 of 3/4 23 5/8"
	// 2 of 1 67"
	// line 2, length: "about 9": "about" is not a unit; use in, ft, mm, cm or m
}

func TestReadCutListForms(t *testing.T) {
	want := 23*measure.Inch + 5*measure.Inch/8
	for name, text := range map[string]string{
		"header":     "size,length,count\n3/4,23 5/8,4",
		"reordered":  "count,size,length\n4,3/4,\"23 5/8\"",
		"tabs":       "3/4\t23-5/8\"\t4",
		"semicolons": "3/4;23 5/8;4",
		"comments":   "# left side\n\n3/4, 23.625 in, 4\r\n",
		"bom":        "\ufeffsize,length,count\n3/4,23 5/8,4\n",
	} {
		ds, err := export.ReadCutList(text, measure.Inches)
		require.NoError(t, err, name)
		require.Len(t, ds, 1, name)
		assert.Equal(t, "3/4", ds[0].Material, name)
		assert.Equal(t, want, ds[0].Length, name)
		assert.Equal(t, 4, ds[0].Count, name)
	}
	ds, err := export.ReadCutList("24, 2\n18\n", measure.Inches)
	require.NoError(t, err)
	assert.Equal(t, "pipe", ds[0].Material)
	assert.Equal(t, 1, ds[1].Count)
	long, err := export.ReadCutList("2000 ft", measure.Inches)
	require.NoError(t, err)
	assert.Equal(t, 2000*measure.Foot, long[0].Length)
}

func TestReadCutListSaysWhere(t *testing.T) {
	for text, where := range map[string]string{
		"":                                  "line 1, line",
		"size,length,count\n3/4,x,1":        "line 2, length",
		"size,length,count\n,5,1":           "line 2, size",
		"size,length,count\n3/4,5,many":     "line 2, count",
		"size,length,count\n3/4,5,-1":       "line 2, count",
		"size,length,count\n3/4,0,1":        "line 2, length",
		"size,length,count\n3/4,23,625,1":   "line 2, line",
		"size,length,count\n3/4,5,99999999": "line 2, count",
	} {
		_, err := export.ReadCutList(text, measure.Inches)
		if assert.Error(t, err, text) {
			assert.True(t, strings.HasPrefix(err.Error(), where), "%q: %v", text, err)
		}
	}
}

func FuzzReadCutList(f *testing.F) {
	f.Add("size,length,count\n3/4,23 5/8,4")
	f.Add("3/4\t5'7\"\t2")
	f.Fuzz(func(t *testing.T, text string) {
		ds, err := export.ReadCutList(text, measure.Inches)
		if err != nil {
			var le export.LineErrors
			require.ErrorAs(t, err, &le)
			return
		}
		for _, d := range ds {
			require.Positive(t, d.Length)
			require.Positive(t, d.Count)
		}
	})
}

func TestWrittenCutListReadsBack(t *testing.T) {
	s, _ := starter.Find("screen")
	doc, err := s.Build(measure.Inches, nil)
	require.NoError(t, err)
	p, err := plan.Make(
		context.Background(),
		plan.Job{Frames: []plan.FrameUse{{Document: doc, Copies: 2}}, Tool: "saw"},
		plan.ExampleShop(),
		plan.Work{},
	)
	require.NoError(t, err)
	for _, style := range []measure.Style{measure.InInches, measure.FeetInches, measure.Decimal, measure.Metric} {
		var b bytes.Buffer
		require.NoError(t, export.CutList(&b, p, style))
		ds, err := export.ReadCutList(b.String(), measure.Inches)
		require.NoError(t, err)
		require.Len(t, ds, len(p.Cuts))
		for i, g := range p.Cuts {
			assert.Equal(t, g.Cut, ds[i].Length)
			assert.Equal(t, g.Count, ds[i].Count)
		}
	}
	p.Frames[0].Waiting = &plan.Waiting{Lines: 3, Words: "3 lines wait", Line: 5, Text: "right 4 foo"}
	var b bytes.Buffer
	require.NoError(t, export.CutList(&b, p, measure.InInches))
	assert.Contains(t, b.String(), "# unfinished: 3 lines wait of ")
	ds, err := export.ReadCutList(b.String(), measure.Inches)
	require.NoError(t, err)
	assert.Len(t, ds, len(p.Cuts), "what it says of itself is no piece")
	b.Reset()
	require.NoError(t, export.Shopping(&b, p))
	assert.Contains(t, b.String(), "# unfinished: 3 lines wait of ")
	assert.Contains(t, b.String(), "with example prices")
	assert.Contains(t, b.String(), "3/4 in elbow 90°")
}
