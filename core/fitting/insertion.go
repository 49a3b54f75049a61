package fitting

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Insertion is one spigot in one port: the unit of joining.
type Insertion struct {
	ID     string         `json:"id"` // joint, then what goes in
	Joint  string         `json:"joint"`
	Port   int            `json:"port"`
	Spigot string         `json:"spigot"` // a pipe's id, or a bushing's or plug's kind and size
	Size   catalog.Size   `json:"size"`   // of the socket it goes into
	Mode   frame.Mode     `json:"mode"`
	Reason string         `json:"reason"`
	Seat   float64        `json:"seat"`
	Depth  measure.Length `json:"depth"`
	Pipe   bool           `json:"pipe"` // a pipe's end, not a fitting's
}

// Insertions lists every insertion of the frame, joint by joint. A bushing
// seats fully in its fitting and is cemented where its pipe is; it stays dry
// with any other mode.
func (r *Result) Insertions() []Insertion {
	var all []Insertion
	for i := range r.Joints {
		j := &r.Joints[i]
		if j.Kind == "" || j.Assumed {
			continue
		}
		for k := range j.Ports {
			p := &j.Ports[k]
			add := func(spigot string, size catalog.Size, mode frame.Mode, reason string, seat float64, depth measure.Length, pipe bool) {
				all = append(all, Insertion{j.ID + "|" + spigot, j.ID, k, spigot, size, mode, reason, seat, depth, pipe})
			}
			fitMode := frame.Slip
			if p.Mode == frame.Cemented {
				fitMode = frame.Cemented
			}
			for _, b := range p.Bushings {
				add(string(b.Kind)+" "+b.Size+" for "+p.Pipe, b.Ports[0].Size, fitMode, p.Reason, 1, b.Ports[0].Depth, false)
			}
			switch p.Fill {
			case WithPipe:
				add(p.Pipe, p.PipeSize, p.Mode, p.Reason, p.Seat, p.Depth, true)
			case Plugged:
				add("plug "+string(p.Size), p.Size, r.g.Doc.Mode, "default of the frame", 1, p.Depth, false)
			}
		}
	}
	return all
}
