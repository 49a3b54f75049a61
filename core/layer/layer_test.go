package layer_test

import (
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/layer"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
)

func build(t require.TestingT, id string, answers map[string]starter.Answer) *frame.Document {
	s, ok := starter.Find(id)
	require.True(t, ok)
	d, err := s.Build(measure.Inches, answers)
	require.NoError(t, err)
	return d.Clone()
}

func bays(n int) map[string]starter.Answer {
	return map[string]starter.Answer{"bays": {Text: fmt.Sprint(n)}}
}

// A riser on a post of a screen: put over a wider screen it stands on the same
// post, and what was not touched is as the wider one has it.
func Example() {
	s, _ := starter.Find("screen")
	base, _ := s.Build(measure.Inches, nil)
	now := base.Clone()
	now.Root.Joints = append(now.Root.Joints, frame.Joint{ID: "j1", End: frame.CappedEnd})
	now.Root.Pipes = append(now.Root.Pipes, frame.Pipe{ID: "p1", From: "right/top", To: "j1", Dir: &measure.Dir{0, 0, 1}})
	l := layer.Between(&base, now)
	wide, _ := s.Build(measure.Inches, map[string]starter.Answer{"width": {Text: "10 ft"}, "bays": {Text: "5"}})
	doc, aside, _ := l.Over(&wide)
	fmt.Println(len(l), "records,", len(aside), "aside,", doc.SizeOf("width").Text, "wide,", doc.Root.Pipes[len(doc.Root.Pipes)-1].From)
	// Output: 2 records, 0 aside, 10 ft wide, right/top
}

// A changed thing keeps of itself what was changed, and follows in the rest.
func TestMembersAreBlended(t *testing.T) {
	base := build(t, "screen", nil)
	now := base.Clone()
	now.SizeOf("width").Label = "Gate"
	now.Root.Use("right").Mode = frame.Slip
	l := layer.Between(base, now)
	require.Len(t, l, 2)
	doc, aside, lost := l.Over(build(t, "screen", map[string]starter.Answer{"width": {Text: "90"}}))
	assert.Empty(t, aside)
	assert.Empty(t, lost)
	assert.Equal(t, "Gate", doc.SizeOf("width").Label)
	assert.Equal(t, 90*measure.Inch, doc.SizeOf("width").Value)
	assert.Equal(t, frame.Slip, doc.Root.Use("right").Mode)
}

// What was taken away stays away, and what a new base would run to it goes too,
// and is named.
func TestWhatWasTakenAwayStaysAway(t *testing.T) {
	base := build(t, "screen", bays(3))
	now := base.Clone()
	now.Root.Uses = append(now.Root.Uses[:1:1], now.Root.Uses[2:]...) // post 1
	now.Root.Pipes = nil
	l := layer.Between(base, now)
	doc, aside, lost := l.Over(build(t, "screen", bays(4)))
	assert.Empty(t, aside)
	assert.Nil(t, doc.Root.Use("post 1"))
	assert.NotNil(t, doc.Root.Use("post 3"))
	_, err := frame.Expand(doc)
	require.NoError(t, err)
	assert.Empty(t, lost, "the rails between neighbours of then and of now are told apart by their posts")
	for _, p := range doc.Root.Pipes {
		assert.NotContains(t, p.From+p.To, "post 1/")
	}
}

// A part of its own hangs on nothing and stays whatever the base; one that hung
// on a post goes with it, feet and all.
func TestWhatHungGoesAndWhatStoodAloneStays(t *testing.T) {
	base := build(t, "screen", bays(3))
	now := base.Clone()
	dir := &measure.Dir{1, 0, 0}
	now.Root.Joints = append(now.Root.Joints, frame.Joint{ID: "a"}, frame.Joint{ID: "b"}, frame.Joint{ID: "c"}, frame.Joint{ID: "d"})
	now.Root.Pipes = append(
		now.Root.Pipes,
		frame.Pipe{ID: "alone", From: "a", To: "b", Dir: dir},
		frame.Pipe{
			ID:   "arm",
			From: "post 2/top",
			To:   "c",
			Dir:  &measure.Dir{0, 0, 1},
		},
		frame.Pipe{ID: "hand", From: "c", To: "d", Dir: dir},
	)
	l := layer.Between(base, now)
	doc, aside, _ := l.Over(build(t, "screen", bays(2)))
	assert.NotNil(t, doc.Root.Pipe("alone"))
	assert.Nil(t, doc.Root.Pipe("arm"))
	assert.Nil(t, doc.Root.Pipe("hand"))
	var words []string
	for i := range aside {
		words = append(words, aside[i].Words())
	}
	assert.Equal(t, "c, d, pipe arm, pipe hand", strings.Join(words, ", "))
	assert.Equal(t, []string{"post 2/top"}, aside.Missing(doc))
	again, aside, _ := l.Over(build(t, "screen", bays(3)))
	assert.Empty(t, aside)
	assert.NotNil(t, again.Root.Pipe("hand"))
}

// Whatever was changed of a document, the layer over the base that it was made
// from gives it back, thing by thing, and goes through JSON unchanged.
func TestALayerOverItsOwnBaseIsTheDocument(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.SampledFrom(starter.All()).Draw(t, "starter")
		base := build(t, s.ID, nil)
		now := base.Clone()
		defs := now.Definitions()
		for range rapid.IntRange(1, 6).Draw(t, "changes") {
			def := defs[rapid.IntRange(0, len(defs)-1).Draw(t, "definition")]
			n := rapid.IntRange(0, 99).Draw(t, "n")
			switch rapid.IntRange(0, 5).Draw(t, "change") {
			case 0:
				def.Joints = append(def.Joints, frame.Joint{ID: fmt.Sprintf("new %d %d", len(def.Joints), n)})
			case 1:
				if len(def.Pipes) > 0 {
					i := n % len(def.Pipes)
					def.Pipes = append(def.Pipes[:i:i], def.Pipes[i+1:]...)
				}
			case 2:
				if len(def.Joints) > 0 {
					def.Joints[n%len(def.Joints)].Mode = frame.Pinned
				}
			case 3:
				if len(def.Sizes) > 0 {
					z := &def.Sizes[n%len(def.Sizes)]
					z.Value, z.Text, z.Gave = measure.Length(n+1)*measure.Inch, "", &frame.GaveWay{Words: "something"}
				}
			case 4:
				now.ClearanceChecks = append(
					now.ClearanceChecks,
					frame.ClearanceCheck{
						ID:   fmt.Sprintf("door %d %d", len(now.ClearanceChecks), n),
						Kind: frame.Reach,
						Size: [3]measure.Length{measure.Foot},
					},
				)
			case 5:
				now.Size, now.Seats = "1", map[frame.Mode]float64{frame.Slip: 0.7}
			}
		}
		if _, err := frame.Expand(now); err != nil {
			return // it makes no sense by itself
		}
		l := layer.Between(base, now)
		data, err := json.Marshal(l)
		require.NoError(t, err)
		var read layer.Layer
		require.NoError(t, json.Unmarshal(data, &read))
		doc, aside, lost := read.Over(base)
		require.Empty(t, aside)
		require.Empty(t, lost)
		require.Empty(t, layer.Between(now, doc), "nothing differs")
	})
}
