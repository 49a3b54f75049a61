package starter

import (
	"math"
	"strconv"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var slots = Starter{
	ID: "slots", Name: "Slots for boards or wheels", About: "Pairs of posts that lean apart: what stands between them stays upright.",
	For: holding, Words: "bike wheel board rack slot lean upright kayak paddle surf",
	Prompts: append([]Prompt{
		length(
			"thick",
			"What stands in a slot",
			"4",
			"The board or tyre at its thickest, and half an inch more.",
			frame.Clear,
			frame.Centre,
		),
		counted("slots", "Slots", "4", 1, 20, "One for each."),
		length("between", "Between slots", "8", "Room for a hand, and for what is wider higher up.", frame.Centre, frame.Clear),
		length("depth", "Depth", "20", "A wheel wants about two thirds of its diameter.", frame.Outside, frame.Centre),
		length("post", "Posts", "14", "About half as high as what stands there.", frame.Centre),
		counted("lean", "Lean, degrees", "8", 0, 30, "The tees turn on their pipes to any angle; more lean lets things in more easily."),
	}, sized("3/4", "3/4 holds wheels and boards; 1 holds doors.", "")...),
	build: func(a *answers) frame.Document {
		g := onto(
			axis(origin("a"), at("b", a.from("thick", "a"))),
			axis(origin("front"), at("back", a.from("depth", "front")), middle("mid", "front", "back")),
			axis(origin("z")),
		)
		sin, cos := math.Sincos(float64(a.counts["lean"]) * math.Pi / 180)
		for _, s := range []struct {
			id   string
			sign float64
		}{{"a", -1}, {"b", 1}} {
			g.put(frame.OpenEnd, s.id+" front", s.id, "front", "z", s.id+" mid", s.id, "mid", "z", s.id+" back", s.id, "back", "z")
			post := a.from("post", "")
			if s.id == "b" {
				post.Label, post.Prompt = "", ""
			}
			dir := measure.Dir{s.sign * sin, 0, cos}
			g.Joints = append(g.Joints, frame.Joint{ID: s.id + " top", End: frame.CappedEnd})
			g.walks = append(g.walks, direction{s.id + " top", s.id + " mid", dir, post})
			g.run(s.id+" front", s.id+" mid", s.id+" back").run(s.id+" mid", s.id+" top")
		}
		g.run("a front", "b front").run("a back", "b back")
		d := onto(axis(origin("first")), axis(origin("front")), axis(origin("z")))
		n := a.counts["slots"]
		at := "first"
		for k := 1; k <= n; k++ {
			id := numbered("slot", k)
			if k > 1 {
				// the next slot's near side stands so far from this one's far side
				st := station{ID: id, At: a.from("between", "slot 1/b")}
				if k > 2 {
					st = station{ID: id, Equal: &equalTo{From: at, Axis: measure.X, Of: "first", To: "slot 2"}}
				}
				d.Axes[0].Stations = append(d.Axes[0].Stations, st)
				at = id
			}
			d.use(id, "slot", at, "front", "z")
			if k > 1 {
				was := numbered("slot", k-1)
				d.run(was+"/b front", id+"/a front").run(was+"/b back", id+"/a back")
			}
		}
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{g.named("slot", "Slot")}}
	},
}

var trestle = Starter{
	ID: "trestle", Name: "Padded-top trestle", About: "Two end frames, a top bar for foam and a stretcher.",
	For: holding, Words: "sawhorse trestle saddle stand padded",
	Prompts: append([]Prompt{
		length("width", "Top bar", "36", "As long as what lies on it is wide, and 6 in more.", frame.Outside, frame.Centre),
		length("height", "Height", "30", "To the top of the bar, without the foam: wrist height is easy on the back.", frame.TopOfPipe),
		length("depth", "Depth of its ends", "20", "Two thirds of the height stands safely.", frame.Outside, frame.Centre),
		length("low", "Stretcher", "8", "High enough for a shoe.", frame.TopOfPipe),
	}, sized("1", "1 in carries a sheet or a canoe; 3/4 is for light work.", "")...),
	build: func(a *answers) frame.Document {
		d := onto(
			axis(origin("left"), at("right", a.from("width", "left"))),
			axis(origin("front"), at("back", a.from("depth", "front")), middle("mid", "front", "back")),
			axis(origin("ground"), at("low", a.from("low", floor)), at("top", a.from("height", floor))),
		)
		for _, s := range []string{"left", "right"} {
			for _, y := range []string{"front", "back"} {
				d.put(frame.CappedEnd, s+" "+y, s, y, "ground").put(frame.OpenEnd, s+" "+y+" low", s, y, "low", s+" "+y+" top", s, y, "top")
				d.run(s+" "+y, s+" "+y+" low", s+" "+y+" top")
			}
			for _, z := range []string{"low", "top"} {
				d.put(frame.OpenEnd, s+" "+z, s, "mid", z).run(s+" front "+z, s+" "+z, s+" back "+z)
			}
		}
		d.run("left low", "right low").run("left top", "right top")
		return frame.Document{Root: d.definition()}
	},
}

