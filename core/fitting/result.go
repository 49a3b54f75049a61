package fitting

import (
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Fill says what is in a port.
type Fill string

// Every port is filled, plugged or left open.
const (
	WithPipe Fill = "pipe"
	Plugged  Fill = "plug"
	Open     Fill = "open"
)

// Port is one port of the fitting at a joint, as it stands in the frame.
type Port struct {
	Role     catalog.Role      `json:"role"`
	Dir      measure.Dir       `json:"dir"`   // outward, in world axes
	Known    bool              `json:"known"` // false: a spare port that may point several ways
	Fill     Fill              `json:"fill"`
	Pipe     string            `json:"pipe,omitempty"`
	Size     catalog.Size      `json:"size"`     // of the fitting's own port
	PipeSize catalog.Size      `json:"pipeSize"` // of what goes in
	Stop     measure.Length    `json:"stop"`     // centre to the ledge the pipe meets, bushings included
	Depth    measure.Length    `json:"depth"`    // of the socket the pipe goes into
	Face     measure.Length    `json:"face"`     // centre to the outermost rim, flange included
	Body     measure.Length    `json:"body"`
	Seat     float64           `json:"seat"`
	Mode     frame.Mode        `json:"mode,omitempty"`
	Reason   string            `json:"reason,omitempty"`
	Bushings []catalog.Fitting `json:"bushings,omitempty"`
	at       frame.PipeEnd
}

// End gives the pipe's end that is in the port.
func (p *Port) End() frame.PipeEnd { return p.at }

// Joint is what stands at a joint.
type Joint struct {
	ID      string         `json:"id"`
	At      measure.Point  `json:"at"`
	Kind    catalog.Kind   `json:"kind"` // "" for an open pipe end
	Size    string         `json:"size"`
	Body    measure.Length `json:"body"`
	Flex    float64        `json:"flex"`    // how far off the ports are, in degrees
	Assumed bool           `json:"assumed"` // nothing fits: worked as if an elbow-90 stood here
	Ports   []Port         `json:"ports"`
	CapEnd  measure.Length `json:"capEnd,omitempty"` // thickness beyond the pipe of a cap
	End     frame.End      `json:"end,omitempty"`    // what is said of a pipe's end
}

// Result is the fittings of a whole frame. It is never changed once made.
type Result struct {
	Joints   []Joint
	Findings []finding.Finding
	g        *frame.Graph
	radius   []measure.Length
	bore     []measure.Length                       // of each pipe, inside
	bores    func(size catalog.Size) measure.Length // of a fitting's port, inside
	ports    [][2]int                               // pipe, end → port of its joint
}

// Port gives the port a pipe's end is in.
func (r *Result) Port(e frame.PipeEnd) *Port {
	j := r.g.Edges[e.Pipe].Ends[e.End]
	return &r.Joints[j].Ports[r.ports[e.Pipe][e.End]]
}

// Free says whether a joint is the bare or capped end of one pipe.
func (j *Joint) Free() bool { return j.Kind == "" || j.Kind == catalog.Cap }

// TakeOff is what a pipe's end gives up from the centre distance:
// stop + (1 − seat) × socket depth; nothing at a free end.
func (r *Result) TakeOff(e frame.PipeEnd) measure.Length {
	p := r.Port(e)
	if r.Joints[r.g.Edges[e.Pipe].Ends[e.End]].Free() {
		return 0
	}
	return p.Stop + p.Gap(p.Seat)
}

// Gap is what stays empty at the bottom of a socket at a seat.
func (p *Port) Gap(seat float64) measure.Length { return p.Depth.Scale(1 - seat) }

// Takes is how much of the pipe is inside at this end; a cap takes its part too.
func (p *Port) Takes() measure.Length { return p.Depth - p.Gap(p.Seat) }

// Face is the distance from a joint's point to the rim a pipe enters by.
func (r *Result) Face(e frame.PipeEnd) measure.Length {
	if r.Joints[r.g.Edges[e.Pipe].Ends[e.End]].Free() {
		return 0
	}
	return r.Port(e).Face
}

// Radius is half a pipe's outside diameter.
func (r *Result) Radius(pipe int) measure.Length { return r.radius[pipe] }

// Beyond is how far a cap stands out past the pipe's bare end.
func (j *Joint) Beyond() measure.Length {
	if j.Kind != catalog.Cap {
		return 0
	}
	return j.CapEnd + j.Ports[0].Gap(j.Ports[0].Seat)
}

// Extent is how far a joint's bodies reach beyond its point in a direction: a
// sphere of the body's diameter at the centre and a disc at every port's rim;
// at a cap the disc at its outer end, at an open pipe end a disc of the pipe.
func (r *Result) Extent(joint int, toward measure.Dir) measure.Length {
	return r.extent(joint, toward, true)
}

// Reach is Extent without the ports that a pipe leaves by in that direction.
func (r *Result) Reach(joint int, toward measure.Dir) measure.Length {
	return r.extent(joint, toward, false)
}

func (r *Result) extent(joint int, toward measure.Dir, all bool) measure.Length {
	j := &r.Joints[joint]
	if len(j.Ports) == 0 {
		return 0
	}
	if j.Free() {
		return disc(j.Ports[0].Dir.Neg(), j.Beyond(), j.Body, toward)
	}
	far := j.Body.Half()
	for i := range j.Ports {
		p := &j.Ports[i]
		if p.Known && (all || p.Fill != WithPipe || p.Dir.Dot(toward) < 0.3) {
			far = max(far, disc(p.Dir, p.Face, p.Body, toward))
		}
	}
	return far
}

// disc is the support of a disc square to n, at a distance along it.
func disc(n measure.Dir, at, diameter measure.Length, toward measure.Dir) measure.Length {
	c := n.Dot(toward)
	return at.Scale(c) + diameter.Scale(math.Sqrt(max(0, 1-c*c))/2)
}

// Least is the least centre distance of a pipe: both faces touching.
func (r *Result) Least(pipe int) measure.Length {
	return r.Face(frame.PipeEnd{Pipe: pipe, End: 0}) + r.Face(frame.PipeEnd{Pipe: pipe, End: 1})
}

// ShortBy is how much less than its sockets take a piece may be before it counts as too short.
var ShortBy = measure.FromInches(0.02)

// Enters is how much of a pipe stands inside at its two ends.
func (r *Result) Enters(pipe int) measure.Length {
	return r.Port(frame.PipeEnd{Pipe: pipe}).Takes() + r.Port(frame.PipeEnd{Pipe: pipe, End: 1}).Takes()
}

// TooShort says whether the piece that a centre distance gives a pipe is shorter than what stands inside at its ends.
func (r *Result) TooShort(pipe int, centre measure.Length) bool {
	cut := centre - r.TakeOff(frame.PipeEnd{Pipe: pipe}) - r.TakeOff(frame.PipeEnd{Pipe: pipe, End: 1})
	return cut < r.Enters(pipe)-ShortBy
}

// Overall is the axis-aligned box round the bodies, as two corners.
func (r *Result) Overall(points []measure.Point) (lo, hi measure.Point) {
	for a := range 3 {
		d := measure.Axis(a).Dir()
		first := true
		for j := range r.Joints {
			if len(r.Joints[j].Ports) == 0 {
				continue
			}
			l, h := points[j][a]-r.Extent(j, d.Neg()), points[j][a]+r.Extent(j, d)
			if first || l < lo[a] {
				lo[a] = l
			}
			if first || h > hi[a] {
				hi[a] = h
			}
			first = false
		}
	}
	return lo, hi
}

// Reseat gives the same fittings with other seats: hand-tight, driven or
// cemented, as seat says for each port that holds a pipe.
func (r *Result) Reseat(seat func(p *Port) float64) *Result {
	n := *r
	n.Joints = slices.Clone(r.Joints)
	total := 0
	for i := range n.Joints {
		total += len(n.Joints[i].Ports)
	}
	ports := make([]Port, 0, total) // of all joints, one after the other
	for i := range n.Joints {
		begin := len(ports)
		ports = append(ports, n.Joints[i].Ports...)
		n.Joints[i].Ports = ports[begin:len(ports):len(ports)]
		for k := range n.Joints[i].Ports {
			if p := &n.Joints[i].Ports[k]; p.Fill == WithPipe {
				p.Seat = seat(p)
			}
		}
	}
	return &n
}
