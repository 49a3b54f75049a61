package link

import (
	"fmt"
	"math"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/layout"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

// Report is a link as it comes out.
type Report struct {
	ID     string           `json:"id"`
	Kind   frame.LinkKind   `json:"kind"`
	At     measure.Point    `json:"at"`            // where it is, to be shown
	Words  string           `json:"words"`         // in one line
	Sum    why.Sum          `json:"sum,omitempty"` // of the length of a bolt, an axle or a tie
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

// Frame is what links are judged in.
type Frame struct {
	Graph   *frame.Graph
	Solved  *layout.Solution
	Fits    *fitting.Result
	Catalog *catalog.Catalog
}

// Judge works out every link of a frame.
func Judge(f Frame) (all []Report, fs []finding.Finding) {
	all = []Report{}
	for i := range f.Graph.Links {
		j := &judge{Frame: f, b: &f.Graph.Links[i]}
		j.r = Report{ID: j.b.ID, Kind: j.b.Kind}
		for k := range j.b.On {
			p, _ := j.spot(k)
			j.at = append(j.at, p)
		}
		j.r.At = j.at[0]
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
			if same := slices.IndexFunc(fs, func(o finding.Finding) bool { return o.Code == n.Code && o.Text == n.Text }); same >= 0 {
				fs[same].Subject = append(fs[same].Subject, n.Subject...)
			} else {
				fs = append(fs, n)
			}
		}
	}
	return all, fs
}

type judge struct {
	Frame
	b  *frame.ResolvedLink
	at []measure.Point
	r  Report
	fs []finding.Finding
}

func (j *judge) note(code string, sev finding.Severity, text, hint string) {
	var on []string
	for _, s := range j.b.On {
		on = append(on, j.name(s))
	}
	j.fs = append(j.fs, finding.Finding{Code: code, Severity: sev, Subject: on, Text: text, Hint: hint})
}

func (j *judge) name(s frame.ResolvedSpot) string {
	if s.Node >= 0 {
		return j.Graph.Nodes[s.Node].ID
	}
	return j.Graph.Edges[s.Pipe].ID
}

// spot is where a place of the link is, and the direction of its pipe there.
func (j *judge) spot(k int) (measure.Point, measure.Dir) {
	s := j.b.On[k]
	if s.Node >= 0 {
		return j.Solved.Points[s.Node], measure.Dir{}
	}
	e := &j.Graph.Edges[s.Pipe]
	a, b := j.Solved.Points[e.Ends[s.End]], j.Solved.Points[e.Ends[1-s.End]]
	d := a.Toward(b)
	if s.At > a.Distance(b) {
		j.note("off-the-pipe", finding.Stop, fmt.Sprintf("%s is held %s along %s, which is shorter", j.b.ID, s.At, e.ID), "move it onto the pipe")
	}
	return a.Along(d, s.At), d
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
		j.note("pivot-in-plane", finding.Stop, fmt.Sprintf("the two pipes at %s lie in each other: their middle lines are %s apart", j.b.ID, gap.Round(measure.SixtyFourth)),
			fmt.Sprintf("stack them out of plane, %s from centre to centre", bodies.Round(measure.SixtyFourth)))
	} else if j.r.Gap > measure.Inch/16 {
		j.note("pivot-gap", finding.Note, fmt.Sprintf("%s is open between the two pipes at %s", j.r.Gap.Round(measure.SixtyFourth), j.b.ID), "fill it with washers or a spacer, so that the bolt does not bend")
	}
	j.r.Sum = why.Sum{}.Plus("one pipe", j.od(0)).Plus("the other", j.od(1))
	if j.r.Gap > 0 {
		j.r.Sum = j.r.Sum.Plus("between them", j.r.Gap)
	}
	j.r.Sum = j.r.Sum.Plus("washers, two", 2*washer).Plus("nut", nut(rod)).Plus("two threads beyond it", threads)
	j.r.Length = j.r.Sum.Total()
	j.r.Words = fmt.Sprintf("%s bolt, at least %s long, two washers and a lock nut", rod, j.r.Length.Round(measure.Inch/16))
	if float64(rod) > 0.35*float64(min(j.od(0), j.od(1))) {
		j.note("bolt-thick", finding.Warn, fmt.Sprintf("a %s bolt takes more than a third of the pipe at %s", rod, j.b.ID), "take a thinner bolt: the hole weakens the pipe")
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
		j.note("telescope-of-what", finding.Stop, j.b.ID+" telescopes a joint", "name two pipes")
		return
	}
	f := fit.Pipe(j.Catalog, j.size(1), j.size(0))
	j.r.Fit = &f
	j.r.Joined = [2]string{j.name(outer), j.name(inner)}
	switch f.Verdict {
	case fit.Impossible:
		best, _, ok := fit.Inner(j.Catalog, j.size(0))
		hint := "no pipe goes into this one; take a larger outer pipe"
		if ok {
			hint = fmt.Sprintf("%s goes into %s", best, j.size(0))
		}
		j.note("does-not-go-in", finding.Stop, fmt.Sprintf("%s pipe does not go into %s pipe: %s", j.size(1), j.size(0), f.Text), hint)
	case fit.Sloppy, fit.Loose:
		j.note("goes-in-loosely", finding.Warn, fmt.Sprintf("%s pipe in %s pipe: %s", j.size(1), j.size(0), f.Text), "1 in 1-1/4 and 2 in 2-1/2 slide well")
	case fit.Tight:
		j.note("try-a-pair", finding.Note, fmt.Sprintf("%s pipe in %s pipe: %s", j.size(1), j.size(0), f.Text), "take the pieces along when you buy")
	}
	od := 2 * j.Fits.Radius(outer.Pipe)
	least := j.b.Overlap
	if least == 0 {
		least = 2 * od
	}
	oe, ie := &j.Graph.Edges[outer.Pipe], &j.Graph.Edges[inner.Pipe]
	a, b := j.Solved.Points[oe.Ends[0]], j.Solved.Points[oe.Ends[1]]
	d := a.Toward(b)
	along := func(n int) measure.Length { return dot(j.Solved.Points[n].Sub(a), d) }
	off := func(n int) measure.Length { return j.Solved.Points[n].Distance(a.Along(d, along(n))) }
	if w := max(off(ie.Ends[0]), off(ie.Ends[1])); w > measure.Inch/32 {
		j.note("not-in-line", finding.Stop, fmt.Sprintf("the two pipes of %s are not in line: %s off", j.b.ID, w.Round(measure.SixtyFourth)), "draw the inner pipe from the end of the outer one, along it")
		return
	}
	lo, hi := min(along(ie.Ends[0]), along(ie.Ends[1])), max(along(ie.Ends[0]), along(ie.Ends[1]))
	long := a.Distance(b)
	overlap := min(hi, long) - max(lo, 0)
	if overlap < least {
		j.note("overlap", finding.Stop, fmt.Sprintf("the pipes of %s overlap by %s, and %s is the least", j.b.ID, max(0, overlap).Round(measure.SixtyFourth), least.Round(measure.SixtyFourth)), "two diameters of the outer pipe keep it straight: push it in farther, or take a longer piece")
	}
	shows := (hi - lo) - overlap
	most := (hi - lo) - least
	// it goes in until it meets what stands at the outer pipe's other end
	room := long - j.Fits.TakeOff(frame.PipeEnd{Pipe: outer.Pipe, End: 0}) - j.Fits.TakeOff(frame.PipeEnd{Pipe: outer.Pipe, End: 1})
	inmost := max(0, (hi-lo)-room)
	j.r.Range = []measure.Length{min(inmost, most), max(most, 0)}
	j.r.Length = shows
	j.r.Words = fmt.Sprintf("%s in %s, %s shows, from %s to %s", j.size(1), j.size(0), shows.Round(measure.Inch/16), j.r.Range[0].Round(measure.Inch/16), j.r.Range[1].Round(measure.Inch/16))
	if j.b.Pitch > 0 && most > inmost {
		j.r.Holes = int((most-inmost)/j.b.Pitch) + 1
		j.r.Words += fmt.Sprintf("; %d holes %s apart", j.r.Holes, j.b.Pitch)
		if pin := j.b.Rod; pin > 0 {
			j.r.Words += fmt.Sprintf(" for a %s pin at least %s long", pin, (od + measure.Inch/2).Round(measure.Inch/8))
		}
	}
}

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
	j.r.Sum = why.Sum{}.Plus("round the thicker", round).Plus("across to the other and back", 2*gap).Plus("its own thickness", cord).Plus("tail", measure.Inch*3/2)
	j.r.Length = j.r.Sum.Total()
	n := max(1, j.b.Count)
	j.r.Words = fmt.Sprintf("%d cable %s at least %s long", n, plural(n, "tie"), j.r.Length.Round(measure.Inch/4))
	if j.r.Gap > measure.Inch/2 {
		j.note("tie-gap", finding.Note, fmt.Sprintf("the pipes tied at %s are %s apart", j.b.ID, j.r.Gap.Round(measure.Inch/16)), "a tie holds pipes that touch; across a gap it lets them swing")
	}
}

