package plan

import (
	"cmp"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/procure"
)

// Label is what is written on one piece of pipe, or on a strip of paper around it.
type Label struct {
	procure.PieceRef
	Letter string         `json:"letter"`
	Size   catalog.Size   `json:"size"`
	Length measure.Length `json:"length"`
	Name   string         `json:"name"`            // of the frame
	Where  string         `json:"where"`           // in the frame, in plain words
	Copies int            `json:"copies"`          // of the frame
	Stick  int            `json:"stick,omitempty"` // of its size, counted from 1; 0: from none
	Cut    bool           `json:"cut,omitempty"`   // it is there
	Ends   []LabelEnd     `json:"ends"`            // those that go into a fitting
}

// LabelEnd is an end of a piece that goes into a fitting.
type LabelEnd struct {
	Joint string     `json:"joint"` // its short name: j4
	Where string     `json:"where"` // in plain words
	Port  string     `json:"port"`  // which way the port points, where the fitting has several: up, left
	Mode  frame.Mode `json:"mode"`
	// Depth is how deep the socket is. It is marked at the end, and once more an inch beyond, as
	// primer wipes the first mark away (handbook, insertion marks).
	Depth  measure.Length `json:"depth"`
	Beyond measure.Length `json:"beyond"`
}

// markBeyond is how far the second mark is behind the first.
const markBeyond = measure.Inch

// Labels lists what is written on every piece of a plan, in the order in which they are cut; pieces that
// come from no stick are at the end.
func (p *Plan) Labels() []Label {
	type place struct {
		number int
		cut    bool
	}
	at, order := map[procure.PieceRef]place{}, []procure.PieceRef{}
	serves := p.serves()
	for i := range p.Pipe {
		for n := range p.Pipe[i].Sticks {
			s := &p.Pipe[i].Sticks[n]
			for _, x := range s.Pieces {
				ref := x.PieceRef
				if s.Earlier {
					if x.Fate != procure.Keep {
						continue // it is gone, or its place is cut anew
					}
					ref = serves[x.Cut]
				}
				if _, known := at[ref]; ref.Pipe != "" && !known {
					at[ref] = place{s.Number, x.Cut != ""}
					order = append(order, ref)
				}
			}
		}
	}
	all := map[procure.PieceRef]Label{}
	var rest []procure.PieceRef
	for f := range p.Frames {
		ends := p.Frames[f].ends()
		for i := range p.Frames[f].Pipes {
			x := &p.Frames[f].Pipes[i]
			for c := range max(1, p.Frames[f].Copies) {
				ref := procure.PieceRef{Frame: f, Pipe: cmp.Or(x.Was, x.Pipe), Copy: c + 1}
				where, known := at[ref]
				if !known {
					rest = append(rest, ref)
				}
				all[ref] = Label{
					PieceRef: ref, Letter: x.Letter, Size: x.Size, Length: x.Ordered, Name: p.Frames[f].Name, Where: x.Where,
					Copies: p.Frames[f].Copies, Stick: where.number, Cut: where.cut, Ends: ends[x.Pipe],
				}
			}
		}
	}
	labels := make([]Label, 0, len(all))
	for _, ref := range slices.Concat(order, rest) {
		if l, known := all[ref]; known {
			labels = append(labels, l)
			delete(all, ref)
		}
	}
	return labels
}

// serves says of each piece that is there which place it has, as the record calls it.
func (p *Plan) serves() map[string]procure.PieceRef {
	was := make([]map[string]string, len(p.Frames))
	for f := range p.Frames {
		was[f] = map[string]string{}
		for i := range p.Frames[f].Pipes {
			x := &p.Frames[f].Pipes[i]
			was[f][x.Pipe] = cmp.Or(x.Was, x.Pipe)
		}
	}
	all := map[string]procure.PieceRef{}
	for i := range p.Existing {
		if e := &p.Existing[i]; e.Serves != nil && e.Serves.Frame < len(was) {
			all[e.ID] = procure.PieceRef{Frame: e.Serves.Frame, Pipe: was[e.Serves.Frame][e.Serves.Pipe], Copy: e.Serves.Copy}
		}
	}
	return all
}

// ends says for each pipe of a frame what its ends go into.
func (f *Frame) ends() map[string][]LabelEnd {
	joints := map[string]*Joint{}
	for i := range f.Joints {
		joints[f.Joints[i].ID] = &f.Joints[i]
	}
	ends := map[string][]LabelEnd{}
	for _, in := range f.Insertions {
		j := joints[in.Joint]
		if !in.Pipe || j == nil {
			continue
		}
		e := LabelEnd{Joint: j.Name, Where: j.Where, Mode: in.Mode, Depth: in.Depth, Beyond: in.Depth + markBeyond}
		if len(j.Ports) > 1 {
			e.Port = wayOf(j.Ports[in.Port].Dir)
		}
		ends[in.Spigot] = append(ends[in.Spigot], e)
	}
	return ends
}

// wayOf names a direction by where most of it goes; one that goes two ways alike has both.
func wayOf(d measure.Dir) (words string) {
	names := [3][2]string{{"left", "right"}, {"front", "back"}, {"down", "up"}}
	most := 0.0
	for _, v := range d {
		most = max(most, v, -v)
	}
	for _, a := range []int{2, 1, 0} { // up first, as one says upper left
		v := d[a]
		if max(v, -v) < most*0.5 {
			continue
		}
		name := names[a][0]
		if v > 0 {
			name = names[a][1]
		}
		if words != "" {
			words += " and "
		}
		words += name
	}
	return words
}
