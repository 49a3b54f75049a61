package starter

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var ring = Starter{
	ID: "ring", Name: "Ring with spokes", About: "Eight sides and four spokes to a hub, flat on the ground.",
	For: holding, Words: "ring spokes wheel hub shade circle octagon lying flat",
	Prompts: append([]Prompt{
		length(
			"across",
			"Across",
			"4 ft",
			"Over the flats. Eight sides close with 45s to a hair.",
			frame.Outside,
			frame.Clear,
			frame.Centre,
		),
	}, common...),
	build: func(a *answers) frame.Document {
		x := flats(axis(origin("l"), at("r", a.from("across", "l"))), "l", "r")
		y := flats(axis(origin("f"), station{ID: "b", Equal: &equalTo{From: "f", Axis: measure.X, Of: "l", To: "r"}}), "f", "b")
		d := onto(x, y, axis(origin("z")))
		d.ring(measure.X, measure.Y, [3]string{"", "", "z"}, "l", "r", "f", "b", [4]bool{true, true, true, true})
		d.put(frame.OpenEnd, "hub", "l mid", "f mid", "z")
		for _, id := range []string{"l, f mid", "r, f mid", "l mid, f", "l mid, b"} {
			d.run("hub", id)
		}
		return frame.Document{Root: d.definition()}
	},
}

var rig = Starter{
	ID: "rig", Name: "Ring held by hand", About: "A ring on a handle, to hold a net, a light cloth, a sensor or a target.",
	For: moving, Words: "ring hand handle net target held hoop timer circle carry",
	Prompts: append([]Prompt{
		length("opening", "Opening", "18", "What goes through it.", frame.Clear, frame.Centre),
		length(
			"handle",
			"Handle",
			"24",
			"From the ring to the end of the cap: two hands' breadths for each hand.",
			frame.Outside,
			frame.Centre,
		),
	}, sized("1/2", "Light in the hand; 3/4 above an opening of 2 ft.", "")...),
	build: func(a *answers) frame.Document {
		x := flats(axis(origin("l"), at("r", a.from("opening", "l"))), "l", "r")
		y := flats(
			axis(
				origin("f"),
				station{ID: "b", Equal: &equalTo{From: "f", Axis: measure.X, Of: "l", To: "r"}},
				at("grip", back(a.from("handle", "f"))),
			),
			"f",
			"b",
		)
		d := onto(x, y, axis(origin("z")))
		d.ring(measure.X, measure.Y, [3]string{"", "", "z"}, "l", "r", "f", "b", [4]bool{false, false, true, false})
		d.put(frame.CappedEnd, "grip", "l mid", "grip", "z").run("l mid, f", "grip")
		return frame.Document{Root: d.definition(), Stance: &frame.Stance{Held: true}}
	},
}

var desk = Starter{
	ID: "desk", Name: "Desk rig", About: "Two posts, a shelf in front of them and a bar on top, to clamp things to.",
	For: holding, Words: "desk camera clamp rig shelf light mount judge",
	Prompts: append([]Prompt{
		length("width", "Width", "36", "As wide as the desk allows.", frame.Outside, frame.Centre),
		length("shelf", "Shelf height", "16", "To the top of the pipe: over the screen.", frame.TopOfPipe),
		length("deep", "Shelf, deep", "10", "From the posts to the front rail.", frame.Outside, frame.Centre),
		length("top", "Top bar", "30", "To the top of the pipe: lamps and cameras clamp to it.", frame.TopOfPipe),
		length("foot", "Foot depth", "20", "Deeper than the shelf hangs over, to both sides.", frame.Outside, frame.Centre),
	}, sized("3/4", "3/4 carries a lamp and a camera; 1 a screen arm's weight.", "")...),
	build: func(a *answers) frame.Document {
		d := onto(axis(origin("left"), at("right", a.from("width", "left"))), axis(origin("mid"), at("front", back(a.from("deep", "mid")))),
			axis(origin("base"), at("shelf", a.from("shelf", floor)), at("rail", beyond("shelf", 4)), at("top", a.from("top", floor))))
		for _, s := range []string{"left", "right"} {
			d.use(s, "foot", s, "mid", "base", "x", "mid", "z")
			d.put(frame.OpenEnd, s+" shelf", s, "mid", "shelf", s+" rail", s, "mid", "rail").
				put(frame.OpenEnd, s+" top", s, "mid", "top", s+" front", s, "front", "shelf")
			d.run(s+"/hub", s+" shelf", s+" rail", s+" top").run(s+" shelf", s+" front")
		}
		d.run("left front", "right front").run("left rail", "right rail").run("left top", "right top")
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
	},
}

var manifold = Starter{
	ID: "manifold", Name: "Drying rack in two sizes", About: "Thin risers on a thick base: gloves, boots and bottles drain and dry.",
	For: holding, Words: "drying rack gloves boots bottles dry drain toys",
	Prompts: append([]Prompt{
		counted("risers", "Risers", "6", 1, 24, "Two for each pair."),
		length("apart", "Apart", "6", "A boot's width and a finger.", frame.Centre, frame.Clear),
		length("height", "Riser height", "14", "From the floor to the open end: inside the boot's shaft.", frame.TopOfCap, frame.Outside),
		length("foot", "Foot depth", "14", "It stands on these.", frame.Outside, frame.Centre),
		{Key: "riser", Label: "Risers' size", Input: Pipe, Default: "1/2", Why: "Thin enough for a glove's fingers; each takes a bushing."},
	}, sized("1", "The base in 1 in weighs it down.", "")...),
	build: func(a *answers) frame.Document {
		return row(a, "risers", "apart", "height", catalog.Size(a.texts["riser"]), frame.FreeEnd)
	},
}