var cradle = Starter{
	ID: "cradle", Name: "Tilted cradle", About: "A tray with a back, square in itself, that stands tilted.",
	For: holding, Words: "rack display tilt book easel music tray",
	Prompts: append([]Prompt{
		length("width", "Width", "20", "What lies in it, and an inch.", frame.Clear, frame.Outside),
		length("depth", "Depth", "16", "What lies in it, from front to back.", frame.Centre),
		length("back", "Back", "10", "High enough to lean on.", frame.Centre, frame.Visible),
		length("clear", "Rear legs", "4", "The shorter ones; the front ones follow from the tilt.", frame.Centre),
		counted("tilt", "Tilt, degrees", "15", 1, 30, "15 shows what lies in it; 25 makes things slide to the back."),
	}, sized("3/4", "3/4 is plenty for what a table carries.", "")...),
	build: func(a *answers) frame.Document {
		tilt := float64(a.counts["tilt"])
		// the front legs are longer by the depth times the tilt's tangent
		more := a.lengths["depth"].Value.Scale(math.Tan(tilt * math.Pi / 180))
		long := &dimension{Value: a.lengths["clear"].Value + more, Meaning: frame.Centre, From: "tray", Back: true, Label: "Front legs"}
		rise := a.from("back", "tray")
		if rise.Meaning == frame.Visible {
			rise.Of = pipe("back left", "top left").ID
		}
		d := onto(axis(origin("left"), at("right", a.from("width", "left"))), axis(origin("front"), at("back", a.from("depth", "front"))),
			axis(origin("tray"), at("rear foot", back(a.from("clear", "tray"))), at("front foot", long), at("top", rise)))
		for _, s := range []string{"left", "right"} {
			d.put(frame.OpenEnd, "front "+s, s, "front", "tray", "back "+s, s, "back", "tray", "top "+s, s, "back", "top")
			d.put(frame.CappedEnd, "front foot "+s, s, "front", "front foot", "rear foot "+s, s, "back", "rear foot")
			d.run("front "+s, "back "+s, "top "+s).run("front "+s, "front foot "+s).run("back "+s, "rear foot "+s)
		}
		d.run("front left", "front right").run("back left", "back right").run("top left", "top right")
		return frame.Document{Root: d.definition(), Stance: &frame.Stance{Turns: []frame.Turn{{About: measure.X, By: -tilt}}}}
	},
}

var tower = Starter{
	ID: "tower", Name: "Tower with arms", About: "A post on a wide base, with arms to both sides at every level.",
	For: holding, Words: "tree arms hang drying hat coat rack treat post lead",
	Prompts: append([]Prompt{
		counted("levels", "Levels", "3", 1, 10, "Pairs of arms, the top one among them."),
		length(
			"arm",
			"Arms",
			"12",
			"From the post to the end of the cap: as long as what hangs there is wide.",
			frame.Outside,
			frame.Centre,
		),
		length("height", "Height", "5 ft", "To the top of the highest arms.", frame.TopOfPipe),
		length("low", "Lowest arms", "18", "What hangs there must not touch the floor.", frame.TopOfPipe),
		length(
			"base",
			"Base",
			"24",
			"Its feet as far apart as the arms reach: it cannot be pulled over by one of them.",
			frame.Centre,
			frame.Outside,
		),
		length("foot", "Foot depth", "24", "As deep as the base is wide.", frame.Outside, frame.Centre),
	}, sized("1", "1 in stands straight up to about 6 ft.", "")...),
	build: func(a *answers) frame.Document {
		x := axis(
			origin("left"),
			at("right", a.from("base", "left")),
			middle("post", "left", "right"),
			at("l arm", back(a.from("arm", "post"))),
			at("r arm", unasked(a.from("arm", "post"))),
		)
		z := axis(origin("base"))
		all := levels(&z, a, a.counts["levels"], "level")
		d := onto(x, axis(origin("mid")), z)
		d.use("left", "foot", "left", "mid", "base", "x", "mid", "z").use("right", "foot", "right", "mid", "base", "x", "mid", "z")
		d.put(frame.OpenEnd, "hub", "post", "mid", "base").run("left/hub", "hub", "right/hub")
		chain := []string{"hub"}
		for _, l := range all {
			d.put(frame.OpenEnd, l, "post", "mid", l).put(frame.CappedEnd, l+" left", "l arm", "mid", l, l+" right", "r arm", "mid", l)
			d.run(l+" left", l, l+" right")
			chain = append(chain, l)
		}
		d.run(chain...)
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
	},
}

// unasked is the same answer a second time: one dimension, shown once.
func unasked(d *dimension) *dimension {
	d.Label, d.Prompt = "", ""
	return d
}

