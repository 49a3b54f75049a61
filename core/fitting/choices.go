package fitting

import (
	"cmp"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Choice is a fitting that could stand at a joint: one with spare ports, and
// the way they point.
type Choice struct {
	Kind  catalog.Kind  `json:"kind"`
	Spare []measure.Dir `json:"spare"`
}

// Choices lists the fittings that could stand at a joint besides the one that
// the pipes alone ask for, each with every way its spare ports can point along
// the world's axes or, of a 45, between two of them. Fewest spare ports first.
func (r *Result) Choices(joint int, c *catalog.Catalog) []Choice {
	all := []Choice{}
	var dirs []measure.Dir
	var largest catalog.Size
	for k := range r.Joints[joint].Ports {
		if p := &r.Joints[joint].Ports[k]; p.Fill == WithPipe {
			dirs = append(dirs, p.Dir)
			largest = catalog.Larger(largest, p.PipeSize)
		}
	}
	if len(dirs) == 0 {
		return all
	}
	for _, kind := range catalog.JointKinds() {
		f, _ := c.Fitting(kind, largest)
		spare := len(f.Ports) - len(dirs)
		if spare <= 0 {
			continue
		}
		ways := square
		if kind == catalog.Elbow45 {
			ways = diagonals
		}
		pick(ways, dirs, spare, func(some []measure.Dir) {
			if _, _, ok := match(f.Ports, append(slices.Clone(dirs), some...)); ok {
				all = append(all, Choice{kind, slices.Clone(some)})
			}
		})
	}
	for _, kind := range c.Customs() {
		if f, ok := c.Fitting(kind, largest); ok && len(f.Ports) >= len(dirs) {
			if _, _, ok := match(f.Ports, dirs); ok {
				all = append(all, Choice{kind, []measure.Dir{}})
			}
		}
	}
	slices.SortStableFunc(all, func(x, y Choice) int {
		return cmp.Or(len(x.Spare)-len(y.Spare), cmp.Compare(r.likely(joint, y.Spare), r.likely(joint, x.Spare)))
	})
	return all
}

// likely counts how likely ports are that point so: at another joint in line most, then up, and down
// least.
func (r *Result) likely(joint int, spare []measure.Dir) (n int) {
	at := r.Joints[joint].At
	for _, d := range spare {
		for k := range r.Joints {
			if far := at.Distance(r.Joints[k].At); k != joint && far > 0 &&
				at.Along(d.Unit(), far).Distance(r.Joints[k].At) <= measure.Inch {
				n += 4
				break
			}
		}
		switch {
		case d[2] > 0.9:
			n += 2
		case d[2] < -0.9:
			n -= 2
		}
	}
	return n
}

// Common keeps the choices that every joint has.
func Common(of ...[]Choice) []Choice {
	all := []Choice{}
	if len(of) == 0 {
		return all
	}
	for _, c := range of[0] {
		in := true
		for _, o := range of[1:] {
			in = in && slices.ContainsFunc(o, func(x Choice) bool { return x.Kind == c.Kind && slices.Equal(x.Spare, c.Spare) })
		}
		if in {
			all = append(all, c)
		}
	}
	return all
}

var square = []measure.Dir{{1, 0, 0}, {-1, 0, 0}, {0, 1, 0}, {0, -1, 0}, {0, 0, 1}, {0, 0, -1}}

var diagonals = func() (all []measure.Dir) {
	for i, a := range square {
		for _, b := range square[i+1:] {
			if a.Dot(b) == 0 {
				all = append(all, measure.Dir{a[0] + b[0], a[1] + b[1], a[2] + b[2]}.Unit())
			}
		}
	}
	return all
}()

// pick calls for every choice of n of the ways that no pipe takes.
func pick(ways, taken []measure.Dir, n int, call func([]measure.Dir)) {
	var some []measure.Dir
	var from func(i int)
	from = func(i int) {
		if len(some) == n {
			call(some)
			return
		}
		for ; i < len(ways); i++ {
			if slices.ContainsFunc(taken, func(d measure.Dir) bool { return d.AngleTo(ways[i]) < 1 }) {
				continue
			}
			some = append(some, ways[i])
			from(i + 1)
			some = some[:len(some)-1]
		}
	}
	from(0)
}
