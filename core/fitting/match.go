package fitting

import (
	"math"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Flex is how far off a port may be, in degrees (typical of moulded
// fittings); two ports together may be off by twice that.
const Flex = 2.0

// match assigns directions to a kind's ports so that every pair of directions
// is at the ports' angle, within the flex of two ports. The result gives each
// direction's port; among assignments that fit, the least off, then the first
// in order. ok is false when none fits.
func match(ports []catalog.Port, dirs []measure.Dir) (of []int, off float64, ok bool) {
	used := make([]bool, len(ports))
	cur := make([]int, len(dirs))
	best := math.Inf(1)
	angles := make([][]float64, len(dirs))
	for i := range dirs {
		angles[i] = make([]float64, i)
		for j := range i {
			angles[i][j] = dirs[i].AngleTo(dirs[j])
		}
	}
	var try func(i int, worst float64)
	try = func(i int, worst float64) {
		if worst >= best {
			return
		}
		if i == len(dirs) {
			best, of = worst, append(of[:0], cur...)
			return
		}
		for p := range ports {
			if used[p] {
				continue
			}
			w := worst
			for j := range i {
				w = max(w, math.Abs(angles[i][j]-ports[p].Dir.AngleTo(ports[cur[j]].Dir)))
			}
			if w > 2*Flex+1e-9 {
				continue
			}
			used[p], cur[i] = true, p
			try(i+1, w)
			used[p] = false
		}
	}
	try(0, 0)
	return of, best, !math.IsInf(best, 1)
}

// spareDirs gives the world directions of the ports that no direction took,
// where the others determine them; known is false where they do not.
func spareDirs(ports []catalog.Port, dirs []measure.Dir, of []int) (at []measure.Dir, known []bool) {
	at, known = make([]measure.Dir, len(ports)), make([]bool, len(ports))
	for i, p := range of {
		at[p], known[p] = dirs[i], true
	}
	// two directions that are not in line fix the fitting's turn
	for i := range of {
		for j := range i {
			a, b := ports[of[j]].Dir, ports[of[i]].Dir
			if c := a.Cross(b); c.Dot(c) < 0.25 {
				continue
			}
			local, world := triad(a, b), triad(dirs[j], dirs[i])
			// a third direction out of their plane tells a turn from a mirror image
			for k := range of {
				l, w := ports[of[k]].Dir.Dot(local[2]), dirs[k].Dot(world[2])
				if math.Abs(l) > 0.5 && l*w < 0 {
					world[2] = world[2].Neg()
				}
			}
			planar := true
			for p := range ports {
				if known[p] && math.Abs(ports[p].Dir.Dot(local[2])) > 0.5 {
					planar = false
				}
			}
			for p := range ports {
				d := ports[p].Dir
				if known[p] || planar && math.Abs(d.Dot(local[2])) > 0.5 {
					continue // square to a plane: either side is possible
				}
				var w measure.Dir
				for k := range 3 {
					c := d.Dot(local[k])
					for x := range 3 {
						w[x] += c * world[k][x]
					}
				}
				at[p], known[p] = w.Unit(), true
			}
			return at, known
		}
	}
	// all in line: a port opposite to a known one is known
	for p := range ports {
		for _, q := range of {
			if !known[p] && ports[p].Dir.AngleTo(ports[q].Dir) > 179 {
				at[p], known[p] = at[q].Neg(), true
			}
		}
	}
	return at, known
}

func triad(a, b measure.Dir) [3]measure.Dir {
	x := a.Unit()
	z := a.Cross(b).Unit()
	return [3]measure.Dir{x, z.Cross(x), z}
}