var figure = Starter{
	ID: "figure", Name: "Figure stand", About: "Legs, hips, a spine and shoulders to dress, on two feet.",
	For: dressed, Words: "mannequin dummy scarecrow dress costume body",
	Prompts: append([]Prompt{
		length("height", "Height", "5 ft", "To the top of the neck: the wearer's chin.", frame.TopOfCap),
		length("shoulders", "Shoulders", "16", "Across, over the caps, an inch less than the garment.", frame.Outside, frame.Centre),
		length("shoulder", "Shoulder height", "52", "To the top of the pipe.", frame.TopOfPipe),
		length("hips", "Hips", "10", "Between the legs' middle lines.", frame.Centre),
		length("hip", "Hip height", "34", "To the top of the pipe: where trousers hang.", frame.TopOfPipe),
		length("foot", "Foot depth", "20", "A third of its height stands indoors; outdoors it wants stakes.", frame.Outside, frame.Centre),
	}, sized("3/4", "3/4 carries a costume; 1 a coat.", "slip")...),
	build: func(a *answers) frame.Document {
		d := onto(
			abreast(a, "l shoulder", "r shoulder"),
			axis(origin("mid")),
			axis(
				origin("base"),
				at("hip", a.from("hip", floor)),
				at("shoulder", a.from("shoulder", floor)),
				at("neck", a.from("height", floor)),
			),
		)
		for _, s := range []string{"left", "right"} {
			d.use(s, "foot", s, "mid", "base", "x", "mid", "z").put(frame.OpenEnd, s+" hip", s, "mid", "hip").run(s+"/hub", s+" hip")
		}
		trunk(d, frame.CappedEnd, "l shoulder", "r shoulder")
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
	},
}

// abreast are the places across a body: the shoulders' ends, the spine amid, and the legs as far to both
// sides of it.
func abreast(a *answers, left, right string) axisStations {
	return axis(
		origin(left),
		at(right, a.from("shoulders", left)),
		middle("spine", left, right),
		share("left", "right", "spine", 2),
		at("right", a.from("hips", "left")),
	)
}

// trunk draws hips, spine, neck and shoulders between two places across; end is that of the shoulders.
func trunk(d *draft, end frame.End, left, right string) *draft {
	return d.put(frame.OpenEnd, "hip", "spine", "mid", "hip", "chest", "spine", "mid", "shoulder").
		put(frame.CappedEnd, "neck", "spine", "mid", "neck").
		put(end, "left shoulder", left, "mid", "shoulder", "right shoulder", right, "mid", "shoulder").
		run("left hip", "hip", "right hip").run("hip", "chest", "neck").run("left shoulder", "chest", "right shoulder")
}

var dividers = Starter{
	ID: "dividers", Name: "Cradle with dividers", About: "Two combs that keep long loads in their lanes.",
	For: holding, Words: "lumber pipe lanes comb rack roof car load",
	Prompts: append([]Prompt{
		length("lane", "A lane", "6", "The thickest of what lies in it, and a finger.", frame.Clear, frame.Centre),
		counted("lanes", "Lanes", "3", 1, 12, "One for each sort."),
		length("apart", "Combs apart", "4 ft", "Half as long as what lies on them keeps it from sagging.", frame.Centre, frame.Outside),
		length("height", "Dividers", "14", "From the floor to the top of the caps.", frame.TopOfCap, frame.Outside),
	}, sized("1", "1 in carries pipe and lumber; dividers are knocked about.", "")...),
	build: func(a *answers) frame.Document {
		n := a.counts["lanes"]
		y := axis(origin("0"))
		y.Stations = append(y.Stations, at("1", a.from("lane", "0")))
		for k := 2; k <= n; k++ {
			y.Stations = append(
				y.Stations,
				station{ID: strconv.Itoa(k), Equal: &equalTo{From: strconv.Itoa(k - 1), Axis: measure.Y, Of: "0", To: "1"}},
			)
		}
		y.Stations = append(y.Stations, middle("first lane", "0", "1"), middle("last lane", strconv.Itoa(n-1), strconv.Itoa(n)))
		g := onto(axis(origin("x")), y, axis(origin("base"), at("top", a.from("height", floor))))
		var chain []string
		for k := 0; k <= n; k++ {
			id := strconv.Itoa(k)
			g.put(frame.OpenEnd, id, "x", id, "base").put(frame.CappedEnd, id+" top", "x", id, "top").run(id, id+" top")
			chain = append(chain, id)
			if k == 0 {
				g.put(frame.OpenEnd, "tie", "x", "first lane", "base")
				chain = append(chain, "tie")
			}
			if k == n-1 && n > 1 {
				g.put(frame.OpenEnd, "far tie", "x", "last lane", "base")
				chain = append(chain, "far tie")
			}
		}
		g.run(chain...)
		d := onto(axis(origin("left"), at("right", a.from("apart", "left"))), axis(origin("y")), axis(origin("base")))
		d.use("left", "comb", "left", "y", "base").use("right", "comb", "right", "y", "base").run("left/tie", "right/tie")
		if n > 1 {
			d.run("left/far tie", "right/far tie")
		}
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{g.named("comb", "Comb")}}
	},
}
