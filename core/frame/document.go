package frame

import (
	"encoding/json"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
)

// Format is the version of the document's form that this package writes.
const Format = 4

// Floor is the plane the lowest bodies rest on, where a height begins.
const Floor Ref = "floor"

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

// Ref names a joint, or, with a leading "=", a named plane: "j4", "=shelf". What
// is in a use is named by its path: "foot 1/hub", "foot 1/=toe". A size may also
// begin at [Floor].
type Ref string

// OnPlane is the reference to a named plane of a definition.
func OnPlane(id string) Ref { return Ref("=" + id) }

// Bare is what a builder calls the joint or the plane.
func (r Ref) Bare() string { return strings.TrimPrefix(string(r), "=") }

// Parts gives the path of the use that a reference leads into, the name there,
// and whether it is a plane's.
func (r Ref) Parts() (path, name string, plane bool) {
	path, name = "", string(r)
	if i := strings.LastIndexByte(name, '/'); i >= 0 {
		path, name = name[:i], name[i+1:]
	}
	name, plane = strings.CutPrefix(name, "=")
	return path, name, plane
}

// GaveWay records that a size, a reason or a pipe's direction gave way to others,
// because they could not all hold and the builder chose so. What gave way keeps its
// value and is not applied. Sizes, Pipes and Reasons name what it gave way to, as
// far as that is in the same definition.
type GaveWay struct {
	Sizes   []string `json:"sizes,omitempty"   ref:"size"`   // ids of the sizes that it gave way to
	Pipes   []string `json:"pipes,omitempty"   ref:"pipe"`   // the way they run
	Reasons []string `json:"reasons,omitempty" ref:"reason"` // ids of the reasons that it gave way to
	Words   string   `json:"words"`                          // what it gave way to, as it was said then
	Freed   bool     `json:"freed,omitempty"`                // some of that has gone: it may hold again, if its builder says so
}

// Size is a length that the builder stated; positions are computed from sizes, never
// the other way. There are three forms. With Pipe it is a size of that pipe. With
// Axis it lies along the axis between From and To, two joints or named planes, To on
// the positive side; with Axis and Pipe it is measured along the axis to the pipe's
// ends. With neither it is the straight distance between two joints.
type Size struct {
	ID       string         `json:"id"` // of no other size of the document; it never changes
	Value    measure.Length `json:"value"`
	Text     string         `json:"text,omitempty"` // as typed
	Unit     measure.Unit   `json:"unit,omitempty"` // that a bare number in Text was in
	Meaning  Meaning        `json:"meaning"`
	Pipe     string         `json:"pipe,omitempty"     ref:"pipe"` // the pipe that it was typed for
	Axis     string         `json:"axis,omitempty"`                // x, y or z
	From     Ref            `json:"from,omitempty"     ref:"place"`
	To       Ref            `json:"to,omitempty"       ref:"place"`
	Foot     string         `json:"foot,omitempty"     ref:"joint"` // of a height: the joint whose body stands on the floor that it is measured from
	Label    string         `json:"label,omitempty"`                // what the size is called
	Prompt   string         `json:"prompt,omitempty"`               // the starter's prompt that asked for it
	Rank     int            `json:"rank,omitempty"`                 // in the order of typing: an earlier one holds against a later one
	Inferred bool           `json:"inferred,omitempty"`             // nobody typed it: it keeps where it stood what would have lost its place
	Gave     *GaveWay       `json:"gave,omitempty"`
	// Solves says that nobody typed the value: it is what lets another size hold, the length of
	// half a hoop, which it decides. Value is then where the search for it begins.
	Solves string `json:"solves,omitempty"   ref:"size"`
	// Half says that it is the length of half a hoop, which its ends decide.
	Half bool `json:"half,omitempty"`
}

// ReasonKind says what a [Reason] states.
type ReasonKind string

