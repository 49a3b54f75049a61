package link

import (
	"fmt"
	"math"
	"reflect"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/why"
)

// Report is a link as it comes out.
type Report struct {
	ID     string           `json:"id"`
	Kind   frame.LinkKind   `json:"kind"`
	At     measure.Point    `json:"at"`              // where it is, to be shown
	On     []string         `json:"on"`              // its places in words that mention what they are on ([mention.Of])
	Out    measure.Dir      `json:"out,omitzero"`    // to which side of the pipe
	Words  string           `json:"words"`           // in one line
	Needs  []material.Line  `json:"needs,omitempty"` // what is bought for it
	Sum    why.Sum          `json:"sum,omitempty"`   // of the length of a bolt, an axle or a tie
	Length measure.Length   `json:"length,omitempty"`
	Gap    measure.Length   `json:"gap,omitempty"` // between the two bodies; below zero they want the same place
	Fit    *fit.Fit         `json:"fit,omitempty"`
	Range  []measure.Length `json:"range,omitempty"` // of a telescope: how far the inner pipe may show, least and most
	Holes  int              `json:"holes,omitempty"` // in its range
	States []State          `json:"states,omitempty"`
	Moves  []string         `json:"moves,omitempty"` // the pipes that turn
	Hits   []Hit            `json:"hits,omitempty"`
	Joined [2]string        `json:"joined,omitzero"`  // the pipes, for what must not count as a clash
	Wheels []measure.Point  `json:"wheels,omitempty"` // where wheels touch the floor
	Discs  []Disc           `json:"discs,omitempty"`  // the wheels themselves
}

// Disc is a wheel, to be drawn.
type Disc struct {
	At       measure.Point  `json:"at"` // the middle of its hub
	Axis     measure.Dir    `json:"axis"`
	Diameter measure.Length `json:"diameter"`
	Wide     measure.Length `json:"wide"`
	On       string         `json:"on"` // the pipe or joint that its axle goes through
	Pipe     bool           `json:"pipe,omitempty"`
}

// State is the outside size of the frame with a part turned.
type State struct {
	Name  string            `json:"name"` // open, or folded
	Angle float64           `json:"angle"`
	Size  [3]measure.Length `json:"size"`
}

// Hit is where a turning part first meets something.
type Hit struct {
	Angle float64   `json:"angle"`
	Parts [2]string `json:"parts"`
}

// Judge works out every link of a frame.
func Judge(f *model.Built) (all []Report, fs []finding.Finding) {
	all = []Report{}
	for i := range f.Graph.Links {
		j := &judge{Built: f, b: &f.Graph.Links[i]}
		j.r = Report{ID: j.b.ID, Kind: j.b.Kind}
		for k := range j.b.On {
			p, _ := j.spot(k)
			j.at = append(j.at, p)
			j.r.On = append(j.r.On, f.Graph.Says(&j.b.Link.On[k], j.b.On[k]))
		}
		j.r.At, j.r.Out = j.at[0], f.Spot(j.b.On[0]).Out
		switch j.b.Kind {
		case frame.Pivot:
			j.pivot()
		case frame.Hinge:
			j.hinge()
		case frame.Telescope:
			j.telescope()
		case frame.Tie:
			j.tie()
		case frame.Axle:
			j.axle()
		case frame.Rod:
			j.rod()
		case frame.Clip:
			j.clip()
		case frame.Sleeve:
			j.sleeve()
		}
		all = append(all, j.r)
		for _, n := range j.fs { // four legs alike say a thing once
			alike := func(o finding.Finding) bool { return o.Code == n.Code && reflect.DeepEqual(o.Figures, n.Figures) }
			if same := slices.IndexFunc(fs, alike); same >= 0 {
				fs[same].Subjects = append(fs[same].Subjects, n.Subjects...)
			} else {
				fs = append(fs, n)
			}
		}
	}
	return all, fs
}

type judge struct {
	*model.Built
	b  *frame.ResolvedLink
	at []measure.Point
	r  Report
	fs []finding.Finding
}

