package edit

import (
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sturdyelbow/core/mention"

	"sturdyelbow/core/frame"
)

// round is what may be said last of a place: where round the pipe it is.
var round = regexp.MustCompile(`(?i)^(.*?),? +(?:on the +(top|bottom|left|right|front|back)|turned +(-?[0-9.]+)°?)$`)

// from is what a place along a pipe is measured from.
var from = regexp.MustCompile(
	`(?i)^(.*?)(?: +from(?: +the)?(?: +(end|face|centre|center))?(?: +of)?(?: +(.+?))?(?: +(end|face|centre|center))?)?$`,
)

// readAnchor reads a place as it is typed: "j3", "p1" for its middle, "p1 at 12",
// "p1 at 12 from j2", "p1 at 12 from the face of j2", "p1 at 12 on the left",
// "p1 at 12 turned 90", and as [frame.Graph.Says] says it.
func (e *editor) readAnchor(text string) (frame.Anchor, error) {
	var a frame.Anchor
	rest := strings.TrimSpace(text)
	if m := round.FindStringSubmatch(rest); m != nil {
		rest, a.Side = m[1], frame.Side(strings.ToLower(m[2]))
		if m[3] != "" {
			v, err := strconv.ParseFloat(m[3], 64)
			if err != nil || v < -360 || v > 360 {
				return a, refuse("write degrees, as in B at 12 turned 90", "%q is no angle", m[3])
			}
			a.Angle = v
		}
	}
	name, place, placed := strings.Cut(rest, " at ")
	name = strings.TrimSpace(name)
	if n := e.called(name); n >= 0 && !placed {
		a.Joint = e.view.Graph.Nodes[n].ID
		return a, nil
	}
	i := e.view.Graph.Edge(name)
	if i < 0 {
		return a, refuse("name a joint or a pipe, as in B at 12", "there is no joint or pipe %q", name)
	}
	a.Pipe = name
	ends := e.view.Graph.Edges[i].Ends
	long := e.view.Lengths[i]
	if !placed {
		a.At = long.Half()
		return a, nil
	}
	m := from.FindStringSubmatch(strings.TrimSpace(place))
	d, err := ParseSize(m[1], e.unit, frame.Centre)
	if err != nil {
		return a, err
	}
	a.At, a.Text, a.Unit = d.Value, d.Text, d.Unit
	switch strings.ToLower(m[2] + m[4]) {
	case "":
	case "face":
		a.Datum = frame.FromFace
	case "end":
		a.Datum = frame.FromEnd
	case "centre", "center":
	default:
		return a, refuse("say one of them, as in B at 12 from the face of j2", "it is measured from two things")
	}
	end := 0
	if a.From = m[3]; a.From != "" {
		n := e.called(a.From)
		if end = slices.Index(ends[:], n); n < 0 || end < 0 {
			return a, refuse("name one of its two joints", "%s does not end at %q", mention.Of(name), a.From)
		}
		a.From = e.view.Graph.Nodes[n].ID
	}
	if s := e.view.Spot(frame.ResolvedAnchor{Node: -1, Pipe: i, End: end, At: a.At, Datum: a.Datum}); !s.On {
		return a, refuse(
			fmt.Sprintf("it is %s long from centre to centre", long.Tape(e.unit)),
			"%s is not on the pipe %s",
			a.At.Typed(a.Text, a.Unit),
			mention.Of(name),
		)
	}
	return a, nil
}
