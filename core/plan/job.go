package plan

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/reading"
)

// FrameUse is a frame and how many of it are built.
type FrameUse struct {
	Document frame.Document `json:"document"`
	Copies   int            `json:"copies"`
	// Given is what some pieces are or were cut to, by the pipe's path, against
	// the plan.
	Given map[string]measure.Length `json:"given,omitempty"`
	// Told are findings of whoever made the document, to be told with the plan's.
	Findings []finding.Finding `json:"-"`
}

// Job is what is to be built.
type Job struct {
	Frames  []FrameUse     `json:"frames"`
	Tool    string         `json:"tool"`           // the cutting tool's id; it sets the kerf
	Step    measure.Length `json:"step"`           // of the tape; 1/16 in when zero
	EndTrim measure.Length `json:"endTrim"`        // cut off each stick first
	Have    []reading.Item `json:"have,omitempty"` // the parts of a described build
}

// Tool is a way to cut pipe.
type Tool struct {
	ID   string         `json:"id"`
	Name string         `json:"name"`
	Kerf measure.Length `json:"kerf"`
	Note string         `json:"note"`
}

// Tools are the usual cutting tools with typical kerfs.
func Tools() []Tool {
	return []Tool{
		{"shear", "Ratchet shear", 0, "Cracks cold pipe and can cut out of square."},
		{"wheel", "Wheel cutter", 0, "Raises a ridge that scrapes cement off: ream and chamfer."},
		{"hacksaw", "Hacksaw", measure.Inch / 32, "Use a mitre box to stay square."},
		{"rotary", "Rotary tool", measure.Inch / 16, "Slow; plastic dust."},
		{"jigsaw", "Jigsaw or reciprocating saw", measure.Inch / 16, "Clamp the pipe close to the cut."},
		{"saw", "Mitre saw", measure.Inch / 8, "Clamp the pipe; never hold a piece under 6 in by hand."},
	}
}

// StockLength is a stick length on sale. An empty size means every size.
type StockLength struct {
	Size   catalog.Size   `json:"size,omitempty"`
	Length measure.Length `json:"length"`
}

// Offcut is a piece of pipe on the rack.
type Offcut struct {
	Size   catalog.Size   `json:"size"`
	Length measure.Length `json:"length"`
	Count  int            `json:"count"`
}

// Shop is what the builder has and pays, shared by all projects.
type Shop struct {
	Measurements []catalog.Override `json:"measurements"`

	Seats  map[frame.Mode]float64 `json:"seats,omitempty"` // as they were measured, by how a pipe is held: its share of the socket
	Stock  []StockLength          `json:"stock"`
	Prices cost.Book              `json:"prices"`
	Tools  []Tool                 `json:"tools"`
	Rack   []Offcut               `json:"rack"`
}

// ExampleShop sells 10 ft and 5 ft sticks at example prices.
func ExampleShop() Shop {
	return Shop{
		Measurements: []catalog.Override{},
		Stock:        []StockLength{{Length: 10 * measure.Foot}, {Length: 5 * measure.Foot}},
		Prices:       cost.Example(),
		Tools:        Tools(),
		Rack:         []Offcut{},
	}
}

// Work is what has been done: sticks that were bought and are still whole.
// They are cut before any more are bought.
type Work struct {
	Bought []Offcut `json:"bought"`
}

// Problem is a place in the input that makes no sense.
type Problem = frame.Problem

// ValidationError is an error that lists every such place; paths begin with /job,
// /shop or /bought.
type ValidationError []Problem

func (n ValidationError) Error() string {
	var ss []string
	for _, p := range n {
		ss = append(ss, p.Path+": "+p.What+"; "+p.Hint)
	}
	return strings.Join(ss, "\n")
}

const (
	maxCopies = 500
	maxRack   = 2000
	// StockLimit is the longest stick or cut that is planned with.
	StockLimit = 10_000 * measure.Foot
)

