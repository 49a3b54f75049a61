package starter

import (
	"math"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var vees = Starter{
	ID: "vees", Name: "Row of upside-down Vs", About: "Two rails with pairs of legs that meet at the top: stalls, racks, a ridge for a cloth.",
	For: holding, Words: "ramp stall a-frame inverted v rack ridge ribs row triangle boards",
	Prompts: append([]Prompt{
		length(
			"apart",
			"Rails apart",
			"22",
			"How far the legs spread; at 45° it stands half as high.",
			frame.Centre,
			frame.Clear,
			frame.Outside,
		),
		counted("count", "Vs", "6", 2, 24, "Two for each stall, or one for each rib."),
		length("between", "From V to V", "10", "As wide as what stands between them.", frame.Clear, frame.Centre, frame.Slot),
		length("margin", "Beyond the last", "4", "Of rail at each end.", frame.Centre),
	}, sized("3/4", "3/4 keeps still up to a foot high; 1 above it.", "")...),
	build: func(a *answers) frame.Document {
		n := a.counts["count"]
		y := axis(origin("front"), at("v 1", a.from("margin", "front")))
		for k := 2; k <= n; k++ {
			st := at("v 2", a.from("between", "v 1"))
			if k > 2 {
				st = station{ID: numbered("v", k), Equal: &equalTo{From: numbered("v", k-1), Axis: measure.Y, Of: "v 1", To: "v 2"}}
			}
			y.Stations = append(y.Stations, st)
		}
		y.Stations = append(
			y.Stations,
			station{ID: "back", Equal: &equalTo{From: numbered("v", n), Axis: measure.Y, Of: "front", To: "v 1"}},
		)
		d := onto(
			axis(origin("left"), at("right", a.from("apart", "left")), middle("ridge", "left", "right")),
			y,
			axis(origin("base"), station{ID: "top", Equal: &equalTo{From: "base", Axis: measure.X, Of: "left", To: "ridge"}}),
		)
		for _, s := range []string{"left", "right"} {
			d.put(frame.OpenEnd, s+" front", s, "front", "base")
			chain := []string{s + " front"}
			for k := 1; k <= n; k++ {
				v := numbered("v", k)
				d.put(frame.OpenEnd, s+" "+v, s, v, "base")
				chain = append(chain, s+" "+v)
			}
			d.put(frame.OpenEnd, s+" back", s, "back", "base").run(append(chain, s+" back")...)
		}
		for k := 1; k <= n; k++ {
			v := numbered("v", k)
			d.put(frame.OpenEnd, v, "ridge", v, "top").run("left "+v, v, "right "+v)
		}
		d.run("left front", "right front").run("left back", "right back")
		return frame.Document{Root: d.definition()}
	},
}

var cwall = Starter{
	ID: "cwall", Name: "Wall with C feet", About: "Columns and bars for a cloth; the outer feet turn inward and stand out at no side.",
	For: walls, Words: "wall backdrop banner sponsor photo press cloth columns display",
	Prompts: append([]Prompt{
		length("width", "Width", "7 ft", "Over the fittings: as wide as the cloth.", frame.Outside, frame.Centre, frame.Clear),
		length("height", "Height", "6 ft 6", "From the floor to the top of the pipe.", frame.TopOfPipe),
		counted("bays", "Bays", "2", 1, 12, "A column about every 4 ft."),
		counted("bars", "Bars", "3", 2, 12, "The lowest keeps the cloth from blowing through."),
		length("low", "Lowest bar", "30", "From the floor to the top of the pipe.", frame.TopOfPipe),
		length("foot", "Foot depth", "24", "A third of the height indoors; outdoors with weights on it.", frame.Outside, frame.Centre),
		length("toe", "Toes", "11", "How far the feet turn in; under half a bay.", frame.Centre),
	}, sized("1", "1 in stands up to 7 ft in still air; wind on a cloth wants weights or stakes.", "")...),
	build: func(a *answers) frame.Document {
		bays := a.counts["bays"]
		x := axis(origin("left"), at("right", a.from("width", "left")))
		columns := between(bays)
		for k := 1; k < bays; k++ {
			x.Stations = append(x.Stations, part(columns[k], "left", "right", k, bays))
		}
		toe := func(id, from string, inward bool) station {
			d := unasked(a.from("toe", from))
			d.Back = !inward
			return at(id, d)
		}
		x.Stations = append(x.Stations, at("left toe", a.from("toe", "left")), toe("right toe", "right", false))
		y := axis(origin("front"), at("back", a.from("foot", "front")), middle("mid", "front", "back"))
		z := axis(origin("base"))
		all := levels(&z, a, a.counts["bars"], "bar")
		d := onto(x, y, z)
		for k, c := range columns {
			d.put(frame.OpenEnd, c+" foot", c, "mid", "base")
			chain := []string{c + " foot"}
			for _, l := range all {
				d.put(frame.OpenEnd, c+" "+l, c, "mid", l)
				chain = append(chain, c+" "+l)
			}
			d.run(chain...)
			for _, end := range []string{"front", "back"} {
				heel := c + " " + end
				if k > 0 && k < bays { // a foot between others is as a foot is
					d.put(frame.CappedEnd, heel, c, end, "base").run(c+" foot", heel)
					continue
				}
				d.put(frame.OpenEnd, heel, c, end, "base").put(frame.CappedEnd, heel+" toe", c+" toe", end, "base")
				d.run(c+" foot", heel, heel+" toe")
			}
			if k > 0 {
				for _, l := range all {
					d.run(columns[k-1]+" "+l, c+" "+l)
				}
			}
		}
		return frame.Document{Root: d.definition()}
	},
}

var fork = Starter{
	ID: "fork", Name: "Sling stand of post and fork", About: "A post on two feet, a fork that turns about it on one bolt: it folds flat.",
	For: moving, Words: "fold folding sling stand post strap bag collapse",
	Prompts: append([]Prompt{
		length("post", "Post", "44", "Along the post, from its foot to its end.", frame.Centre),
		length("fork", "Fork", "42", "Along the fork; its ends stand on the floor.", frame.Centre),
		length("bolt", "Bolt", "26", "From the post's end down to the bolt: lower opens wider.", frame.Centre),
		length("feet", "Feet", "28", "Over their caps.", frame.Outside, frame.Centre),
		counted("lean", "Lean of each, degrees", "20", 10, 40, "20 opens as wide as a third of its height."),
	}, sized("1-1/2", "1-1/2 for a bag or a net; nothing that a body rests on.", "")...),
	build: func(a *answers) frame.Document {
		od := a.od()
		// the post between the fork's legs, and a washer on each side; no less than the elbows at its top take
		c, size := catalog.Typical(), catalog.Size(a.texts["size"])
		figure := func(f catalog.Field) measure.Length { return c.Figure("", size, f).Value }
		wide := max(2*od+2*measure.Inch/8, 2*(figure(catalog.Stop90)+figure(catalog.SocketDepth))+measure.Inch/8)
		post, long, down := a.lengths["post"].Value, a.lengths["fork"].Value, a.lengths["bolt"].Value
		lean := float64(a.counts["lean"])
		// both stand on the floor: the post on its feet's bodies, the fork on the rims of its caps
		cos, sin := math.Cos(lean*math.Pi/180), math.Sin(lean*math.Pi/180)
		body := figure(catalog.BodyDiameter).Half()
		reach := (body - body.Scale(sin)).Scale(1/cos) - figure(catalog.CapEnd)
		if a.texts["mode"] == string(frame.Slip) { // a dry cap sits further out
			reach -= figure(catalog.SocketDepth).Scale(0.15)
		}
		bolt := measure.Inch / 2
		if 3*bolt > od {
			bolt = measure.Inch * 3 / 8
		}
		if 3*bolt > od {
			bolt = measure.Inch / 4
		}
		at0 := func(id string, l measure.Length) station {
			return at(id, &dimension{Value: l, Meaning: frame.Centre, From: "foot"})
		}
		p := onto(
			axis(origin("left"), at("right", a.from("feet", "left")), middle("mid", "left", "right")),
			axis(origin("y")),
			axis(origin("foot"), at0("bolt", max(post-down, measure.Inch)), at0("end", post)),
		)
		p.put(frame.OpenEnd, "foot", "mid", "y", "foot").
			put(frame.CappedEnd, "left toe", "left", "y", "foot", "right toe", "right", "y", "foot", "end", "mid", "y", "end").
			run("left toe", "foot", "right toe").run("foot", "end")
		f := onto(
			axis(
				origin("left"),
				at("right", &dimension{Value: wide, Meaning: frame.Centre, From: "left", Label: "Fork, wide"}),
				middle("mid", "left", "right"),
			),
			axis(origin("y")),
			axis(origin("foot"), at0("bolt", max(post-down, measure.Inch)+reach), at0("top", long)),
		)
		for _, s := range []string{"left", "right"} {
			f.put(frame.CappedEnd, s+" foot", s, "y", "foot").put(frame.OpenEnd, s+" top", s, "y", "top").run(s+" foot", s+" top")
		}
		f.run("left top", "right top")
		d := onto(axis(origin("mid")), axis(origin("y")), axis(origin("bolt")))
		bolts := planes("mid", "y", "bolt")
		d.Uses = []frame.Use{leaning("post", bolts, bolts, lean), leaning("fork", bolts, bolts, -lean)}
		high := max(post-down, measure.Inch)
		for _, s := range []string{"left", "right"} {
			d.Links = append(d.Links, frame.Link{ID: s + " bolt", Kind: frame.Pivot, Rod: bolt, Fold: foldOf(s, lean), On: []frame.Anchor{
				{Pipe: "post/" + pipe("foot", "end").ID, At: high}, {Pipe: "fork/" + pipe(s+" foot", s+" top").ID, At: high + reach},
			}})
		}
		return frame.Document{
			Root:   d.definition(),
			Groups: []frame.Definition{p.named("post", "Post"), f.named("fork", "Fork")},
		}
	},
}

var corners = Starter{
	ID: "corners", Name: "Trestle with corner fittings", About: "A spine on two legs; at each end three-way corners spread two arms that carry a rail each.",
	For: holding, Words: "trestle low sawhorse stand hold up off the ground splay jump cavaletti",
	Prompts: append([]Prompt{
		length("spine", "Spine", "18", "Between the legs' middle lines.", frame.Centre, frame.Clear),
		length("height", "Spine height", "16", "From the floor to the top of the pipe.", frame.TopOfPipe),
		length("end", "Beyond the legs", "4", "Of spine at each end, to the corner fitting.", frame.Centre),
		length("spread", "Rails apart", "11", "Over the arms, which slope at 45°.", frame.Centre, frame.Clear),
		length("foot", "Foot depth", "24", "Half as deep again as it is high.", frame.Outside, frame.Centre),
	}, sized("3/4", "3/4 carries a small dog or a plank to saw.", "")...),
	build: func(a *answers) frame.Document {
		d := onto(
			axis(
				origin("left"),
				at("right", a.from("spine", "left")),
				at("left end", back(a.from("end", "left"))),
				at("right end", unasked(a.from("end", "right"))),
			),
			axis(
				origin("front"),
				at("back", a.from("foot", "front")),
				middle("mid", "front", "back"),
				share("front rail", "back rail", "mid", 2),
				at("back rail", a.from("spread", "front rail")),
			),
			axis(
				origin("base"),
				at("spine", a.from("height", floor)),
				station{ID: "rail", Equal: &equalTo{From: "spine", Axis: measure.Y, Of: "mid", To: "back rail"}},
			),
		)
		for _, s := range []string{"left", "right"} {
			d.put(frame.OpenEnd, s+" foot", s, "mid", "base", s, s, "mid", "spine", s+" end", s+" end", "mid", "spine").
				put(frame.CappedEnd, s+" front", s, "front", "base", s+" back", s, "back", "base").
				put(frame.OpenEnd, s+" front arm", s+" end", "front rail", "rail", s+" back arm", s+" end", "back rail", "rail")
			d.run(s+" front", s+" foot", s+" back").run(s+" foot", s, s+" end").run(s+" front arm", s+" end", s+" back arm")
		}
		d.run("left", "right").run("left front arm", "right front arm").run("left back arm", "right back arm")
		return frame.Document{Root: d.definition()}
	},
}

var arms = Starter{
	ID: "arms", Name: "Figure with arms", About: "Legs with knees, hips, a spine, shoulders and arms that hang, to dress a costume on.",
	For: dressed, Words: "mannequin mascot dummy scarecrow arms costume body stand",
	Prompts: append([]Prompt{
		length("height", "Height", "5 ft 4", "To the top of the neck: where the head sits.", frame.TopOfCap),
		length("shoulder", "Shoulder height", "56", "To the top of the pipe.", frame.TopOfPipe),
		length("hip", "Hip height", "37", "To the top of the pipe: where trousers hang.", frame.TopOfPipe),
		length("knee", "Knee height", "20", "To the top of the coupling's pipe: the legs come apart there to dress it.", frame.Centre),
		length("shoulders", "Shoulders", "15", "Between the arms' middle lines.", frame.Centre, frame.Outside),
		length("hips", "Hips", "9", "Between the legs' middle lines.", frame.Centre),
		length("arm", "Arms", "14", "From the shoulder down, to the end of the cap.", frame.Centre),
		length("foot", "Foot depth", "18", "A third of its height stands indoors; outdoors it wants stakes.", frame.Outside, frame.Centre),
	}, sized("1", "1 in carries a costume and its head.", "slip")...),
	build: func(a *answers) frame.Document {
		d := onto(
			abreast(a, "l arm", "r arm"),
			axis(origin("mid")),
			axis(
				origin("base"),
				at("knee", a.from("knee", "base")),
				at("hip", a.from("hip", floor)),
				at("shoulder", a.from("shoulder", floor)),
				at("neck", a.from("height", floor)),
				at("hand", back(a.from("arm", "shoulder"))),
			),
		)
		for _, s := range []string{"left", "right"} {
			d.use(s, "foot", s, "mid", "base", "x", "mid", "z").
				put(frame.OpenEnd, s+" knee", s, "mid", "knee", s+" hip", s, "mid", "hip").run(s+"/hub", s+" knee", s+" hip")
		}
		trunk(d, frame.OpenEnd, "l arm", "r arm").
			put(frame.CappedEnd, "left hand", "l arm", "mid", "hand", "right hand", "r arm", "mid", "hand").
			run("left shoulder", "left hand").run("right shoulder", "right hand")
		return frame.Document{Root: d.definition(), Groups: []frame.Definition{foot(a)}}
	},
}
