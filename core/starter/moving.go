package starter

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/fit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var cart = Starter{
	ID: "cart", Name: "Hand cart", About: "A deck on two wheels and two legs, with a bar to push.",
	For: moving, Words: "cart wheels trolley on wheels push haul wagon",
	Prompts: append([]Prompt{
		length("width", "Deck, wide", "20", "The crate or bag it carries, inside the uprights.", frame.Clear, frame.Outside),
		length("depth", "Deck, deep", "24", "The same from front to back.", frame.Outside, frame.Centre),
		thing("wheel", "Wheels", "8", "Their diameter: larger rolls better on grass."),
		thing("hub", "Hub, wide", "1 1/2", "Through the bore; the axle's length rests on it."),
		length("handle", "Push bar", "38", "To the top of the pipe: at the hip.", frame.TopOfPipe),
	}, sized("1", "1 in carries about 40 lb well spread; it is no vehicle.", "")...),
	build: func(a *answers) frame.Document {
		axle := a.from("wheel", floor)
		axle.Value, axle.Label, axle.Prompt = axle.Value.Half(), "Axle", ""
		d := onto(
			axis(origin("left"), at("right", a.from("width", "left"))),
			axis(origin("front"), at("back", a.from("depth", "front"))),
			axis(
				origin("ground"),
				at("axle", axle),
				at("stub", beyond("axle", -1.75)),
				at("deck", beyond("axle", 4)),
				at("bar", a.from("handle", floor)),
			),
		)
		for _, s := range []string{"left", "right"} {
			d.put(frame.CappedEnd, s+" leg", s, "front", "ground", s+" stub", s, "back", "stub").
				put(frame.OpenEnd, s+" front", s, "front", "deck", s+" back", s, "back", "deck", s+" bar", s, "back", "bar")
			d.run(s+" leg", s+" front", s+" back", s+" bar").run(s+" back", s+" stub")
		}
		d.run("left front", "right front").run("left back", "right back").run("left bar", "right bar")
		spot := func(s string) frame.Anchor {
			return frame.Anchor{Pipe: pipe(s+" back", s+" stub").ID, From: s + " back", At: 4 * measure.Inch}
		}
		d.Links = []frame.Link{
			{
				ID:     "axle",
				Kind:   frame.Axle,
				On:     []frame.Anchor{spot("left"), spot("right")},
				Rod:    measure.Inch / 2,
				Wheel:  a.lengths["wheel"].Value,
				Hub:    a.lengths["hub"].Value,
				Spacer: measure.Inch / 2,
			},
		}
		return frame.Document{Root: d.definition()}
	},
}

var sling = Starter{
	ID: "sling", Name: "Folding sling stand", About: "Two frames bolted through their legs, a cloth between their bars.",
	For: moving, Words: "fold folding bag laundry cloth stand stool",
	Prompts: append([]Prompt{
		length("cloth", "Cloth, wide", "16", "As wide as its hem is long, inside the inner legs.", frame.Clear),
		length("leg", "Legs", "28", "Along the leg; it stands about 0.87 of that high.", frame.Centre),
		counted("lean", "Lean of each, degrees", "30", 15, 45, "30 stands as wide as its legs are long."),
	}, sized("3/4", "3/4 for a bag or laundry; nothing that a body rests on.", "")...),
	build: func(a *answers) frame.Document {
		od, leg := a.od(), a.lengths["leg"].Value
		stack := od + measure.Inch/16 // the two legs and a washer between them
		inner := a.lengths["cloth"].Value + od
		short := leg - 2*measure.Inch // the inner bar swings past under the outer one
		part := func(id, name string, wide, long measure.Length, low bool) frame.Definition {
			z := axis(
				origin("foot"),
				at("pivot", &dimension{Value: leg.Half(), Meaning: frame.Centre, From: "foot"}),
				at("top", &dimension{Value: long, Meaning: frame.Centre, From: "foot"}),
			)
			if low {
				z.Stations = append(z.Stations, at("low", beyond("foot", 4)))
			}
			g := onto(
				axis(origin("left"), at("right", &dimension{Value: wide, Meaning: frame.Centre, From: "left", Label: "Wide"})),
				axis(origin("y")),
				z,
			)
			for _, s := range []string{"left", "right"} {
				g.put(frame.CappedEnd, s+" foot", s, "y", "foot").put(frame.OpenEnd, s+" top", s, "y", "top")
				if low {
					g.put(frame.OpenEnd, s+" low", s, "y", "low").run(s+" foot", s+" low", s+" top")
				} else {
					g.run(s+" foot", s+" top")
				}
			}
			g.run("left top", "right top")
			if low {
				g.run("left low", "right low")
			}
			return g.named(id, name)
		}
		d := onto(
			axis(origin("left"), at("inner", &dimension{Value: stack, Meaning: frame.Centre, From: "left"})),
			axis(origin("y")),
			axis(origin("pivot")),
		)
		lean := float64(a.counts["lean"])
		d.Uses = []frame.Use{
			leaning("outer", planes("left", "y", "pivot"), planes("left", "y", "pivot"), lean),
			leaning("inner", planes("inner", "y", "pivot"), planes("left", "y", "pivot"), -lean),
		}
		for _, s := range []string{"left", "right"} {
			d.Links = append(d.Links, frame.Link{ID: s + " bolt", Kind: frame.Pivot, Rod: measure.Inch / 4, Fold: foldOf(s, lean),
				On: []frame.Anchor{
					{Pipe: "outer/" + pipe(s+" foot", s+" top").ID, At: leg.Half()},
					{Pipe: "inner/" + pipe(s+" low", s+" top").ID, At: leg.Half() - 4*measure.Inch},
				}})
		}
		return frame.Document{
			Root: d.definition(),
			Groups: []frame.Definition{
				part("outer", "Outer frame", inner+2*stack, leg, false),
				part("inner", "Inner frame", inner, short, true),
			},
		}
	},
}