func (j *judge) axle() {
	rod := j.b.Rod
	if rod == 0 {
		rod = measure.Inch / 2
	}
	d := j.at[0].Toward(j.at[1])
	for k := range j.b.On {
		kind := catalog.Kind("")
		if s := j.b.On[k]; s.Node >= 0 {
			kind = j.Fits.Joints[s.Node].Kind
		}
		f := fit.Through(j.Catalog, rod, j.size(k), kind)
		if j.b.On[k].Node >= 0 {
			j.r.Fit = &f
			if f.Verdict == fit.Impossible {
				j.note("rod-too-thick", finding.Stop, fmt.Sprintf("a %s axle does not pass the %s: %s", rod, j.name(j.b.On[k]), f.Text), "take a thinner axle or larger pipe")
			} else if f.Verdict == fit.Loose || f.Verdict == fit.Sloppy {
				j.note("rod-loose", finding.Note, fmt.Sprintf("a %s axle in the %s: %s", rod, j.name(j.b.On[k]), f.Text), "let it run in a bushing, or in a snug piece of tube")
			}
		}
	}
	reach := func(k int, toward measure.Dir) measure.Length {
		if s := j.b.On[k]; s.Node >= 0 {
			return j.Fits.Extent(s.Node, toward)
		}
		return j.od(k).Half()
	}
	across := reach(0, d.Neg()) + j.at[0].Distance(j.at[1]) + reach(1, d)
	j.r.Sum = why.Sum{}.Plus("across the frame, over its bodies", across)
	if j.b.Spacer > 0 {
		j.r.Sum = j.r.Sum.Plus("spacers, two", 2*j.b.Spacer)
	}
	hub := j.b.Hub
	j.r.Sum = j.r.Sum.Plus("washers, four", 4*washer).Plus("hubs, two", 2*hub).Plus("nuts, two", 2*nut(rod)).Plus("two threads beyond each", 2*threads)
	j.r.Length = j.r.Sum.Total()
	j.r.Words = fmt.Sprintf("%s axle, %s long, four washers and two lock nuts", rod, j.r.Length.Round(measure.Inch/16))
	if hub == 0 {
		j.note("no-hub", finding.Question, fmt.Sprintf("how wide is the hub of the wheels on %s?", j.b.ID), "measure it through the bore; the axle's length rests on it")
	}
	if j.b.Wheel > 0 {
		under := min(j.at[0][2], j.at[1][2]) - j.b.Wheel.Half() - j.Solved.Floor
		j.r.Gap = under
		for k, out := range []measure.Dir{d.Neg(), d} {
			p := j.at[k].Along(out, reach(k, out)+j.b.Spacer+washer+hub.Half())
			j.r.Discs = append(j.r.Discs, Disc{p, d, j.b.Wheel, max(hub, measure.Inch/2), j.name(j.b.On[k]), j.b.On[k].Pipe >= 0})
			if p[2] = j.Solved.Floor; under.Abs() <= measure.Inch/16 {
				j.r.Wheels = append(j.r.Wheels, p)
			}
		}
		switch {
		case under > measure.Inch/16:
			j.note("wheels-hang", finding.Warn, fmt.Sprintf("the wheels on %s hang %s above the floor", j.b.ID, under.Round(measure.Inch/16)), "lower the axle, or take larger wheels; a cart that tips onto its wheels wants about an inch")
		case under < -measure.Inch/16:
			j.note("wheels-lift", finding.Note, fmt.Sprintf("the wheels on %s reach %s below the rest of the frame, which then stands on them", j.b.ID, (-under).Round(measure.Inch/16)), "raise the axle by that, or make the legs as much longer")
		}
		j.r.Words += fmt.Sprintf(", %s wheels", j.b.Wheel)
	}
}

