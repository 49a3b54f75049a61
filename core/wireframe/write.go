package wireframe

import (
	"encoding/json"
	"math"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Write gives the wireframe of an expanded frame with its joints' positions.
// What the form cannot carry (a mode set at one end of a pipe, an eased or
// pinned joint) is named in lost and written as the nearest the form has.
func Write(g *frame.Graph, points []measure.Point) (data []byte, lost []string, err error) {
	d := g.Doc
	f := file{Wireframe: Version, Name: d.Name, Units: d.Units, Size: d.Size, Mode: plainMode(d.Mode),
		Seat:   map[frame.Mode]float64{frame.Cemented: d.Seat(frame.Cemented), frame.Slip: d.Seat(frame.Slip)},
		Joints: &ordered[[]float64]{}, Ends: &ordered[string]{}, Modes: &ordered[frame.Mode]{}, Fittings: &ordered[json.RawMessage]{}}
	names := make([]string, len(g.Nodes))
	for i, n := range g.Nodes {
		if names[i] = n.ID; n.Name != "" && n.Scope == 0 && g.Node(n.Name) < 0 {
			names[i] = n.Name
		}
	}
	for i, n := range g.Nodes {
		n.ID = names[i]
		f.Joints.set(n.ID, coordinates(points[i], d.Units))
		if n.End == frame.CappedEnd {
			f.Ends.set(n.ID, "cap")
		}
		if n.Fitting != nil {
			raw, err := json.Marshal(forced{n.Fitting.Kind, n.Fitting.Spare})
			if err != nil {
				return nil, nil, err
			}
			f.Fittings.set(n.ID, raw)
		}
		mode := frame.Mode("")
		for _, pe := range n.Pipes {
			m := g.Edges[pe.Pipe].Held[pe.End].Mode
			if mode != "" && m != mode || m != plainMode(m) {
				lost = append(lost, "how the joint "+n.ID+" is held")
			}
			if mode == "" {
				mode = m
			}
		}
		if mode != "" && plainMode(mode) != plainMode(d.Mode) {
			f.Modes.set(n.ID, plainMode(mode))
		}
	}
	for _, e := range g.Edges {
		if e.Path != frame.Straight {
			lost = append(lost, "that the pipe "+e.ID+" is "+string(e.Path))
		}
		size := e.Size
		if size == d.Size {
			size = ""
		}
		raw, err := json.Marshal(pipe{names[e.Ends[0]], names[e.Ends[1]], size})
		if size == "" && err == nil {
			raw, err = json.Marshal([2]string{names[e.Ends[0]], names[e.Ends[1]]})
		}
		if err != nil {
			return nil, nil, err
		}
		f.Pipes = append(f.Pipes, raw)
	}
	f.Ends, f.Modes, f.Fittings = f.Ends.orNil(), f.Modes.orNil(), f.Fittings.orNil()
	data, err = json.MarshalIndent(f, "", " ")
	return data, lost, err
}

// orNil leaves an empty object out of the file.
func (o *ordered[T]) orNil() *ordered[T] {
	if len(o.keys) == 0 {
		return nil
	}
	return o
}

func plainMode(m frame.Mode) frame.Mode {
	if m == frame.Cemented {
		return m
	}
	return frame.Slip
}

// coordinates are written to 1e-8 of the unit, which reads back to the same
// nanometre.
func coordinates(p measure.Point, u measure.Unit) []float64 {
	c := make([]float64, 3)
	for a := range p {
		if c[a] = p[a].Inches(); u == measure.Millimetres {
			c[a] = p[a].Millimetres()
		}
		c[a] = math.Round(c[a]*1e8) / 1e8
	}
	return c
}
