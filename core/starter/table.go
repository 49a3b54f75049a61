package starter

import "sturdyelbow/core/frame"

var table = Starter{
	ID: "table", Name: "Table or shelf frame", About: "Four legs and one or more levels to lay boards on.",
	For: holding, Words: "table shelf bench hold a load up off the ground stand rack legs workbench",
	Prompts: append([]Prompt{
		{
			Key:      "width",
			Label:    "Width",
			Input:    Length,
			Default:  "36",
			Meanings: outside,
			Why:      "What the top is to carry, or where it must fit.",
		},
		{Key: "depth", Label: "Depth", Input: Length, Default: "24", Meanings: outside, Why: "Reach across it once before you cut."},
		{
			Key:      "height",
			Label:    "Height",
			Input:    Length,
			Default:  "30",
			Meanings: []frame.Meaning{frame.Outside, frame.TopOfPipe},
			Why:      "Table height is about 30 in; standing work 36.",
		},
		{
			Key:     "shelves",
			Label:   "Levels",
			Input:   Count,
			Default: "2",
			Least:   1,
			Most:    24,
			Why:     "The top is one of them; a low one stiffens the legs.",
		},
		{
			Key:      "low",
			Label:    "Lowest level",
			Input:    Length,
			Default:  "6",
			Meanings: []frame.Meaning{frame.TopOfPipe},
			Why:      "Room to sweep under it.",
		},
	}, common...),
	build: buildTable,
}

func buildTable(a *answers) frame.Document {
	n := a.counts["shelves"]
	leg := drawing{Definition: frame.Definition{ID: "leg", Name: "Leg", Joints: []frame.Joint{capped("toe", "x", "y", "toe")}}}
	z := axis(origin("toe"))
	all := levels(&z, a, n, "level")
	below := "toe"
	for _, l := range all {
		leg.Joints = append(leg.Joints, joint(l, "x", "y", l))
		leg.Pipes = append(leg.Pipes, pipe(below, l))
		below = l
	}
	leg.Axes = [3]axisStations{axis(origin("x")), axis(origin("y")), z}

	root := drawing{Axes: [3]axisStations{
		axis(
			origin("left"),
			at("right", a.from("width", "left")),
		), axis(origin("front"), at("back", a.from("depth", "front"))), axis(origin("toe"))}}
	corners := [][2]string{{"left", "front"}, {"right", "front"}, {"right", "back"}, {"left", "back"}}
	for i, c := range corners {
		next := corners[(i+1)%4]
		id, nextID := c[1]+" "+c[0], next[1]+" "+next[0]
		root.Uses = append(root.Uses, frame.Use{ID: id, Of: "leg", At: planes(c[0], c[1], "toe")})
		for _, l := range all {
			root.Pipes = append(
				root.Pipes,
				frame.Pipe{ID: l + " " + []string{"front", "right", "back", "left"}[i], From: id + "/" + l, To: nextID + "/" + l},
			)
		}
	}
	return frame.Document{Root: root.definition(), Groups: []frame.Definition{leg.definition()}}
}
