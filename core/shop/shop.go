package shop

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/supply"
)

// Tool is a way to cut pipe.
type Tool struct {
	ID   string         `json:"id"`
	Name string         `json:"name"`
	Kerf measure.Length `json:"kerf"`
	Stop bool           `json:"stop,omitempty"` // pieces are cut against a stop, and not to a mark
	Note string         `json:"note"`
}

// Saw is what cuts with the tool take, and how far off they may be: 1/32 in by hand, where
// errors partly cancel; 1/64 in against a stop, and as much for its setting, which is off the
// same way each time (handbook 3, typical).
func (t Tool) Saw() stock.Saw {
	if t.Stop {
		return stock.Saw{Kerf: t.Kerf, Root: measure.Inch / 64, Each: measure.Inch / 64}
	}
	return stock.Saw{Kerf: t.Kerf, Root: measure.Inch / 32}
}

// ShortPiece is what is not held by hand at a powered saw when it is shorter (handbook, cautions).
const ShortPiece = 6 * measure.Inch

// Powered says whether a tool is a powered saw: what takes 1/16 in or more is (handbook 3, typical).
func (t Tool) Powered() bool { return t.Kerf >= measure.Inch/16 }

// Tools are the usual cutting tools with typical kerfs.
func Tools() []Tool {
	return []Tool{
		{ID: "shear", Name: "Ratchet shear", Note: "Cracks cold pipe and can cut out of square."},
		{ID: "wheel", Name: "Wheel cutter", Note: "Raises a ridge that scrapes cement off: ream and chamfer."},
		{ID: "hacksaw", Name: "Hacksaw", Kerf: measure.Inch / 32, Note: "Use a mitre box to stay square."},
		{ID: "rotary", Name: "Rotary tool", Kerf: measure.Inch / 16, Note: "Slow; plastic dust."},
		{ID: "jigsaw", Name: "Jigsaw or reciprocating saw", Kerf: measure.Inch / 16, Note: "Clamp the pipe close to the cut."},
		{ID: "saw", Name: "Mitre saw", Kerf: measure.Inch / 8, Note: "Clamp the pipe; never hold a piece under 6 in by hand."},
	}
}

// StockLength is a stick length on sale. An empty size means every size.
type StockLength struct {
	Size   catalog.Size   `json:"size,omitempty"`
	Length measure.Length `json:"length"`           // as it is named and priced
	True   measure.Length `json:"true,omitempty"`   // as it measures; 0: as it is named
	Belled measure.Length `json:"belled,omitempty"` // of it a widened end, which goes into no fitting and is lost
	Count  int            `json:"count,omitempty"`  // how many the shop has; 0: as many as wanted
}

// Usable is what pieces can be cut from.
func (l *StockLength) Usable() measure.Length {
	if l.True > 0 {
		return l.True - l.Belled
	}
	return l.Length - l.Belled
}

// Offcut is a piece of pipe on the rack.
type Offcut struct {
	ID     string         `json:"id,omitempty"` // of one that a project put there
	Size   catalog.Size   `json:"size"`
	Length measure.Length `json:"length"`
	Count  int            `json:"count"`
	Worth  measure.Money  `json:"worth,omitempty"` // what using one up is held to cost; 0: nothing, it goes first
	Mark   string         `json:"mark,omitempty"`  // what is written on it: R3
	Place  string         `json:"place,omitempty"` // where it lies, in the builder's words
}

// MarkRack gives marks to what lies on the rack without one: R and the next number. No mark is given again, also when
// what had it is long gone: it may still be written on pipe.
func (s *Shop) MarkRack() {
	last := s.LastMark
	for _, o := range s.Rack {
		var n int
		if _, err := fmt.Sscanf(o.Mark, "R%d", &n); err == nil {
			last = max(last, n)
		}
	}
	for i := range s.Rack {
		if s.Rack[i].Mark == "" {
			last++
			s.Rack[i].Mark = fmt.Sprintf("R%d", last)
		}
	}
	s.LastMark = last
}

