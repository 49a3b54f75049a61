package model

import (
	"context"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/curve"
	"sturdyelbow/core/cutlist"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Built is one frame of a job as it is built: everything in its place, and every
// piece with its cut.
type Built struct {
	*Located
	Index    int            // of the frame in the job
	Step     measure.Length // of the tape
	List     *cutlist.List
	Pipes    []Placed // in the order of the graph's edges
	Overall  [3]cutlist.Extent
	Contacts []fitting.Contact // where it meets the floor
	Ports    fitting.Audit     // what is in every port and at every pipe's end
}

// Placed is a pipe of the frame where it stands.
type Placed struct {
	cutlist.Piece
	From  string           `json:"from"`
	To    string           `json:"to"`
	Bare  [2]measure.Point `json:"bare"`  // the ends of the pipe itself
	Shown [2]measure.Point `json:"shown"` // the part between the two rims
	OD    measure.Length   `json:"od"`

	Path   frame.Path      `json:"path,omitempty"`
	Way    []measure.Point `json:"way,omitempty"`    // of a pipe that is not straight: along its middle line from rim to rim
	Radius measure.Length  `json:"radius,omitempty"` // where it is bent the most
	Strain float64         `json:"strain,omitempty"` // in its outer fibre there, as a share of its length

	Class    frame.Class    `json:"class,omitempty"`
	Ordered  measure.Length `json:"ordered"`            // what is cut: its cut, longer where it is trimmed to fit or still to be measured
	Least    measure.Length `json:"least,omitempty"`    // how short it may be, where it is rough
	Waits    bool           `json:"waits,omitempty"`    // not cut before it is measured on the frame
	Measured bool           `json:"measured,omitempty"` // it was: Ordered is what was measured
}

// Build builds the frame of a job with that index, its pieces rounded to a step.
// The error is that of [Locate].
func Build(ctx context.Context, d *frame.Document, c *catalog.Catalog, step measure.Length, index int) (*Built, error) {
	l, err := Locate(ctx, d, c)
	if err != nil {
		return nil, err
	}
	b := &Built{Located: l, Index: index, Step: step}
	b.List = cutlist.Build(l.Graph, l.Solution, l.Fits, step)
	b.Overall = cutlist.Overall(l.Graph, l.Fits, l.Solution, b.List)
	b.Contacts = l.Fits.Contacts(l.Points, l.Floor)
	b.Ports = l.Fits.Audit()
	b.place()
	return b, nil
}

// place puts every pipe where it stands, from its cut ends, and says what is cut
// for it.
func (b *Built) place() {
	b.Pipes = make([]Placed, len(b.Graph.Edges))
	for i, e := range b.Graph.Edges {
		p := Placed{
			Piece: b.List.Pieces[i],
			From:  b.Graph.Nodes[e.Ends[0]].ID,
			To:    b.Graph.Nodes[e.Ends[1]].ID,
			OD:    b.Catalog.Pipe(e.Size).OutsideDiameter,
		}
		for k, n := range e.Ends {
			end := frame.PipeEnd{Pipe: i, End: k}
			p.Bare[k] = b.Points[n].Along(b.Tangents[i][k], b.Fits.TakeOff(end))
			p.Shown[k] = b.Points[n].Along(b.Tangents[i][k], b.Fits.Face(end))
		}
		if way := b.Curves[i]; way != nil {
			p.Path, p.Way = e.Path, wayOf(way, p.Shown)
			p.Radius, p.Strain = way.Tightest, curve.Strain(p.OD, way.Tightest)
		}
		p.order(b.Doc.Tolerance(p.Pipe))
		b.Pipes[i] = p
	}
}

// order says how long the piece is cut. What was measured on the frame is how long
// it is from then on.
func (p *Placed) order(t frame.Tolerance) {
	p.Class, p.Ordered = t.Class, p.Cut
	if t.Short() > 0 {
		p.Least = max(p.Cut-t.Short(), 1)
	}
	switch {
	case t.Measured > 0:
		p.Ordered, p.Measured = t.Measured, true
	case t.Class == frame.OnFrame:
		p.Ordered, p.Waits = p.Cut+t.Reserve(), true
	default:
		p.Ordered += t.Reserve()
	}
}

// wayPoints is how many points a curve is drawn by.
const wayPoints = 33

// wayOf gives a curve's points from rim to rim.
func wayOf(c *curve.Curve, shown [2]measure.Point) []measure.Point {
	ps := slices.Clone(c.Points)
	if len(ps) > 2*wayPoints-2 {
		ps = c.Sample(wayPoints)
	}
	ps[0], ps[len(ps)-1] = shown[0], shown[1]
	return slices.Compact(ps)
}

// Spot is a place on the visible part of a pipe, at a share of the way along it.
func (p *Placed) Spot(share float64) measure.Point {
	if n := len(p.Way); n > 1 {
		at := share * float64(n-1)
		i := min(int(at), n-2)
		return p.Way[i].Along(p.Way[i].Toward(p.Way[i+1]), p.Way[i].Distance(p.Way[i+1]).Scale(at-float64(i)))
	}
	return p.Shown[0].Along(p.Shown[0].Toward(p.Shown[1]), p.Shown[0].Distance(p.Shown[1]).Scale(share))
}

// Findings are what was noticed while it was built: of the sizes, the fittings and
// the pieces, in that order.
func (b *Built) Findings() []finding.Finding {
	return slices.Concat(b.Solution.Findings, b.Fits.Findings, b.List.Findings)
}

// Piece gives the piece of a pipe.
func (b *Built) Piece(pipe string) *cutlist.Piece { return &b.List.Pieces[b.Graph.Edge(pipe)] }

// Around widens a box round the joints by what pipes bow out beyond it.
func (b *Built) Around(lo, hi measure.Point) (measure.Point, measure.Point) {
	for i, c := range b.Curves {
		if c == nil {
			continue
		}
		for a := range lo {
			d := measure.Axis(a).Dir()
			lo[a], hi[a] = min(lo[a], -c.Reach(d.Neg(), b.Fits.Radius(i))), max(hi[a], c.Reach(d, b.Fits.Radius(i)))
		}
	}
	return lo, hi
}
