package sound_test

import (
	"context"
	"encoding/json"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/mention"
	"sturdyelbow/core/model/modeltest"
	"sturdyelbow/core/sound"
)

func codes(fs []finding.Finding) (all []string) {
	for _, f := range fs {
		all = append(all, f.Code)
	}
	return all
}

func none(_, _ string) bool { return false }

func TestASquareCanBePutTogether(t *testing.T) {
	assert.Empty(t, sound.Judge(modeltest.Built(t, modeltest.Square, nil), none))
}

// Two rails that nothing joins are two parts; a tie between them makes them one.
func TestPartsAreCounted(t *testing.T) {
	const rails = `{"wireframe":1,"joints":{"a":[0,0,0],"b":[30,0,0],"c":[0,9,0],"d":[30,9,0]},"pipes":[["a","b"],["c","d"]]}`
	found := sound.Judge(modeltest.Built(t, rails, nil), none)
	require.Equal(t, []string{"loose-parts"}, codes(found))
	assert.EqualValues(t, 2, found[0].Figures[0].Value)
	tied := modeltest.Built(t, rails, func(d *frame.Document) {
		on := func(k int) frame.Anchor { return frame.Anchor{Pipe: d.Root.Pipes[k].ID, At: 10 * measure.Inch} }
		d.Root.Links = []frame.Link{{ID: "tie 1", Kind: frame.Tie, On: []frame.Anchor{on(0), on(1)}}}
	})
	assert.Empty(t, sound.Judge(tied, none))
}

// Two pipes that cross without a fitting want the same place, unless they are meant to.
func TestPipesThatCrossWithoutAFitting(t *testing.T) {
	b := modeltest.Built(
		t,
		`{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[20,-20,0],"d":[20,20,0]},"pipes":[["a","b"],["c","d"]]}`,
		nil,
	)
	found := sound.Judge(b, none)
	require.NotEmpty(t, found)
	assert.Equal(t, finding.Stop, found[0].Severity)
	assert.Len(t, found[0].Subjects, 2)
	assert.Equal(t, []string{"loose-parts"}, codes(sound.Judge(b, func(_, _ string) bool { return true })))
}

// What is thinner than the bore stands inside of a tee, or of a pipe, and is no clash; what is too thick, stands beside the
// axis or comes out through the other side is one.
func TestWhatStandsInsideIsNoClash(t *testing.T) {
	for _, c := range []struct {
		size, at string
		clash    bool
	}{
		{"1/2", "0,0,0.2", false},
		{"1/2", "0,0,-9", true}, // through the closed side
		{"1/2", "0.3,0,0.2", true},
		{"3/4", "0,0,0.2", true},
	} {
		x := strings.Split(c.at, ",")
		text := `{"wireframe":1,"size":"1","joints":{"a":[-20,0,0],"o":[0,0,0],"b":[20,0,0],"p":[` + c.at + `],"q":[` + x[0] + `,0,30]},
			"pipes":[["a","o"],["o","b"],{"from":"p","to":"q","size":"` + c.size + `"}],"fittings":{"o":{"kind":"tee","spare":[[0,0,1]]}}}`
		assert.Equal(t, c.clash, slices.ContainsFunc(sound.Judge(modeltest.Built(t, text, nil), none), func(f finding.Finding) bool {
			return f.Code == "no-room"
		}), "%s at %s", c.size, c.at)
	}
	inside := `{"wireframe":1,"size":"1","joints":{"a":[0,0,0],"b":[0,0,30],"p":[0,0,20],"q":[0,0,50]},
		"pipes":[["a","b"],{"from":"p","to":"q","size":"1/2"}]}`
	for _, f := range sound.Judge(modeltest.Built(t, inside, nil), none) {
		assert.NotEqual(t, "no-room", f.Code)
	}
}

// A piece of 1 1/2 in between two elbows has no room in their sockets: it reads like a
// pipe's name, and the size along it, made larger by what two stops and two sockets of the
// typical elbow take, gives the room.
func TestAPieceWithoutRoom(t *testing.T) {
	for label, want := range map[string]string{
		"Gap": `Make Gap 2 9/16"`,
		"":    `1 1/2" centre to centre from x0 to x1 becomes 2 9/16"`,
	} {
		b := modeltest.Built(t, narrow, func(d *frame.Document) {
			d.EachSize(func(_ *frame.Definition, s *frame.Size) {
				if s.Axis == "x" {
					s.Label = label
				}
			})
		})
		require.Contains(t, codes(sound.Judge(b, none)), "length-or-size")
		require.True(t, b.List.Pieces[1].TooShort)
		found := []finding.Finding{
			finding.New("too-short", finding.Stop, finding.All(finding.Pipe, b.List.Pieces[1].Pipe)...),
			finding.New("hovers", finding.Note),
		}
		sound.OfferRoom(context.Background(), b, found)
		require.Len(t, found[0].Fixes, 1)
		assert.Equal(t, want, mention.ByID(found[0].Fixes[0].Label))
		assert.Empty(t, found[1].Fixes, "only what is too short")
	}
}

const narrow = `{"wireframe":1,"joints":{"a":[0,0,9],"b":[0,0,0],"c":[1.5,0,0],"d":[1.5,0,9]},"pipes":[["a","b"],["b","c"],["c","d"]]}`

// Room is offered in steps of the tape that the frame is cut by, and in its unit.
func TestRoomIsOfferedInStepsOfTheTape(t *testing.T) {
	b := modeltest.Built(t, modeltest.Square, func(d *frame.Document) {
		d.Units = measure.Millimetres
		d.Root.Sizes[1].Value = 40 * measure.Millimetre
	})
	b.Step = measure.Millimetre
	fs := []finding.Finding{finding.New("too-short", finding.Stop, finding.All(finding.Pipe, b.Pipes[1].Pipe)...)}
	sound.OfferRoom(context.Background(), b, fs)
	require.NotEmpty(t, fs[0].Fixes)
	assert.Regexp(t, `becomes \d+ mm$`, fs[0].Fixes[0].Label)
	var text string
	require.NoError(t, json.Unmarshal(fs[0].Fixes[0].Edits[0].Value, &text))
	l, err := measure.Parse(text, measure.Reading{})
	require.NoError(t, err)
	assert.Zero(t, l%measure.Millimetre)
}