// Bar is a length on sale of something else than pipe: rod, rope, webbing, sleeve.
type Bar struct {
	Kind     string         `json:"kind"`               // threaded rod
	Diameter measure.Length `json:"diameter,omitempty"` // 0: every one
	Length   measure.Length `json:"length"`
	Count    int            `json:"count,omitempty"` // how many the shop has; 0: as many as wanted
}

// Is says whether a bar is of the kind that something is cut from.
func (b Bar) Is(s material.Spec) bool {
	return s.Ware == material.Hardware && b.Kind == s.Kind && (b.Diameter == 0 || b.Diameter == s.Diameter)
}

// BarsFor are the lengths on sale that something is cut from: those of its very diameter, or where none are
// named those of every one.
func (s *Shop) BarsFor(of material.Spec) (all []Bar) {
	for _, exact := range []bool{true, false} {
		for _, b := range s.Bars {
			if b.Is(of) && (b.Diameter > 0) == exact {
				all = append(all, b)
			}
		}
		if len(all) > 0 {
			return all
		}
	}
	return nil
}

// Bars are the lengths that rod, rope, webbing and sleeves of foam are sold in (handbook 10, typical).
func Bars() (all []Bar) {
	add := func(kind string, feet ...measure.Length) {
		for _, l := range feet {
			all = append(all, Bar{Kind: kind, Length: l * measure.Foot})
		}
	}
	add(material.Rod, 1, 2, 3, 6)
	add(material.Rope, 25, 50, 100)
	add(material.Webbing, 25, 50, 100)
	add(material.Foam, 3, 6)
	return all
}

// Shop is what the builder has and pays, shared by all projects.
type Shop struct {
	Measurements []catalog.Override `json:"measurements"`

	Seats    map[frame.Mode]float64 `json:"seats,omitempty"` // as they were measured, by how a pipe is held: its share of the socket
	Stock    []StockLength          `json:"stock"`
	Prices   cost.Book              `json:"prices"`
	Tools    []Tool                 `json:"tools"`
	Rack     []Offcut               `json:"rack"`
	LastMark int                    `json:"lastMark,omitempty"` // the highest number that a mark of the rack ever had
	Bars     []Bar                  `json:"bars,omitempty"`     // what else is sold by the length
	Haul     *stock.Haul            `json:"haul,omitempty"`     // what the vehicle takes, and how the shop cuts; none: anything
	// Suppliers are price lists of other shops, to be compared with.
	Suppliers []supply.Supplier `json:"suppliers,omitempty"`
	// Scrap is the length below which a leftover is scrap, and is not put on the rack; 0: 6 in.
	Scrap measure.Length `json:"scrap,omitempty"`
}

// Example sells 10 ft and 5 ft sticks at example prices.
func Example() Shop {
	return Shop{
		Measurements: []catalog.Override{},
		Stock:        []StockLength{{Length: 10 * measure.Foot}, {Length: 5 * measure.Foot}},
		Prices:       cost.Example(),
		Tools:        Tools(),
		Rack:         []Offcut{},
		Bars:         Bars(),
	}
}

// Figures are what of a shop decides how long pieces are and how they are cut. A project
// in work keeps those that it was begun with.
type Figures struct {
	Measurements []catalog.Override     `json:"measurements"`
	Seats        map[frame.Mode]float64 `json:"seats,omitempty"`
	Stock        []StockLength          `json:"stock"`
	Tools        []Tool                 `json:"tools"`
	Haul         *stock.Haul            `json:"haul,omitempty"`
}

// Figures gives a shop's figures of the moment.
func (s *Shop) Figures() *Figures { return &Figures{s.Measurements, s.Seats, s.Stock, s.Tools, s.Haul} }

// Put puts figures in the place of a shop's own.
func (f *Figures) Put(s *Shop) {
	s.Measurements, s.Seats, s.Stock, s.Tools, s.Haul = f.Measurements, f.Seats, f.Stock, f.Tools, f.Haul
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