// about begins a finding about what the link is on.
func (j *judge) about(code string, severity finding.Severity) finding.Finding {
	var on []finding.Subject
	for k := range j.b.On {
		on = append(on, j.thing(k))
	}
	return finding.New(code, severity, on...)
}

// ofLink is [judge.about] with the link as a figure.
func (j *judge) ofLink(code string, severity finding.Severity) finding.Finding {
	return j.about(code, severity).With("link", finding.Subject{Kind: finding.Link, ID: j.b.ID})
}

// need adds hardware that the link takes. length is the least that does; 0 where it has
// none.
func (j *judge) need(n int, kind string, diameter, length measure.Length, rule string) {
	spec := material.Spec{Ware: material.Hardware, Kind: kind, Diameter: diameter, Length: length}
	j.r.Needs = append(
		j.r.Needs,
		material.Line{Spec: spec, Quantity: n, Unit: "each", Where: []material.Place{{Kind: "link", ID: j.b.ID}}, Rule: rule},
	)
}

// made adds hardware that is a piece of pipe.
func (j *judge) made(n int, kind string, size catalog.Size, length measure.Length, rule string) {
	j.need(n, kind, 0, length, rule)
	j.r.Needs[len(j.r.Needs)-1].Size = string(size)
}

// up rounds a least length up to a step.
func up(l, step measure.Length) measure.Length { return (l + step - 1) / step * step }

// Needs lists the hardware of some links.
func Needs(all []Report) (lines []material.Line) {
	for i := range all {
		lines = append(lines, all[i].Needs...)
	}
	return lines
}

func (j *judge) tell(f finding.Finding) { j.fs = append(j.fs, f) }

// thing is the pipe or the joint that a place of the link is on.
func (j *judge) thing(k int) finding.Subject {
	s := j.b.On[k]
	if s.Node >= 0 {
		return finding.Subject{Kind: finding.Joint, ID: j.name(s)}
	}
	return finding.Subject{Kind: finding.Pipe, ID: j.name(s)}
}

func (j *judge) name(s frame.ResolvedAnchor) string {
	if s.Node >= 0 {
		return j.Graph.Nodes[s.Node].ID
	}
	return j.Graph.Edges[s.Pipe].ID
}

// spot is where a place of the link is, and the direction of its pipe there.
func (j *judge) spot(k int) (measure.Point, measure.Dir) {
	a := j.b.On[k]
	s := j.Spot(a)
	if !s.On {
		j.tell(j.ofLink("off-the-pipe", finding.Stop).With("at", a.At).With("pipe", finding.All(finding.Pipe, j.Graph.Edges[a.Pipe].ID)))
	}
	return s.At, s.Along
}

func (j *judge) od(k int) measure.Length {
	s := j.b.On[k]
	if s.Node >= 0 {
		return j.Fits.Joints[s.Node].Body
	}
	return 2 * j.Fits.Radius(s.Pipe)
}

func (j *judge) size(k int) catalog.Size {
	if s := j.b.On[k]; s.Pipe >= 0 {
		return j.Graph.Edges[s.Pipe].Size
	}
	return j.Graph.Doc.Size
}

const (
	washer = measure.Inch / 16
	// threads is what stays beyond a nut: two of them, at the usual sixteen or
	// more to the inch.
	threads = measure.Inch / 8
)

// nut is about as high as seven eighths of its bolt's diameter.
func nut(rod measure.Length) measure.Length { return rod.Scale(0.875) }

// apart is how far two pipes' axes are from each other at the link, and the
// direction from the first to the second; square to both where they cross.
func (j *judge) apart() (measure.Length, measure.Dir) {
	_, d1 := j.spot(0)
	_, d2 := j.spot(1)
	gap := j.at[0].Distance(j.at[1])
	n := d1.Cross(d2)
	if gap > measure.Inch/100 {
		return gap, j.at[0].Toward(j.at[1])
	}
	if n.Dot(n) > 1e-6 {
		return gap, n.Unit()
	}
	return gap, measure.Y.Dir()
}

