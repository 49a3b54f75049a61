package shop

import (
	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

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
	ID     string         `json:"id,omitempty"` // of one that a project put there
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

// Example sells 10 ft and 5 ft sticks at example prices.
func Example() Shop {
	return Shop{
		Measurements: []catalog.Override{},
		Stock:        []StockLength{{Length: 10 * measure.Foot}, {Length: 5 * measure.Foot}},
		Prices:       cost.Example(),
		Tools:        Tools(),
		Rack:         []Offcut{},
	}
}

// Figures are what of a shop decides how long pieces are and how they are cut. A project
// in work keeps those that it was begun with.
type Figures struct {
	Measurements []catalog.Override     `json:"measurements"`
	Seats        map[frame.Mode]float64 `json:"seats,omitempty"`
	Stock        []StockLength          `json:"stock"`
	Tools        []Tool                 `json:"tools"`
}

// Figures gives a shop's figures of the moment.
func (s *Shop) Figures() *Figures { return &Figures{s.Measurements, s.Seats, s.Stock, s.Tools} }

// Put puts figures in the place of a shop's own.
func (f *Figures) Put(s *Shop) {
	s.Measurements, s.Seats, s.Stock, s.Tools = f.Measurements, f.Seats, f.Stock, f.Tools
}

// Tool finds a cutting tool by its id.
func (s *Shop) Tool(id string) (Tool, bool) {
	for _, t := range s.Tools {
		if t.ID == id {
			return t, true
		}
	}
	return Tool{}, false
}