// The kinds of reasons.
const (
	Level   ReasonKind = "level"  // Of is level with To along Axis
	Share   ReasonKind = "share"  // Of is at a share of the way from From to To, along Axis or, without one, along all three
	EqualTo ReasonKind = "equal"  // Of is as far from From along Axis as EqualTo is from EqualFrom along EqualAxis
	Line    ReasonKind = "line"   // Of lies from From in the direction Dir
	Toward  ReasonKind = "toward" // Of lies on the way from From to To
	Placed  ReasonKind = "placed" // Of stands by By from From: two parts that nothing else connects
)

// ReasonKinds lists the kinds of reasons.
func ReasonKinds() []ReasonKind { return []ReasonKind{Level, Share, EqualTo, Line, Toward, Placed} }

// Reason is a statement, other than a size, that decides where a joint or a plane
// stands. Which of its members count follows from its kind.
type Reason struct {
	ID        string        `json:"id"` // of no other reason of the document
	Kind      ReasonKind    `json:"kind"`
	Axis      string        `json:"axis,omitempty"` // x, y or z: along which it holds
	Of        Ref           `json:"of"                  ref:"place"`
	From      Ref           `json:"from,omitempty"      ref:"place"`
	To        Ref           `json:"to,omitempty"        ref:"place"`
	Part      int           `json:"part,omitempty"`      // with Parts: a whole part of the way
	Parts     int           `json:"parts,omitempty"`     // into how many equal parts the distance is shared
	Share     float64       `json:"share,omitempty"`     // instead; over 1 goes on beyond: 2 is the mirror image of From in To
	EqualAxis string        `json:"equalAxis,omitempty"` // x, y or z: along which the other distance is measured
	EqualFrom Ref           `json:"equalFrom,omitempty" ref:"place"`
	EqualTo   Ref           `json:"equalTo,omitempty"   ref:"place"`
	Dir       *measure.Dir  `json:"dir,omitempty"` // in the definition's axes; its length does not matter
	By        measure.Point `json:"by,omitzero"`
	Rank      int           `json:"rank,omitempty"` // when it was said, among all that was said
	Gave      *GaveWay      `json:"gave,omitempty"`
}

// Way is the share of the way from From to To at which Of stands, for a [Share].
func (t *Reason) Way() float64 {
	if t.Share != 0 || t.Parts == 0 {
		return t.Share
	}
	return float64(t.Part) / float64(t.Parts)
}