func (j *judge) pivot() {
	rod := max(j.b.Rod, measure.Inch/16)
	if j.b.Rod == 0 {
		rod = measure.Inch / 4
	}
	gap, axis := j.apart()
	bodies := (j.od(0) + j.od(1)).Half()
	j.r.Gap = gap - bodies
	j.r.Joined = [2]string{j.name(j.b.On[0]), j.name(j.b.On[1])}
	if j.r.Gap < -measure.Inch/64 {
		j.tell(j.ofLink("pivot-in-plane", finding.Stop).With("off", gap).With("bodies", bodies))
	} else if j.r.Gap > measure.Inch/16 {
		j.tell(j.ofLink("pivot-gap", finding.Note).With("gap", j.r.Gap))
	}
	j.r.Sum = why.Sum{}.Plus("one pipe", j.od(0)).Plus("the other", j.od(1))
	if j.r.Gap > 0 {
		j.r.Sum = j.r.Sum.Plus("between them", j.r.Gap)
	}
	j.r.Sum = j.r.Sum.Plus("washers, two", 2*washer).Plus("nut", nut(rod)).Plus("two threads beyond it", threads)
	j.r.Length = j.r.Sum.Total()
	j.r.Words = fmt.Sprintf("%s bolt, at least %s long, two washers and a lock nut", rod, j.r.Length.Round(measure.Inch/16))
	j.need(1, "bolt", rod, up(j.r.Length, measure.Inch/16), "through both pipes, two washers and a nut, with two threads beyond it")
	j.need(2, "washer", rod, 0, "one under the head and one under the nut of each bolt")
	j.need(1, "lock nut", rod, 0, "one for each bolt that turns")
	if float64(rod) > 0.35*float64(min(j.od(0), j.od(1))) {
		j.tell(j.ofLink("bolt-thick", finding.Warn).With("bolt", rod))
	}
	if s := j.b.On[1]; s.Pipe >= 0 {
		j.turn(s.Pipe, j.at[0], axis)
	}
}

func (j *judge) hinge() {
	_, d := j.spot(0)
	if s := j.b.On[1]; s.Node >= 0 && len(j.Graph.Nodes[s.Node].Pipes) > 0 {
		j.turn(j.Graph.Nodes[s.Node].Pipes[0].Pipe, j.at[0], d)
	}
	j.r.Words = "turns round the pipe: leave it dry there, or take a clip or a slit sleeve"
}

