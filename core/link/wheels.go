package link

import (
	"fmt"
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/why"
)

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
				j.tell(j.about("rod-too-thick", finding.Stop).With("rod", rod).With("on", j.thing(k)).With("fit", f.Text))
			} else if f.Verdict == fit.Loose || f.Verdict == fit.Sloppy {
				j.tell(j.about("rod-loose", finding.Note).With("rod", rod).With("on", j.thing(k)).With("fit", f.Text))
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
	j.r.Sum = j.r.Sum.Plus("washers, four", 4*washer).
		Plus("hubs, two", 2*hub).
		Plus("nuts, two", 2*nut(rod)).
		Plus("two threads beyond each", 2*threads)
	j.r.Length = j.r.Sum.Total()
	j.r.Words = fmt.Sprintf("%s axle, %s long, four washers and two lock nuts", rod, j.r.Length.Round(measure.Inch/16))
	j.need(1, "axle", rod, up(j.r.Length, measure.Inch/16), "across the frame, with washers, hubs and nuts at both ends")
	j.need(4, "washer", rod, 0, "on both sides of each hub")
	j.need(2, "lock nut", rod, 0, "one at each end of an axle")
	if j.b.Spacer > 0 {
		j.need(2, "spacer", rod, j.b.Spacer, "between hub and frame on each side")
	}
	if hub == 0 {
		j.tell(j.ofLink("no-hub", finding.Question))
	}
	if j.b.Wheel > 0 {
		j.need(2, "wheel", j.b.Wheel, 0, "one at each end of an axle")
		under := min(j.at[0][2], j.at[1][2]) - j.b.Wheel.Half() - j.Floor
		j.r.Gap = under
		for k, out := range []measure.Dir{d.Neg(), d} {
			p := j.at[k].Along(out, reach(k, out)+j.b.Spacer+washer+hub.Half())
			j.r.Discs = append(j.r.Discs, Disc{p, d, j.b.Wheel, max(hub, measure.Inch/2), j.name(j.b.On[k]), j.b.On[k].Pipe >= 0})
			if p[2] = j.Floor; under.Abs() <= measure.Inch/16 {
				j.r.Wheels = append(j.r.Wheels, p)
			}
		}
		switch {
		case under > measure.Inch/16:
			j.tell(j.ofLink("wheels-hang", finding.Warn).With("gap", under))
		case under < -measure.Inch/16:
			j.tell(j.ofLink("wheels-lift", finding.Note).With("gap", -under))
		}
		j.r.Words += fmt.Sprintf(", %s wheels", j.b.Wheel)
	}
}

func (j *judge) rod() {
	rod := j.b.Rod
	if rod == 0 {
		j.tell(j.ofLink("no-rod", finding.Question))
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
	j.need(1, "rod or stake", rod, 0, "one where it is drawn")
	j.r.Fit, j.r.Words = &f, fmt.Sprintf("a %s rod or stake in %s pipe: %s", rod, size, f.Text)
	if f.Verdict == fit.Impossible {
		j.tell(j.ofLink("rod-too-thick", finding.Stop).With("rod", rod).With("pipe", size).With("fit", f.Text))
	}
}

func (j *judge) clip() {
	n := max(1, j.b.Count)
	c, ok := fit.ClipFor(j.size(0))
	if !ok {
		j.tell(j.about("no-clip", finding.Warn).With("size", j.size(0)))
		return
	}
	j.r.Words = fmt.Sprintf("%d %s, each %s", n, plural(n, "clip"), c.Text)
	j.made(n, "clip", c.From, j.b.Length, "cut from pipe: "+c.Text)
}

func (j *judge) sleeve() {
	size := j.b.Size
	if size == "" {
		j.tell(j.ofLink("no-sleeve", finding.Question))
		return
	}
	f := fit.Pipe(j.Catalog, j.size(0), size)
	j.made(max(1, j.b.Count), "sleeve", size, j.b.Length, "a piece of larger pipe")
	j.r.Fit, j.r.Words = &f, fmt.Sprintf("a sleeve of %s pipe on %s: %s", size, j.size(0), f.Text)
	if f.Verdict == fit.Impossible {
		j.tell(
			j.about("does-not-go-in", finding.Stop).
				With("inner", j.size(0)).
				With("outer", size).
				With("sleeve", "sleeve").
				With("fit", f.Text),
		)
	}
}
