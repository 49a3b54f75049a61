package procure_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/record"
)

func codesOf(p *procure.Purchase) map[string]int {
	all := map[string]int{}
	for _, f := range p.Findings {
		all[f.Code]++
	}
	return all
}

// What is cemented stays: made narrower, a cut piece is trimmed, and one that is cemented is kept
// as it is, and told; wider, neither it nor its place is cut anew.
func TestWhatIsCementedStays(t *testing.T) {
	b := workshop(t)
	b.copies = 1
	p := b.plan()
	for range p.Pipe[0].Sticks {
		b.cut(b.plan(), 9)
	}
	var rails []record.Made // those of 38 7/8
	for _, m := range record.Add(b.events).Pieces {
		if m.Length == 38*measure.Inch+measure.Inch*7/8 {
			rails = append(rails, m)
		}
	}
	require.Len(t, rails, 2)
	b.did(record.Event{Kind: record.Cemented, Piece: &rails[0].Piece, Joint: "j1"})

	b.wide = 39 * measure.Inch
	p = b.plan()
	fates := map[string]procure.Fate{}
	for _, e := range p.Existing {
		fates[e.ID] = e.Fate
		assert.Equal(t, e.ID == rails[0].ID, e.Cemented)
	}
	assert.Equal(t, procure.Keep, fates[rails[0].ID])
	assert.Equal(t, procure.Trim, fates[rails[1].ID])
	codes := codesOf(p)
	assert.Equal(t, 1, codes["cemented-otherwise"])
	assert.Equal(t, 1, codes["to-trim"])
	i := 0
	for p.Findings[i].Code != "cemented-otherwise" {
		i++
	}
	assert.Equal(t, finding.Warn, p.Findings[i].Severity)

	b.wide = 44 * measure.Inch
	p = b.plan()
	for _, e := range p.Existing {
		if e.ID == rails[0].ID {
			assert.Equal(t, procure.Keep, e.Fate)
			assert.False(t, e.Used, "nothing is cut from it")
		}
		if e.ID == rails[1].ID {
			assert.Equal(t, procure.Recut, e.Fate)
		}
	}

	// the size of the pipe is another: nothing asks for it any more
	b.size = "1"
	p = b.plan()
	assert.Equal(t, 1, codesOf(p)["cemented-surplus"])
	for i := range p.Pipe {
		for _, s := range p.Pipe[i].Sticks {
			assert.NotEqual(t, rails[0].ID, s.ID, "nor is anything cut from it")
		}
	}
}
