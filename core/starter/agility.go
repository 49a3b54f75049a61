package starter

import (
	"fmt"
	"strconv"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var weave = Starter{
	ID: "weave", Name: "Row of poles", About: "Upright poles in a row on a base that lies flat.",
	For: course, Words: "weave slalom poles agility dog row upright",
	Prompts: append([]Prompt{
		counted("poles", "Poles", "6", 2, 24, "Six to learn on, twelve in a competition; two rows of six pack smaller."),
		length("apart", "Apart", "24", "24 in between centres is what dogs are trained to.", frame.Centre, frame.Clear),
		length("height", "Pole height", "40", "Tall enough that a dog goes round and not over.", frame.TopOfCap, frame.Outside),
		length("foot", "Foot depth", "18", "Wider than a dog leans out at speed.", frame.Outside, frame.Centre),
	}, sized("3/4", "3/4 gives a little when a dog brushes it; 1 stands stiffer.", "")...),
	build: func(a *answers) frame.Document { return row(a, "poles", "apart", "height", "", frame.CappedEnd) },
}

// row is a base along x with feet at both ends and uprights on it.
func row(a *answers, count, apart, height string, riser catalog.Size, end frame.End) frame.Document {
	n := a.counts[count]
	x := axis(origin("left"), at("1", beyond("left", 8)))
	if n > 1 {
		x.Stations = append(x.Stations, at("2", a.from(apart, "1")))
	}
	for k := 3; k <= n; k++ { // each as far from the one before it as the second from the first
		x.Stations = append(
			x.Stations,
			station{ID: strconv.Itoa(k), Equal: &equalTo{From: strconv.Itoa(k - 1), Axis: measure.X, Of: "1", To: "2"}},
		)
	}
	x.Stations = append(x.Stations, at("right", beyond(strconv.Itoa(n), 8)))
	d := onto(x, axis(origin("mid")), axis(origin("base"), at("top", a.from(height, floor))))
	d.use("left foot", "foot", "left", "mid", "base", "x", "mid", "z").use("right foot", "foot", "right", "mid", "base", "x", "mid", "z")
	chain := []string{"left foot/hub"}
	for k := 1; k <= n; k++ {
		at := strconv.Itoa(k)
		d.put(frame.OpenEnd, "base "+at, at, "mid", "base").put(end, "top "+at, at, "mid", "top")
		chain = append(chain, "base "+at)
	}
	d.run(append(chain, "right foot/hub")...)
	for k := 1; k <= n; k++ {
		at := strconv.Itoa(k)
		d.run("base "+at, "top "+at).last(func(p *frame.Pipe) {
			p.Size = riser
			p.AtEnd = &[2]frame.Insertion{{Mode: frame.Eased, Reason: "it lifts off to travel"}, {}}
		})
	}
	return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
}

var hoop = Starter{
	ID: "hoop", Name: "Ring between posts", About: "An eight-sided ring held between two footed posts.",
	For: course, Words: "tyre ring jump through agility circle",
	Prompts: append([]Prompt{
		length(
			"opening",
			"Opening",
			"22",
			"What goes through it, and a hand's breadth more: 22 in clear suits most dogs.",
			frame.Clear,
			frame.Centre,
		),
		length("low", "Lower edge", "12", "From the floor to the top of the ring's lowest side.", frame.TopOfPipe),
		length("foot", "Foot depth", "26", "About half as deep as it is high keeps it from tipping.", frame.Outside, frame.Centre),
	}, sized("3/4", "3/4 carries a ring of this size; the ring is light.", "")...),
	build: func(a *answers) frame.Document {
		x := flats(
			axis(origin("left post"), at("l", beyond("left post", 6)), at("r", a.from("opening", "l")), at("right post", beyond("r", 6))),
			"l",
			"r",
		)
		z := axis(origin("base"), at("tie", mean("base", 4, frame.Clear)), at("b", a.from("low", floor)),
			station{ID: "t", Equal: &equalTo{From: "b", Axis: measure.X, Of: "l", To: "r"}})
		z = flats(z, "b", "t")
		z.Stations = append(z.Stations, at("top", beyond("t", 3)))
		d := onto(x, axis(origin("mid")), z)
		d.ring(measure.X, measure.Z, [3]string{"", "mid", ""}, "l", "r", "b", "t", [4]bool{true, true, false, false})
		for _, s := range []struct{ post, flat string }{{"left", "l"}, {"right", "r"}} {
			p := s.post + " post"
			d.use(s.post, "foot", p, "mid", "base", "x", "mid", "z")
			d.put(frame.OpenEnd, s.post+" tie", p, "mid", "tie", s.post+" arm", p, "mid", "b mid").
				put(frame.CappedEnd, s.post+" top", p, "mid", "top")
			d.run(s.post+"/hub", s.post+" tie", s.post+" arm", s.post+" top").run(s.post+" arm", s.flat+", b mid")
		}
		d.run("left tie", "right tie")
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
	},
}

var tunnel = Starter{
	ID: "tunnel", Name: "Tunnel of sprung hoops", About: "Hoops sprung over stakes, and a spine that holds them apart.",
	For: shelter, Words: "hoop house cloche greenhouse polytunnel rain cover tarp sheet arch garden",
	Prompts: append([]Prompt{
		length(
			"span",
			"Span",
			"10 ft",
			"What lies under it, from foot to foot. Pipe bows easily only over a wide span.",
			frame.Centre,
			frame.Clear,
		),
		length("rise", "Rise", "24", "A fifth of the span is easy on 1/2 pipe; at a third it kinks.", frame.Centre, frame.Outside),
		counted("hoops", "Hoops", "5", 2, 40, "One about every 3 ft keeps a cover from sagging."),
		length("apart", "Apart", "36", "From hoop to hoop along the spine.", frame.Centre, frame.Clear),
	}, sized("1/2", "The thinnest pipe bows the farthest; 3/4 wants half as much span again.", "slip")...),
	build: func(a *answers) frame.Document {
		g := onto(
			axis(origin("left"), at("right", a.from("span", "left")), middle("mid", "left", "right")),
			axis(origin("y")),
			axis(origin("ground"), at("crown", a.from("rise", "ground"))),
		)
		g.put(frame.StakedEnd, "left", "left", "y", "ground", "right", "right", "y", "ground").
			put(frame.OpenEnd, "crown", "mid", "y", "crown")
		g.run("left", "crown").last(func(p *frame.Pipe) {
			p.Path, p.Spring = frame.Sprung, &frame.Spring{Leave: [2]measure.Dir{{}, {-1, 0, 0}}}
		})
		g.run("right", "crown").last(func(p *frame.Pipe) {
			p.Path, p.Spring = frame.Sprung, &frame.Spring{Leave: [2]measure.Dir{{}, {1, 0, 0}}}
		})
		d := onto(axis(origin("left")), axis(origin("first")), axis(origin("ground")))
		apart := a.from("apart", "").size("apart")
		d.Uses = []frame.Use{
			{
				ID:    "hoop",
				Of:    "hoop",
				At:    planes("left", "first", "ground"),
				Array: &frame.Array{Count: a.counts["hoops"], Axis: measure.Y, Pitch: &apart},
			},
		}
		for k := 2; k <= a.counts["hoops"]; k++ {
			d.Pipes = append(
				d.Pipes,
				frame.Pipe{ID: numbered("spine", k-1), From: fmt.Sprintf("hoop#%d/crown", k-1), To: fmt.Sprintf("hoop#%d/crown", k)},
			)
		}
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{g.named("hoop", "Hoop")}}
	},
}

