package frame

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Format is the version of the document's form that this package writes.
const Format = 1

// Floor is the name of the plane the lowest bodies rest on, used as the
// origin of a height.
const Floor = "floor"

// Mode is how a spigot is held in its port.
type Mode string

// The modes that are insertions. Pivots and telescopes are links, not
// insertions.
const (
	Cemented Mode = "cemented"
	Slip     Mode = "slip"   // dry, driven with a mallet
	Eased    Mode = "eased"  // sanded, lifts off; it bottoms out
	Pinned   Mode = "pinned" // driven, then a screw or bolt through
)

// seatOf is the default share of the socket a pipe goes in, by mode.
var seatOf = map[Mode]float64{Cemented: 1, Slip: 0.85, Eased: 1, Pinned: 0.85}

// Modes lists the modes.
func Modes() []Mode { return []Mode{Cemented, Slip, Eased, Pinned} }

// Meaning says what the value of a dimension measures.
type Meaning string

// The meanings of a target size, after the handbook of the trade.
const (
	Centre    Meaning = "centre"      // centre to centre
	Outside   Meaning = "outside"     // over the fittings' bodies
	Clear     Meaning = "clear"       // between the pipes
	TopOfPipe Meaning = "top-of-pipe" // floor to the top of a pipe
	TopOfCap  Meaning = "top-of-cap"  // floor to the top of a cap or bare end
	Slot      Meaning = "slot"        // between two fitting bodies
	Visible   Meaning = "visible"     // bare pipe between two faces; 0 is touching
	Cut       Meaning = "cut"         // a given cut length
)

// Meanings lists the meanings.
func Meanings() []Meaning {
	return []Meaning{Centre, Outside, Clear, TopOfPipe, TopOfCap, Slot, Visible, Cut}
}

// Dimension is a size the builder stated: it is the truth, positions follow.
type Dimension struct {
	Value   measure.Length `json:"value"`
	Meaning Meaning        `json:"meaning"`
	From    string         `json:"from"`           // a station of the same axis, or Floor on the z axis
	Back    bool           `json:"back,omitempty"` // measured in the negative direction
	Of      string         `json:"of,omitempty"`   // the pipe meant, for Visible and Cut
	Label   string         `json:"label,omitempty"`
	Text    string         `json:"text,omitempty"`   // as typed
	Prompt  string         `json:"prompt,omitempty"` // the starter's prompt that asked for it
}

// Split puts a station between two others, a whole part of the way along:
// equal bays and evenly spread rails.
type Split struct {
	From  string `json:"from"`
	To    string `json:"to"`
	Part  int    `json:"part"`
	Parts int    `json:"parts"`
}

// Station is a named place on an axis: at a dimension from another, or at a
// split between two. The first of an axis has neither and stands at the axis'
// origin.
type Station struct {
	ID    string     `json:"id"`
	At    *Dimension `json:"at,omitempty"`
	Split *Split     `json:"split,omitempty"`
}

// after lists the stations that this one is placed by.
func (s *Station) after() []string {
	switch {
	case s.Split != nil:
		return []string{s.Split.From, s.Split.To}
	case s.At != nil && s.At.From != Floor:
		return []string{s.At.From}
	}
	return nil
}

// AxisStations are the stations along one axis of a definition.
type AxisStations struct {
	Origin   measure.Length `json:"origin,omitempty"`
	Stations []Station      `json:"stations"`
}

// End says what is at the end of a pipe that meets no other.
type End string

// A free end is open unless said otherwise.
const (
	OpenEnd   End = ""
	CappedEnd End = "cap"
)

// Forced asks for a kind with more ports than pipes. Spare gives the
// directions of the spare ports where they are known; Plugged closes them.
type Forced struct {
	Kind    catalog.Kind  `json:"kind"`
	Spare   []measure.Dir `json:"spare,omitempty"`
	Plugged bool          `json:"plugged,omitempty"`
	// Unstated says that the source left open which way the other spare ports
	// point; they then count for no size, even where only one way is possible.
	Unstated bool `json:"unstated,omitempty"`
}

