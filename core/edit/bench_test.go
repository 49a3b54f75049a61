package edit_test

import (
	"context"
	"fmt"
	"testing"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
)

// fence is a screen of 13 bays and 6 rails: 149 pipes, and its feet.
func fence(b *testing.B) *frame.Document {
	s, _ := starter.Find("screen")
	d, err := s.Build(measure.Inches, map[string]starter.Answer{"bays": {Text: "13"}, "rails": {Text: "5"}, "width": {Text: "40 ft"}})
	if err != nil {
		b.Fatal(err)
	}
	return &d
}

// A gesture on a frame of about 150 pipes, from the document to the plan of what
// follows, without the purchase. The goal is 20 ms.
func BenchmarkGestureOn150Pipes(b *testing.B) {
	d := fence(b)
	job := plan.Job{Frames: []plan.FrameUse{{Document: *d, Copies: 1}}, Tool: "saw"}
	p, err := plan.Draft(context.Background(), job, plan.ExampleShop(), plan.Work{})
	if err != nil {
		b.Fatal(err)
	}
	b.Logf("%d pipes", len(p.Frames[0].Pipes))
	for name, g := range map[string]edit.Gesture{
		"walk":  &edit.Walk{From: "left/top", Line: "up 12 capped"},
		"split": &edit.Split{Pipe: "top left-post 1"},
		"size":  &edit.Size{ID: "width", Length: "41 ft"},
		"check": &edit.ClearanceCheck{Name: "door", Kind: frame.Doorway, Say: "32"},
		"end":   &edit.EndOf{Joint: "left/foot/front", End: frame.StakedEnd},
	} {
		b.Run(name, func(b *testing.B) {
			for range b.N {
				after, _, err := plan.Edit(context.Background(), d, edit.Edit{Gesture: g}, nil)
				if err != nil {
					b.Fatal(err)
				}
				job := plan.Job{Frames: []plan.FrameUse{{Document: *after, Copies: 1}}, Tool: "saw"}
				if _, err := plan.Draft(context.Background(), job, plan.ExampleShop(), plan.Work{}); err != nil {
					b.Fatal(fmt.Errorf("%s: %w", name, err))
				}
			}
		})
	}
}
