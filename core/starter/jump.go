package starter

import (
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

var inside = []frame.Meaning{frame.Clear, frame.Outside, frame.Centre}
var outside = []frame.Meaning{frame.Outside, frame.Clear, frame.Centre}

var jump = Starter{
	ID: "jump", Name: "Jump", About: "Two footed uprights, a low tie, a bar at a height.",
	For: course, Words: "hurdle bar agility dog horse high leap",
	Prompts: append([]Prompt{
		{
			Key:      "width",
			Label:    "Width",
			Input:    Length,
			Default:  "48",
			Meanings: inside,
			Why:      "Room between the uprights; 4 ft suits most dogs.",
		},
		{
			Key:      "bar",
			Label:    "Bar height",
			Input:    Length,
			Default:  "20",
			Meanings: []frame.Meaning{frame.TopOfPipe},
			Why:      "Jump heights are measured to the top of the bar.",
		},
		{
			Key:      "top",
			Label:    "Upright height",
			Input:    Length,
			Default:  "36",
			Meanings: []frame.Meaning{frame.TopOfCap, frame.Centre},
			Why:      "Leaves room to raise the bar later.",
		},
		{
			Key:      "foot",
			Label:    "Foot depth",
			Input:    Length,
			Default:  "24",
			Meanings: outside,
			Why:      "About half as deep as the upright is high keeps it from tipping.",
		},
		{Key: "rest", Label: "The bar", Input: Choice, Default: "pegs", Why: "A bar on pegs falls when it is knocked: safer for the dog.",
			Options: []Option{{"pegs", "Rests on pegs"}, {"fixed", "Held in tees, dry"}}},
	}, common...),
	build: buildJump,
}

// pegGap is the room between the post and the bar, and between the bar and the
// cap at the peg's end.
const pegGap = measure.Inch

// barOverhang is how far the bar goes on past each post.
const barOverhang = 2 * measure.Inch

func buildJump(a *answers) frame.Document {
	root := drawing{Definition: frame.Definition{
		Joints: []frame.Joint{capped("top.l", "left", "mid", "top"), capped("top.r", "right", "mid", "top")},
		Uses:   []frame.Use{stand("left", "left", "mid", "floor level"), stand("right", "right", "mid", "floor level")},
	}}
	tie := pipe("left/hub", "right/hub")
	tie.ID = "tie"
	x := axis(origin("left"), at("right", a.from("width", "left")))
	y := axis(origin("mid"))
	z := axis(origin("floor level"), at("bar", a.from("bar", floor)), at("top", topOf(a)))
	cup := "bar"
	if a.texts["rest"] == "pegs" {
		cup = "peg"
		z.Stations = append(z.Stations, at("peg", clear("bar", 0, true)))
		y.Stations = append(y.Stations, at("bar", clear("mid", pegGap, true)), at("peg", clear("bar", pegGap, true)))
		over := func(from string, back bool) *dimension {
			return &dimension{Value: barOverhang, Meaning: frame.Centre, From: from, Back: back}
		}
		x.Stations = append(x.Stations, at("bar from", over("left", true)), at("bar to", over("right", false)))
		root.Joints = append(root.Joints,
			capped("peg.l", "left", "peg", "peg"), capped("peg.r", "right", "peg", "peg"),
			capped("bar.l", "bar from", "bar", "bar"), capped("bar.r", "bar to", "bar", "bar"))
		bar := pipe("bar.l", "bar.r")
		bar.ID = "bar"
		root.Pipes = append(root.Pipes, pipe("cup.l", "peg.l"), pipe("cup.r", "peg.r"), bar)
	} else {
		bar := pipe("cup.l", "cup.r")
		bar.ID = "bar"
		dry := frame.Insertion{Mode: frame.Slip, Reason: "the bar comes out"}
		bar.AtEnd = &[2]frame.Insertion{dry, dry}
		root.Pipes = append(root.Pipes, bar)
	}
	root.Joints = append(root.Joints, joint("cup.l", "left", "mid", cup), joint("cup.r", "right", "mid", cup))
	root.Pipes = append(root.Pipes, tie,
		pipe("left/hub", "cup.l"), pipe("cup.l", "top.l"), pipe("right/hub", "cup.r"), pipe("cup.r", "top.r"))
	root.Axes = [3]axisStations{x, y, z}
	return frame.Document{Root: root.definition(), Groups: []frame.Definition{foot(a)}}
}

// topOf measures the upright's top from the floor, or its pipe from the centre
// of the foot.
func topOf(a *answers) *dimension {
	if a.lengths["top"].Meaning == frame.TopOfCap {
		return a.from("top", floor)
	}
	return a.from("top", "floor level")
}
