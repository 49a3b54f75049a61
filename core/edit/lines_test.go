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
	"sturdyelbow/core/measure"
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

// anyLine is some gesture, of those that only lines and cards make as well.
func anyLine(t *rapid.T, h *hand) edit.Gesture {
	var joints, pipes []string
	for _, j := range h.plan().Frames[0].Joints {
		joints = append(joints, j.ID)
	}
	for _, p := range h.plan().Frames[0].Pipes {
		pipes = append(pipes, p.Pipe)
	}
	if len(joints) == 0 {
		return &edit.Begin{}
	}
	joint := func() string { return rapid.SampledFrom(joints).Draw(t, "joint") }
	pipe := func() string { return rapid.SampledFrom(append(pipes, "none")).Draw(t, "pipe") }
	switch rapid.IntRange(0, 14).Draw(t, "more") {
	case 0:
		f := &edit.Fit{Joint: joint(), More: []string{joint()}}
		if f.Kind = rapid.SampledFrom([]catalog.Kind{"", catalog.Tee, catalog.Cross, catalog.Coupling}).Draw(t, "kind"); f.Kind != "" {
			f.Spare = []measure.Dir{rapid.SampledFrom([]measure.Dir{{0, 0, 1}, {1, 1, 0}, {0.3, -0.2, 0.77}}).Draw(t, "spare")}
			f.Plugged = rapid.Bool().Draw(t, "plugged")
		}
		return f
	case 1:
		e := &edit.EndOf{End: rapid.SampledFrom(frame.Ends()).Draw(t, "end"), All: rapid.Bool().Draw(t, "all")}
		if !e.All {
			e.Joint = joint()
		}
		return e
	case 2:
		return &edit.Hold{Joints: []string{joint()}, Pipes: []string{pipe()}, Mode: rapid.SampledFrom(frame.Modes()).Draw(t, "mode")}
	case 3:
		return &edit.Usual{
			Size:  rapid.SampledFrom([]catalog.Size{"", "1", "2"}).Draw(t, "size"),
			Units: rapid.SampledFrom([]measure.Unit{"", "in", "mm"}).Draw(t, "units"),
			Mode:  rapid.SampledFrom([]frame.Mode{"", frame.Slip}).Draw(t, "mode"),
		}
	case 4:
		return &edit.Retype{ID: anySize(t, h.doc), Length: rapid.SampledFrom([]string{"9", "7 1/2 cut", "200 mm clear"}).Draw(t, "length")}
	case 5:
		return &edit.Stand{
			Turns: []frame.Turn{{About: measure.X, By: 12.5}, {About: measure.Z, By: -90}}[:rapid.IntRange(0, 2).Draw(t, "turns")],
			Held:  rapid.Bool().Draw(t, "held"),
		}
	case 6:
		return &edit.Ring{On: joint(), Sides: 4, Side: "6 cut", Square: measure.Axis(rapid.IntRange(0, 2).Draw(t, "square"))}
	case 7, 8:
		return &edit.Walk{From: joint(), More: []string{joint(), joint()}, Line: "up 4 cut capped"}
	case 9:
		return &edit.Begin{From: joint(), Say: "30 right, 4 up", Name: rapid.SampledFrom([]string{"", "foot"}).Draw(t, "name")}
	case 10:
		return &edit.Walk{From: joint(), Line: rapid.SampledFrom([]string{
			"right to " + joint(), "up level with " + joint(), "toward " + joint(), "near touching", "toward " + pipe(), "along " + pipe() + " 5",
			"up to z1", "right@20 6 cut size 1", "left to " + pipe(),
		}).Draw(t, "course")}
	case 12:
		return &edit.Rails{Pairs: [][2]string{{joint(), joint()}, {joint(), joint()}}}
	case 13:
		return &edit.Repeat{
			Part:  "g 1",
			Count: rapid.IntRange(2, 4).Draw(t, "count"),
			Axis:  measure.Y,
			Pitch: "30",
			Rails: []string{joint()},
		}
	case 14:
		return &edit.MakeGroup{Name: "g", Joints: []string{joint(), joint(), joint()}}
	case 11:
		return &edit.ClearanceCheck{Name: "hall door", Kind: frame.Doorway, Say: "32 x 80"}
	}
	return anyGesture(t, h, rapid.Bool().Draw(t, "careful"))
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
				g = anyLine(t, h)
			}
			e := edit.Edit{Gesture: g}
			for range 8 {
				before := h.doc
				ready := page.Ready(before, lines.Line{})
				doc, done, err := plan.Edit(context.Background(), ready, e, nil)
				var q *edit.Question
				if errors.As(err, &q) {
					e.Answers = append(e.Answers, q.Options[rapid.IntRange(0, len(q.Options)-1).Draw(t, "answer")].ID)
					continue
				}
				if err == nil {
					page.Add(e, done, before, doc, "")
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
		read, err := lines.Parse(lines.Text(page.Lines))
		require.NoError(t, err)
		last, doc, _ := (&lines.Page{Lines: read}).Draw(empty, pageTools())
		require.Equal(t, again.Lines, last.Lines, "each line is written as it is read")
		require.Equal(t, written(t, h.doc), written(t, doc), "from the text:\n%s", lines.Text(page.Lines))
	})
}
