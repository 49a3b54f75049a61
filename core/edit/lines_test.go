package edit_test

import (
	"context"
	"encoding/json"
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/model"
	"sturdyelbow/core/plan"
)

// pageTools draws lines as the shop's figures have it.
func pageTools() lines.Tools {
	return lines.Tools{
		Edit: func(d *frame.Document, e edit.Edit) (*frame.Document, edit.Done, error) {
			return plan.Edit(context.Background(), d, e, nil)
		},
		Locate: func(d *frame.Document) (*model.Located, error) {
			return model.Locate(context.Background(), d, catalog.Typical())
		},
	}
}

// written is a document as it is stored.
func written(t require.TestingT, d *frame.Document) string {
	data, err := json.MarshalIndent(d, "", " ")
	require.NoError(t, err)
	return string(data)
}

// Whatever is done by hand appears as its line, and the lines draw the same document again: from
// the page, and from the page as a text. Only what a line cannot say is written in full.
func TestWhatIsDoneByHandIsDrawnAgainFromItsLines(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		h := nothing(t)
		empty := h.doc
		page := lines.Page{}
		for range rapid.IntRange(1, 16).Draw(t, "gestures") {
			var g edit.Gesture = &edit.Begin{}
			if len(h.doc.Root.Joints)+len(h.doc.Root.Uses) > 0 {
				g = anyGesture(t, h, rapid.Bool().Draw(t, "careful"))
			}
			e := edit.Edit{Gesture: g}
			for range 8 {
				before := h.doc
				ready := page.Ready(before)
				doc, done, err := plan.Edit(context.Background(), ready, e, nil)
				var q *edit.Question
				if errors.As(err, &q) {
					e.Answers = append(e.Answers, q.Options[rapid.IntRange(0, len(q.Options)-1).Draw(t, "answer")].ID)
					continue
				}
				if err == nil {
					page.Add(e, done, before, doc)
					h.doc = doc
					if line := page.Lines[page.Drawn-1].Text; strings.HasPrefix(line, "do ") {
						require.IsType(t, &edit.Bring{}, g, line)
					}
				}
				break
			}
		}
		again, doc, _ := page.Draw(empty, pageTools())
		require.Nil(t, again.Wrong, "%v\n%s", again.Wrong, lines.Text(page.Lines))
		require.Equal(t, written(t, h.doc), written(t, doc), lines.Text(page.Lines))
		require.Equal(t, page.Lines, again.Lines, "each line is written as it was")

		read, err := lines.Parse(lines.Text(page.Lines))
		require.NoError(t, err)
		_, doc, _ = (&lines.Page{Lines: read}).Draw(empty, pageTools())
		require.Equal(t, written(t, h.doc), written(t, doc), "from the text:\n%s", lines.Text(page.Lines))
	})
}
