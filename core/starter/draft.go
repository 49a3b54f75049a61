package starter

import (
	"fmt"
	"math"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// draft is a definition being drawn.
type draft struct{ drawing }

func onto(x, y, z axisStations) *draft {
	return &draft{drawing{Axes: [3]axisStations{x, y, z}}}
}

// put adds joints at a station of each axis: id x y z, four by four.
func (d *draft) put(end frame.End, idXYZ ...string) *draft {
	for i := 0; i+3 < len(idXYZ); i += 4 {
		j := joint(idXYZ[i], idXYZ[i+1], idXYZ[i+2], idXYZ[i+3])
		j.End = end
		d.Joints = append(d.Joints, j)
	}
	return d
}

// run joins joints one after the other.
func (d *draft) run(ids ...string) *draft {
	for i := 1; i < len(ids); i++ {
		d.Pipes = append(d.Pipes, pipe(ids[i-1], ids[i]))
	}
	return d
}

// last changes the pipe that was added last.
func (d *draft) last(change func(p *frame.Pipe)) {
	change(&d.Pipes[len(d.Pipes)-1])
}

// use puts a group onto stations, held at its own stations ax, ay, az.
func (d *draft) use(id, of, x, y, z string, anchor ...string) *draft {
	u := frame.Use{ID: id, Of: of, At: planes(x, y, z)}
	for a, id := range anchor {
		u.Anchor[a] = frame.OnPlane(id)
	}
	d.Uses = append(d.Uses, u)
	return d
}

func (d *draft) named(id, name string) frame.Definition {
	d.ID, d.Name = id, name
	return d.definition()
}

// mean is a fixed size with a meaning, in inches.
func mean(from string, inches float64, m frame.Meaning) *dimension {
	return &dimension{Value: measure.FromInches(inches), Meaning: m, From: from}
}

// beyond is a fixed centre distance, in inches; below zero it is measured
// back.
func beyond(from string, inches float64) *dimension {
	d := mean(from, math.Abs(inches), frame.Centre)
	d.Back = inches < 0
	return d
}

// back turns a dimension round.
func back(d *dimension) *dimension {
	d.Back = true
	return d
}

// od is the outside diameter of the frame's pipe.
func (a *answers) od() measure.Length {
	return catalog.Typical().Pipe(catalog.Size(a.texts["size"])).OutsideDiameter
}

// levels puts the top on an axis, as the answer "height" from the floor, and below it,
// where there are more, a lowest level as the answer "low" and others evenly between; their names
// from below.
func levels(z *axisStations, a *answers, n int, name string) []string {
	z.Stations = append(z.Stations, at("top", a.from("height", floor)))
	if n < 2 {
		return []string{"top"}
	}
	first := numbered(name, 1)
	z.Stations = append(z.Stations, at(first, a.from("low", floor)))
	all := []string{first}
	for k := 2; k < n; k++ {
		z.Stations = append(z.Stations, part(numbered(name, k), first, "top", k-1, n-1))
		all = append(all, numbered(name, k))
	}
	return append(all, "top")
}

// numbered is the k-th of a row of names.
func numbered(name string, k int) string { return fmt.Sprintf("%s %d", name, k) }

// sized are the prompts for pipe and joints with other defaults.
func sized(size, why, mode string) []Prompt {
	ps := []Prompt{common[0], common[1]}
	ps[0].Default, ps[0].Why = size, why
	if mode != "" {
		ps[1].Default = mode
	}
	return ps
}

func length(key, label, value, why string, ms ...frame.Meaning) Prompt {
	return Prompt{Key: key, Label: label, Input: Length, Default: value, Meanings: ms, Why: why}
}

// thing asks for the size of something that is not part of the frame.
func thing(key, label, value, why string) Prompt {
	p := length(key, label, value, why, frame.Centre)
	p.Thing = true
	return p
}

func counted(key, label, value string, least, most int, why string) Prompt {
	return Prompt{Key: key, Label: label, Input: Count, Default: value, Least: least, Most: most, Why: why}
}

// octagon is the share of the way across an octagon's flats at which a corner
// lies: (1 − tan 22.5°) / 2.
var octagon = (1 - math.Tan(math.Pi/8)) / 2

func share(id, from, to string, s float64) station {
	return station{ID: id, Split: &split{From: from, To: to, Share: s}}
}

// flats are the stations of an octagon between two flats.
func flats(axis axisStations, lo, hi string) axisStations {
	axis.Stations = append(
		axis.Stations,
		share(lo+" corner", lo, hi, octagon),
		middle(lo+" mid", lo, hi),
		share(hi+" corner", lo, hi, 1-octagon),
	)
	return axis
}

// ring draws an octagon in the plane of two axes, between lo and hi of each.
// mids says on which flats a joint stands in the middle: low u, high u, low v,
// high v.
func (d *draft) ring(u, v measure.Axis, at [3]string, ulo, uhi, vlo, vhi string, mids [4]bool) {
	name := func(us, vs string) string { return us + ", " + vs }
	var ids []string
	add := func(us, vs string) {
		j := frame.Joint{ID: name(us, vs), On: at}
		j.On[u], j.On[v] = us, vs
		d.Joints = append(d.Joints, j)
		ids = append(ids, j.ID)
	}
	um, vm := ulo+" mid", vlo+" mid"
	uc, ud, vc, vd := ulo+" corner", uhi+" corner", vlo+" corner", vhi+" corner"
	step := func(us, vs string, when bool) {
		if when {
			add(us, vs)
		}
	}
	step(uc, vlo, true)
	step(um, vlo, mids[2])
	step(ud, vlo, true)
	step(uhi, vc, true)
	step(uhi, vm, mids[1])
	step(uhi, vd, true)
	step(ud, vhi, true)
	step(um, vhi, mids[3])
	step(uc, vhi, true)
	step(ulo, vd, true)
	step(ulo, vm, mids[0])
	step(ulo, vc, true)
	d.run(append(ids, ids[0])...)
}
