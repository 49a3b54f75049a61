package material

import (
	"fmt"
	"slices"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Ware is the sort of thing that is bought.
type Ware string

// What is bought.
const (
	Pipe     Ware = "pipe"
	Fitting  Ware = "fitting"
	Cement   Ware = "cement"
	Primer   Ware = "primer"
	Hardware Ware = "hardware"
	Service  Ware = "service" // what the shop does for money, such as cutting
)

// Wares lists the sorts.
func Wares() []Ware { return []Ware{Pipe, Fitting, Cement, Primer, Hardware, Service} }

// Spec says exactly which one: what a price is for.
type Spec struct {
	Ware     Ware           `json:"ware"`
	Kind     string         `json:"kind,omitempty"`     // of a fitting or of hardware: bolt, washer, wheel
	Size     string         `json:"size,omitempty"`     // nominal, of pipe and fittings
	Length   measure.Length `json:"length,omitempty"`   // of a stick; of a bolt the least that does
	Diameter measure.Length `json:"diameter,omitempty"` // of hardware
	Ounces   int            `json:"ounces,omitempty"`   // of a can
}

// Hardware that is sold by the length, and cut to pieces.
const (
	Rod     = "threaded rod" // axles are cut from it
	Rope    = "rope"
	Webbing = "webbing"
	Foam    = "foam sleeve"
	Rebar   = "rebar"
)

// ByLength are the kinds of hardware that are sold by the length.
func ByLength() []string { return []string{Rope, Webbing, Foam, Rod, Rebar} }

// IsByLength says whether a kind of hardware is sold by the length.
func IsByLength(kind string) bool { return slices.Contains(ByLength(), kind) }

// CutFrom says what a thing is cut from that is sold by the length, without the length; ok is
// false for what is bought as it is.
func CutFrom(s Spec) (bar Spec, ok bool) {
	switch {
	case s.Ware != Hardware || s.Length <= 0:
		return bar, false
	case s.Size != "": // a piece of pipe
		return Spec{Ware: Pipe, Size: s.Size}, true
	case s.Kind == "axle":
		return Spec{Ware: Hardware, Kind: Rod, Diameter: s.Diameter}, true
	case IsByLength(s.Kind):
		return Spec{Ware: Hardware, Kind: s.Kind, Diameter: s.Diameter}, true
	}
	return bar, false
}

// Piece is the unit of pipe that no stick on sale is long enough for.
const Piece = "piece"

// Line is a line of the bill of materials: a thing that is bought, how much of it,
// for what, and why so much.
type Line struct {
	Spec
	Quantity int     `json:"quantity"`
	Spare    int     `json:"spare,omitempty"` // of them, by the builder's rule for spares
	Home     int     `json:"home,omitempty"`  // how many are at home already
	Unit     string  `json:"unit"`            // each, stick, can
	Where    []Place `json:"where"`           // what it is for
	For      string  `json:"for,omitempty"`   // the same in words
	Rule     string  `json:"rule"`            // what the quantity or the length follows from
}

// Lot is so many of a thing that one event of the record tells of.
type Lot struct {
	Event string   `json:"event"`
	Count int      `json:"count"`
	Home  bool     `json:"home,omitempty"`  // it was at home before
	Items []string `json:"items,omitempty"` // of sticks: those that nothing is cut from yet
}

// Place names a thing of one frame of a job.
type Place struct {
	Frame int    `json:"frame"`
	Kind  string `json:"kind"` // joint, pipe or link
	ID    string `json:"id"`
}

// Words names the thing as one would ask for it.
func (s Spec) Words() string {
	inches := func(l measure.Length) string { return l.Round(measure.Inch/16).Format(measure.InInches, 0) }
	switch s.Ware {
	case Pipe:
		return fmt.Sprintf("%s in pipe, %s stick", s.Size, s.Length.Format(measure.FeetInches, 0))
	case Fitting:
		return strings.ReplaceAll(s.Size, "x", " × ") + " in " + catalog.Kind(s.Kind).Words()
	case Cement, Primer:
		if s.Kind != "" {
			return fmt.Sprintf("%s %s, %d fl oz can", s.Kind, s.Ware, s.Ounces)
		}
		return fmt.Sprintf("%s, %d fl oz can", s.Ware, s.Ounces)
	}
	words := s.Kind
	if s.Size != "" {
		words += ", " + s.Size + " pipe"
	}
	if s.Diameter > 0 {
		words = inches(s.Diameter) + " " + words
	}
	switch {
	case s.Length > 0 && IsByLength(s.Kind) && s.Length%measure.Foot == 0:
		words += ", " + s.Length.Format(measure.FeetInches, 0) + " long"
	case s.Length > 0:
		words += ", " + inches(s.Length) + " long"
	}
	return words
}

// Words names a line: a piece that no stick is long enough for is said as such.
func (l Line) Words() string {
	if l.Unit == Piece {
		return fmt.Sprintf("%s in pipe, %s in one piece: no stick holds it", l.Size, l.Length.Format(measure.FeetInches, 0))
	}
	return l.Spec.Words()
}

// Together adds up lines of the same thing, in the order in which they first come.
func Together(lines []Line) (all []Line) {
	at := map[Spec]int{}
	for _, l := range lines {
		i, known := at[l.Spec]
		if !known {
			at[l.Spec] = len(all)
			l.Where = append([]Place{}, l.Where...)
			all = append(all, l)
			continue
		}
		all[i].Quantity += l.Quantity
		all[i].Where = append(all[i].Where, l.Where...)
		if !strings.Contains(all[i].Rule, l.Rule) {
			all[i].Rule += "; " + l.Rule
		}
	}
	return all
}