// between names the posts of a row of bays, from the left: those at the ends by
// their side, which they keep when the bays become more or fewer.
func between(bays int) []string {
	all := []string{"left"}
	for k := 1; k < bays; k++ {
		all = append(all, numbered("post", k))
	}
	return append(all, "right")
}

var panel = Starter{
	ID: "panel", Name: "Run panel for net", About: "A flat panel with uprights to tie a net to; several make a run.",
	For: walls, Words: "net goal fence run pen panel ball stop",
	Prompts: append([]Prompt{
		length("width", "Width", "6 ft", "As wide as the net you have, less a hand to wrap it round.", frame.Outside, frame.Centre),
		length("height", "Height", "4 ft", "Higher than it jumps.", frame.Outside, frame.Centre),
		counted("bays", "Bays", "2", 1, 12, "Uprights about every 3 ft keep the net tight."),
		counted("rails", "Rails between", "1", 0, 6, "One at half height keeps it from bellying."),
	}, sized("1/2", "Panels lean on each other and are carried a lot: light is good.", "")...),
	build: func(a *answers) frame.Document {
		n, m := a.counts["bays"], a.counts["rails"]
		x, z := axis(origin("left"), at("right", a.from("width", "left"))), axis(origin("bottom"), at("top", a.from("height", "bottom")))
		posts := between(n)
		for k := 1; k < n; k++ {
			x.Stations = append(x.Stations, part(posts[k], "left", "right", k, n))
		}
		levels := []string{"bottom"}
		for k := 1; k <= m; k++ {
			z.Stations = append(z.Stations, part(numbered("rail", k), "bottom", "top", k, m+1))
			levels = append(levels, numbered("rail", k))
		}
		levels = append(levels, "top")
		d := onto(x, axis(origin("y")), z)
		for k, post := range posts {
			var chain []string
			for _, l := range levels {
				d.put(frame.OpenEnd, post+" "+l, post, "y", l)
				chain = append(chain, post+" "+l)
			}
			d.run(chain...)
			if k > 0 {
				for _, l := range levels {
					d.run(posts[k-1]+" "+l, post+" "+l)
				}
			}
		}
		return frame.Document{Root: d.definition()}
	},
}
