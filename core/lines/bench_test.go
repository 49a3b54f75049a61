package lines_test

import (
	"os"
	"testing"

	"github.com/stretchr/testify/require"

	"sturdyelbow/core/lines"
)

// BenchmarkPage draws a whole page of lines anew: what a change of its first line costs.
func BenchmarkPage(b *testing.B) {
	for _, name := range []string{"07-sign-stand", "04-sponsor-wall", "16-shade-ring", "20-judges-desk"} {
		b.Run(name, func(b *testing.B) {
			data, err := os.ReadFile("../../testdata/builds/" + name + ".txt")
			require.NoError(b, err)
			all, err := lines.Parse(string(data))
			require.NoError(b, err)
			with := tools(b)
			for b.Loop() {
				page, _, _ := (&lines.Page{Lines: all}).Draw(empty(), with)
				require.Nil(b, page.Wrong)
			}
		})
	}
}

// BenchmarkRead reads one line against a frame of twenty pipes.
func BenchmarkRead(b *testing.B) {
	doc, with := bench(b), tools(b)
	for b.Loop() {
		_, err := lines.Read("j1 j2: right 24 1/2 cut capped", lines.Pen{At: "j4"}, with.Known(doc))
		require.NoError(b, err)
	}
}