func (j *judge) telescope() {
	outer, inner := j.b.On[0], j.b.On[1]
	if outer.Pipe < 0 || inner.Pipe < 0 {
		j.tell(j.ofLink("telescope-of-what", finding.Stop))
		return
	}
	f := fit.Pipe(j.Catalog, j.size(1), j.size(0))
	j.r.Fit = &f
	j.r.Joined = [2]string{j.name(outer), j.name(inner)}
	switch f.Verdict {
	case fit.Impossible:
		best, _, ok := fit.Inner(j.Catalog, j.size(0))
		n := j.about("does-not-go-in", finding.Stop).With("inner", j.size(1)).With("outer", j.size(0)).With("fit", f.Text)
		if ok {
			n = n.With("best", best)
		}
		j.tell(n)
	case fit.Sloppy, fit.Loose:
		j.tell(j.about("goes-in-loosely", finding.Warn).With("inner", j.size(1)).With("outer", j.size(0)).With("fit", f.Text))
	case fit.Tight:
		j.tell(j.about("try-a-pair", finding.Note).With("inner", j.size(1)).With("outer", j.size(0)).With("fit", f.Text))
	}
	od := 2 * j.Fits.Radius(outer.Pipe)
	least := j.b.Overlap
	if least == 0 {
		least = 2 * od
	}
	oe, ie := &j.Graph.Edges[outer.Pipe], &j.Graph.Edges[inner.Pipe]
	a, b := j.Points[oe.Ends[0]], j.Points[oe.Ends[1]]
	d := a.Toward(b)
	along := func(n int) measure.Length { return dot(j.Points[n].Sub(a), d) }
	off := func(n int) measure.Length { return j.Points[n].Distance(a.Along(d, along(n))) }
	if w := max(off(ie.Ends[0]), off(ie.Ends[1])); w > measure.Inch/32 {
		j.tell(j.ofLink("not-in-line", finding.Stop).With("off", w))
		return
	}
	lo, hi := min(along(ie.Ends[0]), along(ie.Ends[1])), max(along(ie.Ends[0]), along(ie.Ends[1]))
	long := a.Distance(b)
	overlap := min(hi, long) - max(lo, 0)
	if overlap < least {
		j.tell(j.ofLink("overlap", finding.Stop).With("overlap", max(0, overlap)).With("least", least))
	}
	shows := (hi - lo) - overlap
	most := (hi - lo) - least
	// it goes in until it meets what stands at the outer pipe's other end
	room := long - j.Fits.TakeOff(frame.PipeEnd{Pipe: outer.Pipe, End: 0}) - j.Fits.TakeOff(frame.PipeEnd{Pipe: outer.Pipe, End: 1})
	inmost := max(0, (hi-lo)-room)
	j.r.Range = []measure.Length{min(inmost, most), max(most, 0)}
	j.r.Length = shows
	j.r.Words = fmt.Sprintf(
		"%s in %s, %s shows, from %s to %s",
		j.size(1),
		j.size(0),
		shows.Round(measure.Inch/16),
		j.r.Range[0].Round(measure.Inch/16),
		j.r.Range[1].Round(measure.Inch/16),
	)
	if j.b.Pitch > 0 && most > inmost {
		j.r.Holes = int((most-inmost)/j.b.Pitch) + 1
		j.r.Words += fmt.Sprintf("; %d holes %s apart", j.r.Holes, j.b.Pitch)
		if pin := j.b.Rod; pin > 0 {
			j.r.Words += fmt.Sprintf(" for a %s pin at least %s long", pin, (od + measure.Inch/2).Round(measure.Inch/8))
			j.need(
				1,
				"pin",
				pin,
				up(od+measure.Inch/2, measure.Inch/8),
				"through the outer pipe, with a quarter of an inch beyond it on each side",
			)
		}
	}
}

// longestTie is the longest that cable ties are sold.
const longestTie = 4 * measure.Foot

func (j *judge) tie() {
	gap, _ := j.apart()
	cord := j.b.Cord
	if cord == 0 {
		cord = measure.Inch / 8
	}
	wide := max(j.od(0), j.od(1))
	round := measure.Length(math.Round(math.Pi * float64(wide)))
	j.r.Gap = gap - (j.od(0) + j.od(1)).Half()
	j.r.Joined = [2]string{j.name(j.b.On[0]), j.name(j.b.On[1])}
	j.r.Sum = why.Sum{}.Plus("round the thicker", round).
		Plus("across to the other and back", 2*gap).
		Plus("its own thickness", cord).
		Plus("tail", measure.Inch*3/2)
	j.r.Length = j.r.Sum.Total()
	n := max(1, j.b.Count)
	if j.r.Length > longestTie { // nothing is bought for it
		j.r.Words = fmt.Sprintf("no cable tie: it would have to be %s long", j.r.Length.Round(measure.Inch/4))
		j.tell(j.ofLink("tie-too-long", finding.Warn).With("gap", j.r.Gap).With("long", j.r.Length).With("most", longestTie))
		return
	}
	j.r.Words = fmt.Sprintf("%d cable %s at least %s long", n, plural(n, "tie"), j.r.Length.Round(measure.Inch/4))
	j.need(n, "cable tie", 0, up(j.r.Length, measure.Inch/4), "round both pipes, with its tail")
	if j.r.Gap > measure.Inch/2 {
		j.tell(j.ofLink("tie-gap", finding.Note).With("gap", j.r.Gap))
	}
}

func plural(n int, one string) string {
	if n == 1 {
		return one
	}
	return one + "s"
}

func dot(p measure.Point, d measure.Dir) (sum measure.Length) {
	for a := range p {
		sum += p[a].Scale(d[a])
	}
	return sum
}