// Plane is a named plane square to an axis: joints that stand on it are level,
// because somebody said so. Planes without a name are not stored; they follow from
// pipes and reasons.
type Plane struct {
	ID string `json:"id"` // its name along its axis
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

// Forced asks for a certain fitting at a joint, usually one with more ports than
// pipes. Spare gives the directions of its spare ports where they are known. Plugged
// closes the spare ports, Declared says that they are open on purpose.
type Forced struct {
	Kind     catalog.Kind  `json:"kind"`
	Spare    []measure.Dir `json:"spare,omitempty"`
	Plugged  bool          `json:"plugged,omitempty"`  // its spare ports are plugged
	Declared bool          `json:"declared,omitempty"` // its spare ports are open on purpose
	// Unstated says that the source left open which way the other spare ports
	// point; they then count for no size, even where only one way is possible.
	Unstated bool `json:"unstated,omitempty"`
	// Awaits says that what was typed holds only with this tee, where two pieces go on straight: its third port waits for a
	// pipe that is still to be run. It counts for as long as just those two are there.
	Awaits bool `json:"awaits,omitempty"`
}

// Joint is where pipes meet, or where one ends. The point is the fitting's
// centre; with one pipe and no forced fitting it is where the bare pipe ends.
type Joint struct {
	ID      string    `json:"id"`                            // in its definition
	Name    string    `json:"name,omitempty"`                // that the builder gave it: of one joint of its definition, and no joint's id
	On      [3]string `json:"on,omitzero"       ref:"plane"` // named planes of the definition that it stands on, where it does
	End     End       `json:"end,omitempty"`
	Mode    Mode      `json:"mode,omitempty"`
	Reason  string    `json:"reason,omitempty"` // why its sockets are held so, as the builder said
	Fitting *Forced   `json:"fitting,omitempty"`
	Later   *Forced   `json:"later,omitempty"` // the fitting that may stand here one day: its place is kept
}

// Insertion sets how one end of a pipe is held in its socket, instead of the default
// of its joint.
type Insertion struct {
	Mode   Mode   `json:"mode"`
	Reason string `json:"reason,omitempty"` // why it is held so, as the builder said
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
// as by a socket or a tall stake; one without turns freely. The size typed for
// the pipe is its length, or the rise over the line between its ends: centre to
// its middle line, outside over it, clear under it. Without a size it is half of
// a hoop, whose other half is its mirror image at the pipe's To.
type Spring struct {
	Bow   *measure.Dir   `json:"bow,omitempty"`  // the side it bows to, in the definition's axes; by default up
	Leave [2]measure.Dir `json:"leave,omitzero"` // how it leaves its two joints, in the definition's axes; 0, 0, 0 where it turns freely
}

// Pipe runs between two joints. With a direction, To lies from From in that
// direction, which keeps the two joints level across it; like a reason, this may
// give way. Without a direction it runs wherever its joints are.
type Pipe struct {
	ID   string       `json:"id"`                         // its name in its definition
	From string       `json:"from"           ref:"joint"` // the joint at its first end
	To   string       `json:"to"             ref:"joint"` // the joint at its other end
	Dir  *measure.Dir `json:"dir,omitempty"`              // from From to To, in the definition's axes; its length does not matter
	Size catalog.Size `json:"size,omitempty"`
	Path Path         `json:"path,omitempty"`

	Spring *Spring        `json:"spring,omitempty"`             // of a sprung pipe
	Via    []string       `json:"via,omitempty"    ref:"joint"` // of a bent pipe: the joints where its legs would cross; no pipe ends there
	Radius measure.Length `json:"radius,omitempty"`             // of a bent pipe's middle line

	AtEnd *[2]Insertion `json:"atEnd,omitempty"` // at From, at To; an empty mode keeps the joint's
	Rank  int           `json:"rank,omitempty"`  // when its direction was said, among all that was said: of what cannot hold together the later gives way
	Gave  *GaveWay      `json:"gave,omitempty"`  // its direction gave way: it slopes
}

// Array repeats a use along an axis. Copy k stands a pitch from copy k−1,
// between the uses' anchors; or, where Joined is given, the copies share joints
// of the group: the second of a pair in one copy is the first of it in the
// next. Three joined sections have four uprights, not six, and other fittings at
// the shared ones.
type Array struct {
	Count  int          `json:"count"` // how many copies there are, the first included
	Axis   measure.Axis `json:"axis"`
	Pitch  *Size        `json:"pitch,omitempty"`
	Joined [][2]string  `json:"joined,omitempty" ref:"joint"` // joints of the group
}

// Joins says whether the copies share joints, rather than stand a pitch apart.
func (a *Array) Joins() bool { return len(a.Joined) > 0 }

// Turn is a turn about an axis of the definition, counter-clockwise seen from
// the axis' positive end.
type Turn struct {
	About measure.Axis `json:"about"`
	By    float64      `json:"by"` // degrees
}

// Use is an instance of a group inside a definition: first mirrored, then turned.
// Along an axis for which At names a joint or plane, the group's anchor stands
// there; along the others its position follows from what joins it.
type Use struct {
	ID     string       `json:"id"`                           // its name in its definition
	Of     string       `json:"of"               ref:"group"` // the group that it is a use of
	At     [3]Ref       `json:"at,omitzero"      ref:"place"` // what the anchor stands on, along each axis
	Anchor [3]Ref       `json:"anchor,omitzero"  ref:"place"` // of the group, along its own axes; by default its first plane, or joint
	Mirror string       `json:"mirror,omitempty"`             // x, y or z: that coordinate changes sign
	Turns  []Turn       `json:"turns,omitempty"`              // one after the other
	Array  *Array       `json:"array,omitempty"`
	Size   catalog.Size `json:"size,omitempty"` // overrides the group's default size
	Mode   Mode         `json:"mode,omitempty"`
	Rank   int          `json:"rank,omitempty"` // when it was placed, among all that was said
}

// Merge makes two joints one. The second's pipes and settings go to the first.
type Merge struct {
	Keep string `json:"keep" ref:"joint"` // the joint that stays
	Drop string `json:"drop" ref:"joint"` // the joint that becomes the other one
}

// Planes are the named planes of each axis.
type Planes [3][]Plane

// MarshalJSON writes an axis without any as an empty list: those who read it
// expect three lists.
func (p Planes) MarshalJSON() ([]byte, error) {
	lists := [3][]Plane{}
	for a := range p {
		lists[a] = append([]Plane{}, p[a]...)
	}
	return json.Marshal(lists)
}

// Definition is a sub-assembly, or the whole frame.
type Definition struct {
	ID      string       `json:"id,omitempty"`   // of a group; the frame itself has none
	Name    string       `json:"name,omitempty"` // what the builder calls it
	Size    catalog.Size `json:"size,omitempty"`
	Mode    Mode         `json:"mode,omitempty"`
	Planes  Planes       `json:"planes,omitzero"` // named ones, of each axis
	Joints  []Joint      `json:"joints,omitempty"`
	Pipes   []Pipe       `json:"pipes,omitempty"`
	Sizes   []Size       `json:"sizes,omitempty"`
	Reasons []Reason     `json:"reasons,omitempty"`
	Uses    []Use        `json:"uses,omitempty"`
	Merges  []Merge      `json:"merges,omitempty"`
	Links   []Link       `json:"links,omitempty"`
}

// Stance tilts a frame whose own axes are not those of its floor: it is turned, one
// turn after the other, and then let down on the floor. One that is held by hand or hung
// stands on no floor.
type Stance struct {
	Turns []Turn `json:"turns"`
	Held  bool   `json:"held,omitempty"` // by hand, or hung: it stands on no floor
}

// Held says whether the frame is held by hand or hung, and stands on no floor.
func (d *Document) Held() bool { return d.Stance != nil && d.Stance.Held }

// Tilted says whether the frame's own axes are not those of its floor.
func (d *Document) Tilted() bool { return d.Stance != nil && len(d.Stance.Turns) > 0 }

// Document is a frame as its builder described it.
type Document struct {
	Format    int              `json:"format"` // the version of this format
	Name      string           `json:"name"`   // what the builder calls the frame
	Units     measure.Unit     `json:"units"`
	Size      catalog.Size     `json:"size"`
	Mode      Mode             `json:"mode"`
	Seats     map[Mode]float64 `json:"seats,omitempty"` // share of socket depth; a missing mode keeps its default
	Root      Definition       `json:"root"`
	Groups    []Definition     `json:"groups,omitempty"`
	ModeRules []ModeRule       `json:"modeRules,omitempty"` // over what the definitions say; the last that counts wins
	Origin    measure.Point    `json:"origin,omitzero"`     // where the first plane of each axis stands, or the first joint

	Tolerances      []Tolerance      `json:"tolerances,omitempty"`
	ClearanceChecks []ClearanceCheck `json:"clearanceChecks,omitempty"`
	CustomFittings  []catalog.Custom `json:"customFittings,omitempty"` // fittings of the document's own, that joints may be given
	Stance          *Stance          `json:"stance,omitempty"`

	Serial int `json:"serial,omitempty"` // the last number that an id of a size or reason was made with

	// Followed are pipes, by path, that whoever holds the document wants to find
	// again: they are renamed with the pipes, and emptied where a pipe goes. They
	// are no part of what is saved.
	Followed []string `json:"-" ref:"pipe"`

	// Shown are the numbers by which joints are shown whose ids are none, by their paths, as far as they would change
	// otherwise: j4 is j4 for as long as it is there.
	Shown map[string]int `json:"shown,omitempty"`
	// Numbers are those that ids made next get. They are no part of what is saved.
	Numbers Numbers `json:"-"`
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
