package frame

import (
	"fmt"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Format is the version of the document's form that this package writes.
const Format = 2

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

// Split puts a station between two others: a whole part of the way along, for
// equal bays and evenly spread rails, or any share of the way that a shape has
// by its nature, as the corners of an octagon have between its flats. A share
// over 1 goes on beyond: 2 is the mirror image of From in To.
type Split struct {
	From  string  `json:"from"`
	To    string  `json:"to"`
	Part  int     `json:"part,omitempty"`
	Parts int     `json:"parts,omitempty"`
	Share float64 `json:"share,omitempty"` // instead of Part and Parts
}

// Of is the share of the way.
func (s *Split) Of() float64 {
	if s.Share != 0 || s.Parts == 0 {
		return s.Share
	}
	return float64(s.Part) / float64(s.Parts)
}

// Like puts a station as far from another one as two stations of an earlier
// axis are apart: a ring is as wide one way as the other.
type Like struct {
	From string       `json:"from"` // of the same axis
	Axis measure.Axis `json:"axis"` // before this one: x for y, x or y for z
	Of   string       `json:"of"`   // of that axis
	To   string       `json:"to"`
}

// Station is a named place on an axis: at a dimension from another, at a split
// between two, or like two of another axis. The first of an axis has none of
// these and stands at the axis' origin.
type Station struct {
	ID    string     `json:"id"`
	At    *Dimension `json:"at,omitempty"`
	Split *Split     `json:"split,omitempty"`
	Like  *Like      `json:"like,omitempty"`
}

// after lists the stations that this one is placed by.
func (s *Station) after() []string {
	switch {
	case s.Like != nil:
		return []string{s.Like.From}
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

// A free end is open unless said otherwise. A staked end stands over a stake;
// a free one is open on purpose.
const (
	OpenEnd   End = ""
	CappedEnd End = "cap"
	FreeEnd   End = "free"
	StakedEnd End = "stake"
)

// Ends lists what can be said of the end of a pipe.
func Ends() []End { return []End{OpenEnd, CappedEnd, FreeEnd, StakedEnd} }

// Forced asks for a kind with more ports than pipes. Spare gives the
// directions of the spare ports where they are known; Plugged closes them,
// Declared leaves them open on purpose.
type Forced struct {
	Kind     catalog.Kind  `json:"kind"`
	Spare    []measure.Dir `json:"spare,omitempty"`
	Plugged  bool          `json:"plugged,omitempty"`
	Declared bool          `json:"declared,omitempty"`
	// Unstated says that the source left open which way the other spare ports
	// point; they then count for no size, even where only one way is possible.
	Unstated bool `json:"unstated,omitempty"`
}

// Walk places a joint from another one: in a direction, or toward a second
// joint, so far as a size says, as far as a share of the way, or until a
// station of one axis is reached.
type Walk struct {
	From   string       `json:"from"`             // a joint of this definition or of a group used in it
	Dir    *measure.Dir `json:"dir,omitempty"`    // in the definition's axes; its length does not matter
	Toward string       `json:"toward,omitempty"` // instead of Dir: a joint
	Size   *Dimension   `json:"size,omitempty"`   // From and Back are not used
	Share  float64      `json:"share,omitempty"`  // with Toward, instead of Size: the share of the way
	Until  *Until       `json:"until,omitempty"`  // with Dir, instead of Size
}

// Until is the station at which a walk ends.
type Until struct {
	Axis    measure.Axis `json:"axis"`
	Station string       `json:"station"`
}

// Joint is where pipes meet, or where one ends. The point is the fitting's
// centre; with one pipe and no forced fitting it is where the bare pipe ends.
// It stands on a station of each axis, or is walked to.
type Joint struct {
	ID      string    `json:"id"`
	At      [3]string `json:"at,omitzero"` // station on each axis
	Walk    *Walk     `json:"walk,omitempty"`
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

// The paths. Straight is the default.
const (
	Straight Path = ""
	Sprung   Path = "sprung" // bowed between its joints, as it wants to
	Bent     Path = "bent"   // bent by heat, round the joints it goes by
)

// Spring says how a sprung pipe bows. An end with a direction is held in it,
// as by a socket or a tall stake; one without turns freely. Without a size it
// is half of a hoop, whose other half is its mirror image at the pipe's To.
type Spring struct {
	Size  *Dimension     `json:"size,omitempty"` // Cut: its length; else the rise over the line between its ends: Centre to its middle line, Outside over it, Clear under it
	Bow   *measure.Dir   `json:"bow,omitempty"`  // the side it bows to, in the definition's axes; by default up
	Leave [2]measure.Dir `json:"leave,omitzero"` // how it leaves its two joints, in the definition's axes; 0, 0, 0 where it turns freely
}

// Pipe runs between two joints.
type Pipe struct {
	ID   string       `json:"id"`
	From string       `json:"from"`
	To   string       `json:"to"`
	Size catalog.Size `json:"size,omitempty"`
	Path Path         `json:"path,omitempty"`

	Spring *Spring        `json:"spring,omitempty"` // of a sprung pipe
	Via    []string       `json:"via,omitempty"`    // of a bent pipe: the joints where its legs would cross; no pipe ends there
	Radius measure.Length `json:"radius,omitempty"` // of a bent pipe's middle line

	AtEnd *[2]Insertion `json:"atEnd,omitempty"` // at From, at To; an empty mode keeps the joint's
}

// Array repeats a use along an axis. Copy k stands a pitch from copy k−1, a
// dimension between the uses' anchors that keeps its meaning; or, where Joined
// is given, the copies share what stands on two stations of the group: what is
// on the second in one copy is what is on the first in the next. Three joined
// sections have four uprights, not six, and other fittings at the shared ones.
type Array struct {
	Count  int          `json:"count"`
	Axis   measure.Axis `json:"axis"`
	Pitch  *Dimension   `json:"pitch,omitempty"`
	Joined *[2]string   `json:"joined,omitempty"` // stations of the group
}

// Turn is a turn about an axis of the definition, counter-clockwise seen from
// the axis' positive end.
type Turn struct {
	About measure.Axis `json:"about"`
	By    float64      `json:"by"` // degrees
}

// Use puts a group into a definition. First mirrored, then turned.
type Use struct {
	ID     string       `json:"id"`
	Of     string       `json:"of"`               // the group's id
	At     [3]string    `json:"at"`               // stations that the group's anchor stands on
	Anchor [3]string    `json:"anchor,omitzero"`  // stations of the group; by default the first of each axis
	Mirror string       `json:"mirror,omitempty"` // x, y or z: that coordinate changes sign
	Turns  []Turn       `json:"turns,omitempty"`  // one after the other
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
	Links  []Link          `json:"links,omitempty"`
}

// Stance is how a frame stands that is square in itself but not on its floor:
// turned, one turn after the other, before it is let down on the floor.
type Stance struct {
	Turns []Turn `json:"turns"`
}

// Drive is a size between two joints, or of a pipe, that is not what places
// them. Something else gives way for it; with nothing to give way it is a
// check, and a finding when it does not hold.
type Drive struct {
	ID    string    `json:"id"`
	Pipe  string    `json:"pipe,omitempty"`  // a pipe's path, for centre, visible and cut
	Ends  [2]string `json:"ends,omitzero"`   // else two joints' paths, for centre, outside, clear and slot
	Size  Dimension `json:"size"`            // From, Back and Of are not used
	Gives string    `json:"gives,omitempty"` // JSON pointer of the dimension that gives way
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
	Drives []Drive          `json:"drives,omitempty"`

	Tolerances []Tolerance      `json:"tolerances,omitempty"`
	Envelopes  []Envelope       `json:"envelopes,omitempty"`
	Parts      []catalog.Custom `json:"parts,omitempty"` // fittings of the document's own, that joints may be given
	Stance     *Stance          `json:"stance,omitempty"`
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

// Own gives how many stations a definition has on each axis by itself, apart
// from those that arrays make for their copies. "" is the root.
func (d *Document) Own(group string) (n [3]int) {
	def := &d.Root
	if group != "" {
		def = d.Group(group)
	}
	for a := range n {
		n[a] = len(def.Axes[a].Stations)
	}
	return n
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
