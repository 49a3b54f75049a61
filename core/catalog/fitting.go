package catalog

import (
	"maps"
	"slices"
	"strings"

	"sturdyelbow/core/measure"
)

// Kind is a type of fitting by the trade's name.
type Kind string

// The kinds of fitting. Plug fills a spare socket.
const (
	Elbow90          Kind = "elbow-90"
	Elbow45          Kind = "elbow-45"
	Coupling         Kind = "coupling"
	Tee              Kind = "tee"
	Cross            Kind = "cross"
	SideOutletElbow  Kind = "side-outlet-elbow"
	SideOutletTee    Kind = "side-outlet-tee"
	SideOutletCross  Kind = "side-outlet-cross"
	SixWay           Kind = "six-way"
	Cap              Kind = "cap"
	Bushing          Kind = "bushing"
	ReducingCoupling Kind = "reducing-coupling"
	Plug             Kind = "plug"
)

// Role is what a port is for: the straight run, the branch square to it, the
// side outlet square to both, or an end.
type Role string

// The roles of a port.
const (
	Run    Role = "run"
	Branch Role = "branch"
	Side   Role = "side"
	End    Role = "end"
)

// Gender of a port.
type Gender string

// A socket takes a spigot.
const (
	Socket Gender = "socket"
	Spigot Gender = "spigot"
)

// Port is one opening of a fitting.
type Port struct {
	Role   Role           `json:"role"`
	Dir    measure.Dir    `json:"dir"` // outward, in the fitting's own axes
	Gender Gender         `json:"gender"`
	Size   Size           `json:"size"`
	Stop   measure.Length `json:"stop"`  // centre to the ledge the pipe meets
	Depth  measure.Length `json:"depth"` // ledge to rim
	Body   measure.Length `json:"body"`  // diameter of the hub
	Bore   measure.Length `json:"bore"`  // clear way past the stop
}

// Face is the distance from the centre to the port's rim.
func (p Port) Face() measure.Length { return p.Stop + p.Depth }

// Fitting is a part by kind and size.
type Fitting struct {
	Kind   Kind           `json:"kind"`
	Size   string         `json:"size"` // LARGExSMALL where there are two
	Ports  []Port         `json:"ports"`
	Flange measure.Length `json:"flange,omitempty"` // of a bushing: its rim beyond the socket it sits in
	End    measure.Length `json:"end,omitempty"`    // of a cap: thickness beyond the pipe's end
}

type shape struct {
	kind  Kind
	ports []Port // role and direction only
}

var (
	right, left = measure.Dir{1, 0, 0}, measure.Dir{-1, 0, 0}
	away, near  = measure.Dir{0, 1, 0}, measure.Dir{0, -1, 0}
	up, down    = measure.Dir{0, 0, 1}, measure.Dir{0, 0, -1}
	diagonal    = measure.Dir{-1, 1, 0}.Unit() // 135° from right
)

func port(r Role, d measure.Dir) Port { return Port{Role: r, Dir: d, Gender: Socket} }

// shapes lists the fittings with sockets round a centre, fewest ports first.
var shapes = []shape{
	{Coupling, []Port{port(Run, right), port(Run, left)}},
	{Elbow90, []Port{port(End, right), port(End, away)}},
	{Elbow45, []Port{port(End, right), port(End, diagonal)}},
	{Tee, []Port{port(Run, right), port(Run, left), port(Branch, away)}},
	{SideOutletElbow, []Port{port(End, right), port(End, away), port(Side, up)}},
	{Cross, []Port{port(Run, right), port(Run, left), port(Branch, away), port(Branch, near)}},
	{SideOutletTee, []Port{port(Run, right), port(Run, left), port(Branch, away), port(Side, up)}},
	{SideOutletCross, []Port{port(Run, right), port(Run, left), port(Branch, away), port(Branch, near), port(Side, up)}},
	{SixWay, []Port{port(Run, right), port(Run, left), port(Run, away), port(Run, near), port(Run, up), port(Run, down)}},
}

// JointKinds lists the kinds that join pipes round a centre, fewest ports first.
func JointKinds() []Kind { return jointKinds }

var jointKinds = func() []Kind {
	ks := make([]Kind, len(shapes)) // of no more room: what is appended is appended to a copy
	for i, s := range shapes {
		ks[i] = s.kind
	}
	return ks
}()

var known = func() map[Kind]bool {
	all := map[Kind]bool{Cap: true, Bushing: true, ReducingCoupling: true, Plug: true}
	for _, k := range jointKinds {
		all[k] = true
	}
	return all
}()

// Words is the kind as a label on a shelf says it: "side-outlet elbow".
func (k Kind) Words() string {
	switch k {
	case Elbow90:
		return "elbow 90°"
	case Elbow45:
		return "elbow 45°"
	}
	if rest, ok := strings.CutPrefix(string(k), "side-outlet-"); ok {
		return "side-outlet " + rest
	}
	return strings.ReplaceAll(string(k), "reducing-", "reducing ")
}

