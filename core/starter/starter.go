package starter

import (
	"cmp"
	"fmt"
	"slices"
	"strconv"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Input is the sort of answer a prompt takes.
type Input string

// A prompt asks for a length, a whole number, one of some choices, or a pipe size.
const (
	Length Input = "length"
	Count  Input = "count"
	Choice Input = "choice"
	Pipe   Input = "size"
)

// Option is one of a prompt's choices.
type Option struct {
	Value string `json:"value"`
	Label string `json:"label"`
}

// Prompt asks for one thing.
type Prompt struct {
	Key      string          `json:"key"`
	Label    string          `json:"label"`
	Input    Input           `json:"input"`
	Default  string          `json:"default"`
	Meanings []frame.Meaning `json:"meanings,omitempty"` // the first is the default
	Options  []Option        `json:"options,omitempty"`
	Least    int             `json:"least,omitempty"`
	Most     int             `json:"most,omitempty"`
	Thing    bool            `json:"thing,omitempty"` // a length of a thing, which has no other meaning
	Why      string          `json:"why"`
}

// Answer is what the builder typed for a prompt.
type Answer struct {
	Text    string        `json:"text"`
	Meaning frame.Meaning `json:"meaning,omitempty"`
	// Of is the pipe that it is the length of, where the meaning is a cut length
	// or bare pipe between two faces, by its name in the definition that the size
	// is in.
	Of string `json:"of,omitempty"`
	// Unit is what a bare number meant when this was typed, so that a builder
	// who changes to millimetres later does not change what was said before.
	Unit measure.Unit `json:"unit,omitempty"`
}

// Starter is a way to begin.
type Starter struct {
	ID      string   `json:"id"`
	Name    string   `json:"name"`
	About   string   `json:"about"`
	Prompts []Prompt `json:"prompts"`
	For     string   `json:"for"`   // what it is for, one of [Groups]
	Words   string   `json:"words"` // more words by which a builder may look for it
	build   func(a *answers) frame.Document
}

// Problem is an answer that cannot be used, by its prompt's key.
type Problem struct {
	Key  string `json:"key"`
	At   int    `json:"at"`
	What string `json:"what"`
	Hint string `json:"hint"`
}

// Problems is every answer that cannot be used; it is an error.
type Problems []Problem

func (ps Problems) Error() string {
	var ss []string
	for _, p := range ps {
		ss = append(ss, fmt.Sprintf("%s: %s; %s", p.Key, p.What, p.Hint))
	}
	return strings.Join(ss, "\n")
}

// The groups, in their order.
const (
	course  = "Obstacles for a course"
	holding = "To hold or hang things"
	walls   = "Walls, screens and nets"
	shelter = "Shelter"
	moving  = "To move, fold or carry"
	dressed = "To dress"
)

// Groups are what starters are for, in the order in which they are shown.
func Groups() []string { return []string{course, holding, walls, shelter, moving, dressed} }

// all are the starters, by what they are for.
var all = []Starter{
	jump, weave, hoop,
	table, slots, vees, trestle, corners, cradle, tower, dividers, ring, desk, manifold,
	panel, screen, cwall,
	tunnel,
	cart, sling, fork, telescope, rig,
	figure, arms,
}

// All lists the starters, by what they are for.
func All() []Starter { return slices.Clone(all) }

// Find gives a starter by id.
func Find(id string) (Starter, bool) {
	i := slices.IndexFunc(All(), func(s Starter) bool { return s.ID == id })
	if i < 0 {
		return Starter{}, false
	}
	return All()[i], true
}

// common are the prompts that every starter ends with.
var common = []Prompt{
	{Key: "size", Label: "Pipe size", Input: Pipe, Default: "3/4", Why: "3/4 is light and carries itself; 1 is stiffer over 4 ft."},
	{Key: "mode", Label: "Joints", Input: Choice, Default: "cemented", Why: "Cement for stiffness; leave dry to take it apart.",
		Options: []Option{{"cemented", "Cemented"}, {"slip", "Dry, driven"}}},
}

// Build makes the document. Answers that are missing take their defaults;
// unit is what a bare number means. The error is a [Problems].
func (s Starter) Build(unit measure.Unit, given map[string]Answer) (frame.Document, error) {
	a := &answers{unit: unit, lengths: map[string]dimension{}, counts: map[string]int{}, texts: map[string]string{}}
	for _, p := range s.Prompts {
		g, ok := given[p.Key]
		if !ok {
			g = Answer{Text: p.Default}
			a.take(p, g, measure.Inches) // defaults are written in inches
			continue
		}
		a.take(p, g, cmp.Or(g.Unit, unit))
	}
	if len(a.bad) > 0 {
		return frame.Document{}, a.bad
	}
	d := s.build(a)
	d.Format, d.Units, d.Size, d.Mode = frame.Format, unit, catalog.Size(a.texts["size"]), frame.Mode(a.texts["mode"])
	if d.Name == "" {
		d.Name = s.Name
	}
	number(&d)
	d.EachSize(func(def *frame.Definition, z *frame.Size) {
		if z.Prompt != "" && z.Pipe != "" && z.Pipe == given[z.Prompt].Of && !d.Names(def, frame.PipeRef, z.Pipe) {
			a.refuse(z.Prompt, fmt.Sprintf("it was typed for the pipe %s, which is not there now", z.Pipe), "type it with another meaning")
		}
	})
	if len(a.bad) > 0 {
		return frame.Document{}, a.bad
	}
	return d, nil
}

type answers struct {
	unit    measure.Unit
	lengths map[string]dimension
	counts  map[string]int
	texts   map[string]string
	bad     Problems
}

func (a *answers) refuse(key, what, hint string) {
	a.bad = append(a.bad, Problem{Key: key, What: what, Hint: hint})
}

func (a *answers) take(p Prompt, g Answer, unit measure.Unit) {
	switch p.Input {
	case Length:
		text, said := g.Text, frame.Meaning("")
		if !p.Thing {
			if text, said = frame.SplitMeaning(g.Text); said != "" {
				g.Meaning = said
			}
		}
		l, err := measure.Parse(text, measure.Reading{Unit: unit})
		if pe, bad := err.(*measure.ParseError); bad {
			a.bad = append(a.bad, Problem{p.Key, pe.At, pe.What, pe.Hint})
			return
		}
		if l == 0 && said != frame.Centre {
			a.refuse(p.Key, "a size of nothing", "write how large it is to be")
			return
		}
		m := g.Meaning
		if m == "" {
			m = p.Meanings[0]
		}
		ofPipe := m == frame.Cut || m == frame.Visible
		if !slices.Contains(p.Meanings, m) && (!ofPipe || g.Of == "") {
			var can []string
			for _, m := range p.Meanings {
				can = append(can, string(m))
			}
			a.refuse(p.Key, fmt.Sprintf("%s cannot be %s", p.Label, m), "it can be "+strings.Join(can, ", "))
		}
		d := dimension{Value: l, Meaning: m, Label: p.Label, Text: text, Unit: unit, Prompt: p.Key}
		if ofPipe {
			d.Of = g.Of
		}
		a.lengths[p.Key] = d
	case Count:
		n, err := strconv.Atoi(strings.TrimSpace(g.Text))
		if err != nil || n < p.Least || n > p.Most {
			a.refuse(p.Key, fmt.Sprintf("%q is not a number from %d to %d", g.Text, p.Least, p.Most), "write a whole number")
			return
		}
		a.counts[p.Key] = n
	case Choice:
		if !slices.ContainsFunc(p.Options, func(o Option) bool { return o.Value == g.Text }) {
			a.refuse(p.Key, fmt.Sprintf("%q is not one of the choices", g.Text), "choose one of them")
			return
		}
		a.texts[p.Key] = g.Text
	case Pipe:
		s, ok := catalog.ParseSize(g.Text)
		if !ok {
			a.refuse(p.Key, fmt.Sprintf("%q is not a pipe size", g.Text), "use a nominal size: 1/2, 3/4, 1, 1-1/4, 1-1/2, 2, 2-1/2, 3 or 4")
			return
		}
		a.texts[p.Key] = string(s)
	}
}

// from gives an answer as a dimension from a station; heights from the floor.
func (a *answers) from(key, station string) *dimension {
	d := a.lengths[key]
	d.From = station
	return &d
}

// origin is the first station of an axis.
func origin(id string) station { return station{ID: id} }

func at(id string, d *dimension) station { return station{ID: id, At: d} }

// clear is a fixed gap between the pipes of two stations.
func clear(from string, gap measure.Length, back bool) *dimension {
	return &dimension{Value: gap, Meaning: frame.Clear, From: from, Back: back}
}

func axis(st ...station) axisStations { return axisStations{Stations: st} }

func joint(id, x, y, z string) frame.Joint { return frame.Joint{ID: id, On: [3]string{x, y, z}} }

// planes are what a use stands on, or is held at.
func planes(x, y, z string) [3]frame.Ref {
	return [3]frame.Ref{frame.OnPlane(x), frame.OnPlane(y), frame.OnPlane(z)}
}

func capped(id, x, y, z string) frame.Joint {
	j := joint(id, x, y, z)
	j.End = frame.CappedEnd
	return j
}

func pipe(from, to string) frame.Pipe {
	return frame.Pipe{ID: strings.ReplaceAll(from, "/", ".") + "-" + strings.ReplaceAll(to, "/", "."), From: from, To: to}
}

// middle is the station half-way between two others.
func middle(id, from, to string) station { return part(id, from, to, 1, 2) }

func part(id, from, to string, k, of int) station {
	return station{ID: id, Split: &split{From: from, To: to, Part: k, Parts: of}}
}

// foot is a tee on the floor with a capped pipe to the front and one to the
// back, as deep over the caps as the answer "foot" says. It is anchored at its
// hub, on which other parts stand.
func foot(a *answers) frame.Definition {
	if a.texts["feet"] == "raised" {
		return raised(a)
	}
	d := onto(
		axis(origin("x")),
		axis(origin("front"), at("back", a.from("foot", "front")), middle("mid", "front", "back")),
		axis(origin("z")),
	)
	d.put(frame.OpenEnd, "hub", "x", "mid", "z").put(frame.CappedEnd, "front", "x", "front", "z", "back", "x", "back", "z")
	return d.run("front", "hub", "back").named("foot", "Foot")
}

// raised is a foot that stands on short capped legs at its front and back.
func raised(a *answers) frame.Definition {
	d := onto(
		axis(origin("x")),
		axis(origin("front"), at("back", a.from("foot", "front")), middle("mid", "front", "back")),
		axis(origin("z"), at("pad", beyond("z", -2.3*a.od().Inches()))),
	)
	d.put(frame.OpenEnd, "hub", "x", "mid", "z", "front", "x", "front", "z", "back", "x", "back", "z").
		put(frame.CappedEnd, "front pad", "x", "front", "pad", "back pad", "x", "back", "pad")
	d.run("front pad", "front", "hub", "back", "back pad")
	return d.named("foot", "Raised foot")
}

// stand puts a foot where its hub is to be.
func stand(id, x, y, z string) frame.Use {
	return frame.Use{ID: id, Of: "foot", At: planes(x, y, z), Anchor: planes("x", "mid", "z")}
}
