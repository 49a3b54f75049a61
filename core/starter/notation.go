package starter

import (
	"cmp"
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// A starter is written as rows of named planes, each placed by one size from
// another, by a share of the way between two, or as far as two planes of another axis
// are apart. Joints stand where planes cross. [drawing.definition] turns that
// into planes, sizes and reasons.

// dimension places a plane by a size from another; back measures toward the
// lower end of the axis.
type dimension struct {
	Value   measure.Length
	Meaning frame.Meaning
	From    string
	Back    bool
	Of      string // the pipe that it is the length of
	Label   string
	Text    string
	Unit    measure.Unit
	Prompt  string
}

const floor = string(frame.Floor)

type split struct {
	From, To    string
	Part, Parts int
	Share       float64
}

type equalTo struct {
	From string
	Axis measure.Axis
	Of   string
	To   string
}

// station is a named plane with what places it. The first of an axis stands
// where the frame begins.
type station struct {
	ID    string
	At    *dimension
	Split *split
	Equal *equalTo
}

type axisStations struct{ Stations []station }

// direction is a joint that lies so far from another in a direction, at the end of
// a pipe between them.
type direction struct {
	joint, from string
	dir         measure.Dir
	size        *dimension
}

// drawing is a definition as a starter writes it.
type drawing struct {
	frame.Definition
	Axes  [3]axisStations
	walks []direction
}

// definition turns the drawing into planes, sizes and reasons.
func (d *drawing) definition() frame.Definition {
	def := d.Definition
	for a := range d.Axes {
		axis := frame.AxisName(a)
		for i, st := range d.Axes[a].Stations {
			def.Planes[a] = append(def.Planes[a], frame.Plane{ID: st.ID})
			of := frame.OnPlane(st.ID)
			switch {
			case st.Split != nil:
				def.Reasons = append(
					def.Reasons,
					frame.Reason{
						Kind:  frame.Share,
						Axis:  axis,
						Of:    of,
						From:  frame.OnPlane(st.Split.From),
						To:    frame.OnPlane(st.Split.To),
						Part:  st.Split.Part,
						Parts: st.Split.Parts,
						Share: st.Split.Share,
					},
				)
			case st.Equal != nil:
				def.Reasons = append(
					def.Reasons,
					frame.Reason{
						Kind:      frame.EqualTo,
						Axis:      axis,
						Of:        of,
						From:      frame.OnPlane(st.Equal.From),
						EqualAxis: st.Equal.Axis.String(),
						EqualFrom: frame.OnPlane(st.Equal.Of),
						EqualTo:   frame.OnPlane(st.Equal.To),
					},
				)
			case st.At != nil:
				s := st.At.size(axis + " " + st.ID)
				s.Axis, s.Pipe, s.From, s.To = axis, st.At.Of, planeOf(st.At.From), of
				if st.At.From == floor {
					s.From = frame.Floor
				} else if st.At.Back {
					s.From, s.To = s.To, s.From
				}
				def.Sizes = append(def.Sizes, s)
			case i > 0:
				def.Reasons = append(
					def.Reasons,
					frame.Reason{Kind: frame.Level, Axis: axis, Of: of, To: frame.OnPlane(d.Axes[a].Stations[0].ID)},
				)
			}
		}
	}
	for _, w := range d.walks {
		i := slices.IndexFunc(def.Pipes, func(p frame.Pipe) bool { return p.From == w.from && p.To == w.joint })
		dir := w.dir
		def.Pipes[i].Dir = &dir
		s := w.size.size(w.joint)
		s.Pipe = def.Pipes[i].ID
		def.Sizes = append(def.Sizes, s)
	}
	return def
}

// planeOf is the reference to a plane, which may be in a use: slot 1/b.
func planeOf(name string) frame.Ref {
	if use, in, inside := strings.Cut(name, "/"); inside {
		return frame.Ref(use + "/" + string(frame.OnPlane(in)))
	}
	return frame.OnPlane(name)
}

// size is a dimension as a size of the document, for which the place is still
// to be given.
func (d *dimension) size(id string) frame.Size {
	return frame.Size{ID: id, Value: d.Value, Meaning: d.Meaning, Label: d.Label, Text: d.Text, Unit: d.Unit, Prompt: d.Prompt}
}

// firstRank is the rank of the first thing that a starter says. All that it says
// ranks below zero: what a builder says comes after it, whatever the counts.
const firstRank = -1_000_000

// number gives everything that is said its id and its rank. A size that a
// prompt asked for goes by the prompt's key, others and reasons by where they
// stand, so that all stay when a count changes.
func number(d *frame.Document) {
	rank := firstRank
	next := func() int { rank++; return rank }
	taken := map[string]bool{}
	d.EachSize(func(def *frame.Definition, s *frame.Size) {
		s.ID = cmp.Or(s.Prompt, cmp.Or(def.ID, "frame")+" "+s.ID)
		for n, id := 2, s.ID; taken[s.ID]; n++ {
			s.ID = fmt.Sprintf("%s %d", id, n)
		}
		taken[s.ID] = true
		s.Rank = next()
	})
	for _, def := range d.Definitions() {
		for i := range def.Reasons {
			r := &def.Reasons[i]
			r.ID, r.Rank = fmt.Sprintf("%s %s %s", cmp.Or(def.ID, "frame"), r.Axis, r.Of.Bare()), next()
		}
		for i := range def.Uses {
			def.Uses[i].Rank = next()
		}
		for i := range def.Pipes {
			if def.Pipes[i].Dir != nil {
				def.Pipes[i].Rank = next()
			}
		}
	}
}