// Kinds are all kinds of the catalog, in the order of their names.
func Kinds() []Kind { return slices.Sorted(maps.Keys(known)) }

// Known says whether the catalog has the kind.
func (k Kind) Known() bool {
	return known[k]
}

type fittingKey struct {
	kind Kind
	size Size
}

// Fitting gives the record of a kind at one size; its ports are shared and not
// to be changed. ok is false for a kind that needs two sizes
// ([Catalog.Bushings], [Catalog.ReducingCoupling]) or that does not exist.
func (c *Catalog) Fitting(k Kind, s Size) (f Fitting, ok bool) {
	f, ok = c.fittings[fittingKey{k, s}]
	return f, ok
}

// index works out every record once, since figures never change.
func (c *Catalog) index() *Catalog {
	c.fittings = map[fittingKey]Fitting{}
	for _, s := range ladder {
		for _, k := range append(JointKinds(), Cap) {
			if f, ok := c.record(k, s); ok {
				c.fittings[fittingKey{k, s}] = f
			}
		}
	}
	return c
}

func (c *Catalog) record(k Kind, s Size) (f Fitting, ok bool) {
	v := func(x Field) measure.Length { return c.Figure(k, s, x).Value }
	if k == Cap {
		p := Port{Role: End, Dir: right, Gender: Socket, Size: s, Depth: v(SocketDepth), Body: v(BodyDiameter)}
		return Fitting{Kind: k, Size: string(s), Ports: []Port{p}, End: v(CapEnd)}, true
	}
	i := slices.IndexFunc(shapes, func(sh shape) bool { return sh.kind == k })
	if i < 0 {
		return Fitting{}, false
	}
	stop := v(Stop90)
	switch k {
	case Elbow45:
		stop = v(Stop45)
	case Coupling:
		stop = v(StopCoupling)
	}
	f = Fitting{Kind: k, Size: string(s), Ports: slices.Clone(shapes[i].ports)}
	for j := range f.Ports {
		p := &f.Ports[j]
		p.Size, p.Stop, p.Depth, p.Body, p.Bore = s, stop, v(SocketDepth), v(BodyDiameter), c.pipes[s].InsideDiameter
	}
	return f, true
}

// ReducingCoupling gives the fitting that joins two pipes of different size
// in line, centred on its web; the large port first. Its stop on the large
// side is stop_coupling of the large size, on the small side that plus
// (OD large − OD small) / 2.
func (c *Catalog) ReducingCoupling(large, small Size) Fitting {
	v := func(s Size, f Field) measure.Length { return c.Figure(ReducingCoupling, s, f).Value }
	stop := v(large, StopCoupling)
	side := func(s Size, d measure.Dir, stop measure.Length) Port {
		return Port{
			Role:   Run,
			Dir:    d,
			Gender: Socket,
			Size:   s,
			Stop:   stop,
			Depth:  v(s, SocketDepth),
			Body:   v(s, BodyDiameter),
			Bore:   c.pipes[small].InsideDiameter,
		}
	}
	return Fitting{Kind: ReducingCoupling, Size: pair(large, small), Ports: []Port{
		side(large, right, stop),
		side(small, left, stop+(c.pipes[large].OutsideDiameter-c.pipes[small].OutsideDiameter).Half()),
	}}
}

func pair(large, small Size) string { return string(large) + "x" + string(small) }

// soldApart is how many sizes apart the two ends of a bushing can be.
const soldApart = 3

// Bushings gives the bushings, outermost first, that bring a socket of the
// large size down to the small one: one where the pair is sold (one to three
// sizes apart), otherwise nested, largest reduction first. Each seats fully.
func (c *Catalog) Bushings(large, small Size) []Fitting {
	var fs []Fitting
	for large.Rank() > small.Rank() && small.Known() {
		next := ladder[max(small.Rank(), large.Rank()-soldApart)]
		v := func(s Size, f Field) measure.Length { return c.Figure(Bushing, s, f).Value }
		fs = append(fs, Fitting{
			Kind: Bushing, Size: pair(large, next), Flange: v(large, BushingFlange),
			Ports: []Port{
				{Role: End, Dir: left, Gender: Spigot, Size: large, Depth: v(large, SocketDepth), Body: c.pipes[large].OutsideDiameter},
				{
					Role:   End,
					Dir:    right,
					Gender: Socket,
					Size:   next,
					Depth:  v(next, SocketDepth),
					Body:   v(large, BodyDiameter),
					Bore:   c.pipes[next].InsideDiameter,
				},
			},
		})
		large = next
	}
	return fs
}

// AddedStop is what a bushing adds to the stop of the port it sits in:
// large socket depth + flange − small socket depth.
func (f Fitting) AddedStop() measure.Length {
	if f.Kind != Bushing {
		return 0
	}
	return f.Ports[0].Depth + f.Flange - f.Ports[1].Depth
}