// leaning is one of two frames that cross on a bolt: it leans by so many degrees about it.
func leaning(group string, at, anchor [3]frame.Ref, by float64) frame.Use {
	return frame.Use{ID: group, Of: group, At: at, Anchor: anchor, Turns: []frame.Turn{{About: measure.X, By: by}}}
}

// foldOf turns the inner frame toward the outer one until the legs are nearly
// in line; the bolts' axes point from the outer leg to the inner one, left and
// right against each other.
func foldOf(side string, lean float64) float64 {
	if side == "left" {
		return 2*lean - 4
	}
	return -(2*lean - 4)
}

var telescope = Starter{
	ID: "telescope", Name: "Stand with telescoping legs", About: "A low top on four legs that grow, with a pin in a row of holes.",
	For: moving, Words: "adjust height legs grow telescope scale extend",
	Prompts: append([]Prompt{
		length("width", "Width", "24", "What stands on it.", frame.Outside, frame.Centre),
		length("depth", "Depth", "18", "The same from front to back.", frame.Outside, frame.Centre),
		length("leg", "Outer legs", "14", "From the top's centre down: the least height is about that.", frame.Centre),
		length("out", "Inner legs show", "6", "As it is drawn; the pin changes it.", frame.Centre),
		thing("hole", "Holes apart", "2", "Between pin holes."),
	}, sized("1-1/4", "1 slides in 1-1/4 and 2 in 2-1/2; in other sizes nothing does well.", "")...),
	build: func(a *answers) frame.Document {
		size := catalog.Size(a.texts["size"])
		inner, _, ok := fit.Inner(catalog.Typical(), size)
		if !ok {
			inner = size
		}
		// inside by four diameters: it keeps two of them over half its range
		in := &dimension{Value: 4 * a.od(), Meaning: frame.Centre, From: "end", Label: "Inside"}
		g := onto(
			axis(origin("x")),
			axis(origin("y")),
			axis(origin("top"), at("end", back(a.from("leg", "top"))), at("in", in), at("foot", back(a.from("out", "end")))),
		)
		g.put(frame.OpenEnd, "top", "x", "y", "top").
			put(frame.FreeEnd, "end", "x", "y", "end", "in", "x", "y", "in").
			put(frame.CappedEnd, "foot", "x", "y", "foot")
		g.run("top", "end").run("in", "foot").last(func(p *frame.Pipe) { p.Size = inner })
		g.Links = []frame.Link{
			{
				ID:    "slide",
				Kind:  frame.Telescope,
				On:    []frame.Anchor{{Pipe: g.Pipes[0].ID}, {Pipe: g.Pipes[1].ID}},
				Pitch: a.lengths["hole"].Value,
				Rod:   measure.Inch / 4,
			},
		}
		d := onto(
			axis(origin("left"), at("right", a.from("width", "left"))),
			axis(origin("front"), at("back", a.from("depth", "front"))),
			axis(origin("top")),
		)
		corners := [][2]string{{"left", "front"}, {"right", "front"}, {"right", "back"}, {"left", "back"}}
		for i, c := range corners {
			next := corners[(i+1)%4]
			d.use(c[1]+" "+c[0], "leg", c[0], c[1], "top").run(c[1]+" "+c[0]+"/top", next[1]+" "+next[0]+"/top")
		}
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{g.named("leg", "Leg that slides")}}
	},
}