func (j *judge) rod() {
	rod := j.b.Rod
	if rod == 0 {
		j.note("no-rod", finding.Question, fmt.Sprintf("how thick is the rod of %s?", j.b.ID), "measure it across")
		return
	}
	kind := catalog.Kind("")
	if s := j.b.On[0]; s.Node >= 0 {
		kind = j.Fits.Joints[s.Node].Kind
	}
	size := j.size(0)
	if s := j.b.On[0]; s.Node >= 0 && len(j.Graph.Nodes[s.Node].Pipes) > 0 {
		size = j.Graph.Edges[j.Graph.Nodes[s.Node].Pipes[0].Pipe].Size
	}
	f := fit.Through(j.Catalog, rod, size, kind)
	j.r.Fit, j.r.Words = &f, fmt.Sprintf("a %s rod or stake in %s pipe: %s", rod, size, f.Text)
	if f.Verdict == fit.Impossible {
		j.note("rod-too-thick", finding.Stop, fmt.Sprintf("a %s rod does not go into the %s pipe of %s: %s", rod, size, j.b.ID, f.Text), "take a thinner rod or larger pipe")
	}
}

func (j *judge) clip() {
	n := max(1, j.b.Count)
	c, ok := fit.ClipFor(j.size(0))
	if !ok {
		j.note("no-clip", finding.Warn, fmt.Sprintf("no clip is known that grips %s pipe", j.size(0)), "take ties, or a screw through a sleeve")
		return
	}
	j.r.Words = fmt.Sprintf("%d %s, each %s", n, plural(n, "clip"), c.Text)
}

func (j *judge) sleeve() {
	size := j.b.Size
	if size == "" {
		j.note("no-sleeve", finding.Question, fmt.Sprintf("of what size is the sleeve of %s?", j.b.ID), "name a larger pipe")
		return
	}
	f := fit.Pipe(j.Catalog, j.size(0), size)
	j.r.Fit, j.r.Words = &f, fmt.Sprintf("a sleeve of %s pipe on %s: %s", size, j.size(0), f.Text)
	if f.Verdict == fit.Impossible {
		j.note("does-not-go-in", finding.Stop, fmt.Sprintf("%s pipe does not go into a sleeve of %s pipe: %s", j.size(0), size, f.Text), "take a larger sleeve, or a slit one as a clip")
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
