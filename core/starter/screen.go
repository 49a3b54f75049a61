package starter

import "sturdyelbow/core/frame"

var screen = Starter{
	ID: "screen", Name: "Screen with feet", About: "A free-standing wall of bays and rails.",
	For: walls, Words: "wall divider backdrop fence privacy banner room",
	Prompts: append([]Prompt{
		{Key: "width", Label: "Width", Input: Length, Default: "8 ft", Meanings: outside, Why: "What it is to cover, from end to end."},
		{
			Key:      "height",
			Label:    "Height",
			Input:    Length,
			Default:  "4 ft",
			Meanings: []frame.Meaning{frame.Outside, frame.TopOfPipe},
			Why:      "From the floor to the top.",
		},
		{
			Key:     "bays",
			Label:   "Bays",
			Input:   Count,
			Default: "2",
			Least:   1,
			Most:    24,
			Why:     "A post about every 4 ft keeps 3/4 rails from sagging.",
		},
		{
			Key:     "rails",
			Label:   "Rails",
			Input:   Count,
			Default: "2",
			Least:   1,
			Most:    24,
			Why:     "One along the top, one near the floor; more to tie a net to.",
		},
		{
			Key:      "low",
			Label:    "Lowest rail",
			Input:    Length,
			Default:  "6",
			Meanings: []frame.Meaning{frame.TopOfPipe},
			Why:      "Clear of wet grass.",
		},
		{
			Key:      "foot",
			Label:    "Foot depth",
			Input:    Length,
			Default:  "24",
			Meanings: outside,
			Why:      "About half the height; more with cloth in the wind.",
		},
		{
			Key:     "feet",
			Label:   "Feet",
			Input:   Choice,
			Default: "flat",
			Why:     "Flat feet lie on the floor; raised ones stand over stones and wet grass.",
			Options: []Option{{"flat", "Flat on the floor"}, {"raised", "Raised on pads"}},
		},
	}, common...),
	build: buildScreen,
}

func buildScreen(a *answers) frame.Document {
	bays, rails := a.counts["bays"], a.counts["rails"]
	post := drawing{Definition: frame.Definition{ID: "post", Name: "Post with foot",
		Uses: []frame.Use{stand("foot", "x", "y", "floor level")}}}
	z := axis(origin("floor level"))
	all := levels(&z, a, rails, "rail")
	below := "foot/hub"
	for _, l := range all {
		post.Joints = append(post.Joints, joint(l, "x", "y", l))
		post.Pipes = append(post.Pipes, pipe(below, l))
		below = l
	}
	post.Axes = [3]axisStations{axis(origin("x")), axis(origin("y")), z}

	root := drawing{Axes: [3]axisStations{
		axis(origin("left"), at("right", a.from("width", "left"))), axis(origin("y")), axis(origin("floor level"))}}
	posts := between(bays)
	for k, id := range posts {
		if k > 0 && k < bays {
			root.Axes[0].Stations = append(root.Axes[0].Stations, part(id, "left", "right", k, bays))
		}
		root.Uses = append(root.Uses, frame.Use{ID: id, Of: "post", At: planes(id, "y", "floor level")})
		if k == 0 {
			continue
		}
		for _, l := range all {
			// a rail goes by both its posts: what is done to one between others is not done to it
			root.Pipes = append(root.Pipes, frame.Pipe{ID: l + " " + posts[k-1] + "-" + id, From: posts[k-1] + "/" + l, To: id + "/" + l})
		}
	}
	return frame.Document{Root: root.definition(), Groups: []frame.Definition{foot(a), post.definition()}}
}
