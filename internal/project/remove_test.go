package project_test

import (
	"context"
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"

	"sturdyelbow/core/edit"
	"sturdyelbow/core/measure"
	"sturdyelbow/internal/project"
)

// Every column, row and level of every part of a screen can be taken away, or is refused
// or asked about in words; a part that loses what it stands on goes along.
func TestEveryPlaneOfEveryPartCanGo(t *testing.T) {
	p := begun("screen")
	made := planned(t, p)
	tried, gone := 0, 0
	for _, place := range made.Frames[0].Places {
		for a := range measure.Axis(3) {
			for _, l := range place.Planes[a] {
				tried++
				e := edit.Edit{Gesture: &edit.Remove{In: place.Path, Axis: a, Plane: l.Ref}}
				next, _, err := p.Edit(context.Background(), e, project.Workshop{})
				var q *edit.Question
				if errors.As(err, &q) {
					e.Answers = append(e.Answers, q.Options[0].ID)
					next, _, err = p.Edit(context.Background(), e, project.Workshop{})
				}
				if err != nil {
					var no *edit.Refusal
					assert.True(t, errors.As(err, &no) || errors.As(err, &q), "%s %v %s: %v", place.Path, a, l.Name, err)
					continue
				}
				planned(t, next)
				gone++
			}
		}
	}
	assert.Greater(t, tried, 20)
	assert.Positive(t, gone)
}