func (j *Job) validate(shop *Shop, work *Work) (n ValidationError) {
	add := func(path, what, hint string) { n = append(n, Problem{Path: path, What: what, Hint: hint}) }
	if len(j.Frames) == 0 {
		add("/job/frames", "no frame", "add one")
	}
	for i, f := range j.Frames {
		if f.Copies < 1 || f.Copies > maxCopies {
			add(fmt.Sprintf("/job/frames/%d/copies", i), fmt.Sprintf("%d copies", f.Copies), fmt.Sprintf("build 1 to %d", maxCopies))
		}
		for _, id := range slices.Sorted(maps.Keys(f.Given)) {
			if v := f.Given[id]; v <= 0 || v > StockLimit {
				add(fmt.Sprintf("/job/frames/%d/given/%s", i, id), fmt.Sprintf("pipe %s cut to no length", id), "type how long it is")
			}
		}
	}
	if j.Step < 0 || j.Step > measure.Inch {
		add("/job/step", "a tape step below zero or above 1 in", "use 1/16 in or 1 mm")
	}
	if j.EndTrim < 0 || j.EndTrim > measure.Foot {
		add("/job/endTrim", "an end trim below zero or above 1 ft", "leave it at 0 where the ends are square")
	}
	if _, ok := shop.tool(j.Tool); !ok {
		add("/job/tool", fmt.Sprintf("there is no tool %q", j.Tool), "choose one of the shop's tools")
	}
	n = append(n, shop.problems()...)
	return append(n, lying("/bought", work.Bought)...)
}

// Validate tells what in the shop makes no sense; the error is a [ValidationError].
func (s *Shop) Validate() error {
	n := s.problems()
	if _, err := catalog.Typical().With(s.Measurements...); err != nil {
		n = append(n, measurementProblem(err))
	}
	if len(n) > 0 {
		return n
	}
	return nil
}

func measurementProblem(err error) Problem {
	p := Problem{Path: "/shop/measurements", What: err.Error(), Hint: "mend the measurement"}
	var oe *catalog.OverrideError
	if errors.As(err, &oe) {
		p = Problem{Path: fmt.Sprintf("%s/%d", p.Path, oe.Index), What: oe.What, Hint: oe.Hint}
	}
	return p
}

func (s *Shop) problems() (n ValidationError) {
	add := func(path, what, hint string) { n = append(n, Problem{Path: path, What: what, Hint: hint}) }
	for i, t := range s.Tools {
		if t.Kerf < 0 || t.Kerf > measure.Inch {
			add(fmt.Sprintf("/shop/tools/%d/kerf", i), "a kerf below zero or above 1 in", "measure the slot the tool leaves")
		}
	}
	for _, m := range slices.Sorted(maps.Keys(s.Seats)) {
		if v := s.Seats[m]; !slices.Contains(frame.Modes(), m) || !(v > 0 && v <= 1) {
			add("/shop/seats/"+string(m), "a seat outside 0 to 1", "it is the share of the socket the pipe goes in, like 0.85")
		}
	}
	for i, st := range s.Stock {
		path := fmt.Sprintf("/shop/stock/%d", i)
		if st.Size != "" && !st.Size.Known() {
			add(path+"/size", fmt.Sprintf("unknown pipe size %q", st.Size), "use a nominal size such as 3/4")
		}
		if st.Length <= 0 || st.Length > StockLimit {
			add(path+"/length", "no length that pipe is sold in", "10 ft is usual")
		}
	}
	bad := s.Prices.Validate()
	for _, path := range slices.Sorted(maps.Keys(bad)) {
		what := bad[path]
		add("/shop/prices"+path, what, "mend the price")
	}
	return append(n, lying("/shop/rack", s.Rack)...)
}

func lying(path string, list []Offcut) (n ValidationError) {
	for i, o := range list {
		if !o.Size.Known() || o.Length <= 0 || o.Length > StockLimit || o.Count < 1 || o.Count > maxRack {
			n = append(n, Problem{Path: fmt.Sprintf("%s/%d", path, i), What: "no length of pipe that can lie there", Hint: "give a nominal size, a length and a count"})
		}
	}
	return n
}

func (s *Shop) tool(id string) (Tool, bool) {
	for _, t := range s.Tools {
		if t.ID == id {
			return t, true
		}
	}
	return Tool{}, false
}
