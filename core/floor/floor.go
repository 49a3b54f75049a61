package floor

import (
	"cmp"
	"iter"
	"math"
	"slices"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
)

const (
	// hoversFrom is the gap from which a contact that does not reach the floor
	// is worth a warning: more than the floor itself is out.
	hoversFrom = measure.Inch / 16
	// rocksFrom is the gap from which a frame is felt to rock.
	rocksFrom = measure.Inch / 128
	// narrow is the width of its footing below which a frame stands on a line.
	narrow = measure.Inch / 2
)

// Judge says where a frame hovers above its floor, which foot hangs in the air, and whether it stands on a line; what stands
// over stakes is held by them.
// wheels are where the wheels of axles touch the floor. A bare pipe's end always
// floats: what is round the other end is thicker. What is held by hand stands on no floor.
func Judge(b *model.Built, wheels []fitting.Contact) (fs []finding.Finding) {
	if b.Graph.Doc.Held() {
		return nil
	}
	bare := map[string]bool{} // the joints that are an open pipe's end
	for i := range b.Fits.Joints {
		if b.Fits.Joints[i].Kind == "" {
			bare[b.Fits.Joints[i].ID] = true
		}
	}
	contacts := slices.Concat(b.Contacts, wheels)
	var rests []fitting.Contact
	var worst, tips *fitting.Contact
	var hover, rock []string
	for i := range contacts {
		c := &contacts[i]
		switch {
		case c.Gap == 0:
			rests = append(rests, *c)
		case c.Gap >= hoversFrom && !bare[c.Joint]:
			hover = append(hover, c.Joint)
			if worst == nil || c.Gap > worst.Gap {
				worst = c
			}
		case c.Gap >= rocksFrom && !bare[c.Joint]:
			rock = append(rock, c.Joint)
			if tips == nil || c.Gap > tips.Gap {
				tips = c
			}
		}
	}
	if tips != nil {
		fs = append(fs, finding.New("rocks", finding.Note, finding.All(finding.Joint, rock...)...).
			With("most", finding.All(finding.Joint, tips.Joint)).With("gap", tips.Gap))
	}
	if worst != nil {
		fs = append(fs, finding.New("hovers", finding.Warn, finding.All(finding.Joint, hover...)...).
			With("most", finding.All(finding.Joint, worst.Joint)).With("gap", worst.Gap))
	}
	for _, f := range hangs(b) {
		fs = append(fs, finding.New("hangs", finding.Warn, finding.All(finding.Joint, b.Graph.Nodes[f.joint].ID)...).
			With("gap", f.low-b.Floor))
	}
	staked := slices.ContainsFunc(b.Graph.Nodes, func(n frame.Node) bool { return n.End == frame.StakedEnd })
	if len(rests) > 0 && !staked && footing(rests) < narrow {
		fs = append(fs, finding.New("stands-on-a-line", finding.Note, finding.All(finding.Joint, rests[0].Joint)...))
	}
	return fs
}

// footing is the least width of the points on which a frame rests, seen from
// above: the least, over the edges of their convex hull, of how far the hull
// reaches from the edge. Its cost is n log n in the points and the square of the
// hull's corners, of which even a ring of feet has few.
func footing(rests []fitting.Contact) measure.Length {
	hull := hullOf(rests)
	least := math.Inf(1)
	for i := range hull {
		a, b := hull[i], hull[(i+1)%len(hull)]
		long := math.Hypot(b[0]-a[0], b[1]-a[1])
		if long == 0 {
			continue
		}
		reach := 0.0
		for _, c := range hull {
			reach = max(reach, crossProduct(a, b, c)/long)
		}
		least = min(least, reach)
	}
	if math.IsInf(least, 1) {
		return 0
	}
	return measure.Length(least)
}

// spot is a point of the floor, seen from above, in nanometres.
type spot [2]float64

// crossProduct is twice the area of a triangle, above zero where c lies left of the
// way from a to b.
func crossProduct(a, b, c spot) float64 {
	return (b[0]-a[0])*(c[1]-a[1]) - (b[1]-a[1])*(c[0]-a[0])
}

// hullOf gives the corners of the convex hull of points on the floor,
// counter-clockwise, by the monotone chain of A. M. Andrew (1979). Points in one
// line give its two ends.
func hullOf(rests []fitting.Contact) []spot {
	all := make([]spot, len(rests))
	for i, c := range rests {
		all[i] = spot{float64(c.At[0]), float64(c.At[1])}
	}
	slices.SortFunc(all, func(a, b spot) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	all = slices.Compact(all)
	if len(all) < 3 {
		return all
	}
	chain := func(points iter.Seq2[int, spot]) (half []spot) {
		for _, p := range points {
			for len(half) > 1 && crossProduct(half[len(half)-2], half[len(half)-1], p) <= 0 {
				half = half[:len(half)-1]
			}
			half = append(half, p)
		}
		return half[:len(half)-1] // the last begins the other half
	}
	return append(chain(slices.All(all)), chain(slices.Backward(all))...)
}
