package fitting

import (
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
	slices.SortStableFunc(all, func(x, y Choice) int { return len(x.Spare) - len(y.Spare) })
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
