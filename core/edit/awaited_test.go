package edit_test

import (
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/edit"
)

// hung draws a wall: a column at the left from the bottom up, a top rail, and columns that hang from it. It gives the
// joints of each column from the bottom up, without the top.
func hung(t require.TestingT, bays, rows int, rung string) (h *hand, columns [][]string) {
	h = nothing(t)
	at := h.begin()
	first := []string{at}
	for range rows {
		at = h.walk(at, "up 12 cut")
		first = append(first, at)
	}
	columns = append(columns, first[:rows])
	for range bays {
		at = h.walk(at, "right "+rung)
		column, down := make([]string, rows), at
		for k := range rows {
			down = h.walk(down, "down 12 cut")
			column[rows-1-k] = down
		}
		columns = append(columns, column)
	}
	return h, columns
}

// Rungs are run from the left, in any order of the rows. What the far column has is still a coupling when the run looks
// for it, and in a wall of two bays the next column has one, too: every run meets, and nothing is asked.
func TestRungsAreRunInAnyOrder(t *testing.T) {
	for _, rows := range [][]int{{0, 1, 2}, {0, 2, 1}, {1, 0, 2}, {1, 2, 0}, {2, 0, 1}, {2, 1, 0}} {
		for _, line := range []string{"right 24 cut", "right to %s"} {
			h, columns := hung(t, 2, 3, "24 cut")
			for _, row := range rows {
				for bay := range 2 {
					to := columns[bay+1][row]
					typed := line
					if line != "right 24 cut" {
						typed = fmt.Sprintf(line, to)
					}
					require.Equal(t, to, h.walk(columns[bay][row], typed), "%v, %s", rows, typed)
				}
			}
			p := h.plan()
			assert.Len(t, p.Frames[0].Joints, 12)
			for _, x := range p.Frames[0].Pipes {
				assert.Contains(t, []string{"12", "24"}, x.Cut.Tape("")[:2], "%v, %s: %s is %s", rows, line, x.Pipe, x.Cut)
			}
			assert.NotContains(t, h.codes(), "tee-waits")
		}
	}
}

// Where a pipe is still to come, its tee is there already, is told, and is a finding until the pipe is.
func TestATeeWaitsForItsPipe(t *testing.T) {
	h, columns := hung(t, 2, 2, "24 cut")
	h.walk(columns[0][0], "right 24 cut")
	h.walk(columns[1][0], "right 24 cut")
	done := h.do(edit.Edit{Gesture: &edit.Walk{From: columns[0][1], Line: "right 24 cut"}})
	require.Equal(t, columns[1][1], done.Joint)
	assert.Contains(t, done.Also, fmt.Sprintf("a tee at ⟨%s⟩, for what is still to come: only so do all cuts hold", columns[2][1]))
	assert.Contains(t, h.codes(), "tee-waits")
	require.Equal(t, columns[2][1], h.walk(columns[1][1], "right 24 cut"))
	assert.NotContains(t, h.codes(), "tee-waits")
	for _, j := range h.doc.Root.Joints {
		assert.Nil(t, j.Fitting, j.ID)
	}
}

// The tee that waits goes when what it waited for goes: the rung that made it needed, or the size that did. It may be said that
// no pipe comes there, and then what was typed cannot hold, which is asked.
func TestATeeThatWaitsInVainGoes(t *testing.T) {
	h, columns := hung(t, 2, 2, "24 cut")
	h.walk(columns[0][0], "right 24 cut")
	h.walk(columns[1][0], "right 24 cut")
	h.walk(columns[0][1], "right 24 cut")
	require.Contains(t, h.codes(), "tee-waits")
	rung := h.done.Pipe
	q := h.asks(&edit.Fit{Joint: columns[2][1]})
	assert.Equal(t, "What gives way?", q.Title)
	waits := h.doc
	done := h.do(edit.Edit{Gesture: &edit.Delete{Pipes: []string{rung}}})
	assert.Contains(t, done.Also, fmt.Sprintf("⟨%s⟩ needs no tee any more", columns[2][1]))
	assert.NotContains(t, h.codes(), "tee-waits")
	assert.Empty(t, h.doc.Root.Joints[0].Fitting)

	h.doc = waits // the far column is taken away instead
	h.do(edit.Edit{Gesture: &edit.Delete{Joints: []string{columns[2][0]}}})
	assert.NotContains(t, h.codes(), "tee-waits")
}

// Nothing shows that a rail is to have a tee in its middle: whoever typed a piece an inch too short is asked.
func TestATeeThatNothingShowsIsAskedFor(t *testing.T) {
	h := nothing(t)
	at := h.begin()
	left := h.walk(at, "up 12 cut")
	middle := h.walk(left, "right 12 cut")
	right := h.walk(middle, "right 12 cut")
	below := h.walk(at, "right 25.125 cut") // two take-offs of a tee are 1 1/8 in, those of a coupling 1/8
	q := h.asks(&edit.Walk{From: below, Line: "up 12 cut"})
	assert.Equal(t, fmt.Sprintf("Meet ⟨%s⟩, with a tee at ⟨%s⟩", right, middle), q.Options[0].Label)
	assert.Equal(t, "Stay apart, as typed", q.Options[len(q.Options)-1].Label)
}

// Posts that are joined rung by rung, in any order, stand straight as if they had been run: a rung that is typed shorter
// later asks the same.
func TestJoinedIsAsIfRun(t *testing.T) {
	asks := func(joined bool, order ...int) (labels []string) {
		h := nothing(t)
		at := h.begin()
		left := []string{at}
		for range 4 {
			at = h.walk(at, "up 12 cut")
			left = append(left, at)
		}
		var right []string
		for _, at := range left {
			right = append(right, h.walk(at, "right 36 cut"))
		}
		for _, k := range order {
			if joined {
				h.do(edit.Edit{Gesture: &edit.Join{From: right[k], To: right[k+1]}})
			} else {
				h.walk(right[k], "up to "+right[k+1])
			}
		}
		for _, p := range h.doc.Root.Pipes {
			require.NotNil(t, p.Dir, "%s slopes", p.ID)
		}
		for _, o := range h.asks(&edit.Size{Pipe: "p6", Length: "24 cut"}).Options {
			labels = append(labels, o.Label)
		}
		return labels
	}
	want := asks(false, 0, 1, 2, 3)
	for _, order := range [][]int{{0, 1, 2, 3}, {3, 2, 1, 0}, {1, 3, 0, 2}} {
		got := asks(true, order...)
		assert.Equal(t, want[0], got[0])
		assert.Len(t, got, len(want))
	}
}