// Joint is where pipes meet, or where one ends. The point is the fitting's
// centre; with one pipe and no forced fitting it is where the bare pipe ends.
type Joint struct {
	ID      string    `json:"id"`
	At      [3]string `json:"at"` // station on each axis
	End     End       `json:"end,omitempty"`
	Mode    Mode      `json:"mode,omitempty"`
	Reason  string    `json:"reason,omitempty"`
	Fitting *Forced   `json:"fitting,omitempty"`
}

// Insertion sets how one end of a pipe is held, against its joint's default.
type Insertion struct {
	Mode   Mode   `json:"mode"`
	Reason string `json:"reason,omitempty"`
}

// Path is the way a pipe takes between its joints.
type Path string

// Straight is the default path.
const Straight Path = ""

// Pipe runs between two joints.
type Pipe struct {
	ID    string        `json:"id"`
	From  string        `json:"from"`
	To    string        `json:"to"`
	Size  catalog.Size  `json:"size,omitempty"`
	Path  Path          `json:"path,omitempty"`
	AtEnd *[2]Insertion `json:"atEnd,omitempty"` // at From, at To; an empty mode keeps the joint's
}

// Array repeats a use: copy k stands a pitch from copy k−1 along an axis. The
// pitch is a dimension between the uses' origin stations and keeps its meaning.
type Array struct {
	Count int          `json:"count"`
	Axis  measure.Axis `json:"axis"`
	Pitch Dimension    `json:"pitch"`
}

// Use puts a group into a definition. First mirrored, then turned.
type Use struct {
	ID     string       `json:"id"`
	Of     string       `json:"of"`               // the group's id
	At     [3]string    `json:"at"`               // stations that the group's anchor stands on
	Anchor [3]string    `json:"anchor,omitzero"`  // stations of the group; by default the first of each axis
	Mirror string       `json:"mirror,omitempty"` // x, y or z: that coordinate changes sign
	Turn   int          `json:"turn,omitempty"`   // quarter turns about z, counter-clockwise from above
	Array  *Array       `json:"array,omitempty"`
	Size   catalog.Size `json:"size,omitempty"` // overrides the group's default size
	Mode   Mode         `json:"mode,omitempty"`
}

// Merge makes two joints one; the second's pipes and settings go to the first.
type Merge struct {
	Keep string `json:"keep"`
	Drop string `json:"drop"`
}

// Definition is a sub-assembly, or the whole frame.
type Definition struct {
	ID     string          `json:"id,omitempty"`
	Name   string          `json:"name,omitempty"`
	Size   catalog.Size    `json:"size,omitempty"`
	Mode   Mode            `json:"mode,omitempty"`
	Axes   [3]AxisStations `json:"axes"`
	Joints []Joint         `json:"joints,omitempty"`
	Pipes  []Pipe          `json:"pipes,omitempty"`
	Uses   []Use           `json:"uses,omitempty"`
	Merges []Merge         `json:"merges,omitempty"`
}

// Document is a frame as its builder described it.
type Document struct {
	Format int              `json:"format"`
	Name   string           `json:"name"`
	Units  measure.Unit     `json:"units"`
	Size   catalog.Size     `json:"size"`
	Mode   Mode             `json:"mode"`
	Seats  map[Mode]float64 `json:"seats,omitempty"` // share of socket depth; a missing mode keeps its default
	Root   Definition       `json:"root"`
	Groups []Definition     `json:"groups,omitempty"`
	Holds  []Hold           `json:"holds,omitempty"` // over what the definitions say; the last that counts wins
}

// Seat gives the design seat of a mode in this document.
func (d *Document) Seat(m Mode) float64 {
	if s, ok := d.Seats[m]; ok {
		return s
	}
	return seatOf[m]
}

// Group finds a definition by id.
func (d *Document) Group(id string) *Definition {
	for i := range d.Groups {
		if d.Groups[i].ID == id {
			return &d.Groups[i]
		}
	}
	return nil
}

// where is the JSON pointer of a group.
func (d *Document) where(group string) string {
	for i := range d.Groups {
		if d.Groups[i].ID == group {
			return fmt.Sprintf("/groups/%d", i)
		}
	}
	return ""
}
