// Package frametest writes frames for tests the way format 2 did: rows of
// stations, each with the one size that places it, and joints that stand where
// they cross or are walked to. [Document.Now] brings them up to date by the same
// way as a stored file.
package frametest

import (
	"encoding/json"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
)

// Floor is the plane that a height is measured from.
const Floor = "floor"

// Dimension is as format 2 had it.
type Dimension struct {
	Value   measure.Length `json:"value"`
	Meaning frame.Meaning  `json:"meaning"`
	From    string         `json:"from"`           // a station of the same axis, or Floor on the z axis
	Back    bool           `json:"back,omitempty"` // measured in the negative direction
	Of      string         `json:"of,omitempty"`   // the pipe meant, for Visible and Cut
	Label   string         `json:"label,omitempty"`
	Text    string         `json:"text,omitempty"`   // as typed
	Prompt  string         `json:"prompt,omitempty"` // the starter's prompt that asked for it
}

// Split is as format 2 had it.
type Split struct {
	From  string  `json:"from"`
	To    string  `json:"to"`
	Part  int     `json:"part,omitempty"`
	Parts int     `json:"parts,omitempty"`
	Share float64 `json:"share,omitempty"` // instead of Part and Parts
}

// Like is as format 2 had it.
type Like struct {
	From string       `json:"from"` // of the same axis
	Axis measure.Axis `json:"axis"` // before this one: x for y, x or y for z
	Of   string       `json:"of"`   // of that axis
	To   string       `json:"to"`
}

// Station is as format 2 had it.
type Station struct {
	ID    string     `json:"id"`
	At    *Dimension `json:"at,omitempty"`
	Split *Split     `json:"split,omitempty"`
	Like  *Like      `json:"like,omitempty"`
}

// AxisStations is as format 2 had it.
type AxisStations struct {
	Origin   measure.Length `json:"origin,omitempty"`
	Stations []Station      `json:"stations"`
}

// Walk is as format 2 had it.
type Walk struct {
	From   string       `json:"from"`             // a joint of this definition or of a group used in it
	Dir    *measure.Dir `json:"dir,omitempty"`    // in the definition's axes; its length does not matter
	Toward string       `json:"toward,omitempty"` // instead of Dir: a joint
	Size   *Dimension   `json:"size,omitempty"`   // From and Back are not used
	Share  float64      `json:"share,omitempty"`  // with Toward, instead of Size: the share of the way
	Until  *Until       `json:"until,omitempty"`  // with Dir, instead of Size
}

// Until is as format 2 had it.
type Until struct {
	Axis    measure.Axis `json:"axis"`
	Station string       `json:"station"`
}

// Joint is as format 2 had it.
type Joint struct {
	ID      string        `json:"id"`
	At      [3]string     `json:"at,omitzero"` // station on each axis
	Walk    *Walk         `json:"walk,omitempty"`
	End     frame.End     `json:"end,omitempty"`
	Mode    frame.Mode    `json:"mode,omitempty"`
	Reason  string        `json:"reason,omitempty"`
	Fitting *frame.Forced `json:"fitting,omitempty"`
}

// Spring is as format 2 had it.
type Spring struct {
	Size  *Dimension     `json:"size,omitempty"` // Cut: its length; else the rise over the line between its ends: Centre to its middle line, Outside over it, Clear under it
	Bow   *measure.Dir   `json:"bow,omitempty"`  // the side it bows to, in the definition's axes; by default up
	Leave [2]measure.Dir `json:"leave,omitzero"` // how it leaves its two joints, in the definition's axes; 0, 0, 0 where it turns freely
}

// Pipe is as format 2 had it.
type Pipe struct {
	ID   string       `json:"id"`
	From string       `json:"from"`
	To   string       `json:"to"`
	Size catalog.Size `json:"size,omitempty"`
	Path frame.Path   `json:"path,omitempty"`

	Spring *Spring        `json:"spring,omitempty"` // of a sprung pipe
	Via    []string       `json:"via,omitempty"`    // of a bent pipe: the joints where its legs would cross; no pipe ends there
	Radius measure.Length `json:"radius,omitempty"` // of a bent pipe's middle line

	AtEnd *[2]frame.Insertion `json:"atEnd,omitempty"` // at From, at To; an empty mode keeps the joint's
}

// Array is as format 2 had it.
type Array struct {
	Count  int          `json:"count"`
	Axis   measure.Axis `json:"axis"`
	Pitch  *Dimension   `json:"pitch,omitempty"`
	Joined *[2]string   `json:"joined,omitempty"` // stations of the group
}

// Use is as format 2 had it.
type Use struct {
	ID     string       `json:"id"`
	Of     string       `json:"of"`               // the group's id
	At     [3]string    `json:"at"`               // stations that the group's anchor stands on
	Anchor [3]string    `json:"anchor,omitzero"`  // stations of the group; by default the first of each axis
	Mirror string       `json:"mirror,omitempty"` // x, y or z: that coordinate changes sign
	Turns  []frame.Turn `json:"turns,omitempty"`  // one after the other
	Array  *Array       `json:"array,omitempty"`
	Size   catalog.Size `json:"size,omitempty"` // overrides the group's default size
	Mode   frame.Mode   `json:"mode,omitempty"`
}

// Definition is as format 2 had it.
type Definition struct {
	ID     string          `json:"id,omitempty"`
	Name   string          `json:"name,omitempty"`
	Size   catalog.Size    `json:"size,omitempty"`
	Mode   frame.Mode      `json:"mode,omitempty"`
	Axes   [3]AxisStations `json:"axes"`
	Joints []Joint         `json:"joints,omitempty"`
	Pipes  []Pipe          `json:"pipes,omitempty"`
	Uses   []Use           `json:"uses,omitempty"`
	Merges []frame.Merge   `json:"merges,omitempty"`
	Links  []frame.Link    `json:"links,omitempty"`
}

// Drive is as format 2 had it.
type Drive struct {
	ID    string    `json:"id"`
	Pipe  string    `json:"pipe,omitempty"`  // a pipe's path, for centre, visible and cut
	Ends  [2]string `json:"ends,omitzero"`   // else two joints' paths, for centre, outside, clear and slot
	Size  Dimension `json:"size"`            // From, Back and Of are not used
	Gives string    `json:"gives,omitempty"` // JSON pointer of the dimension that gives way
}

// Document is as format 2 had it.
type Document struct {
	Format int                    `json:"format"`
	Name   string                 `json:"name"`
	Units  measure.Unit           `json:"units"`
	Size   catalog.Size           `json:"size"`
	Mode   frame.Mode             `json:"mode"`
	Seats  map[frame.Mode]float64 `json:"seats,omitempty"` // share of socket depth; a missing mode keeps its default
	Root   Definition             `json:"root"`
	Groups []Definition           `json:"groups,omitempty"`
	Holds  []frame.ModeRule       `json:"holds,omitempty"` // over what the definitions say; the last that counts wins
	Drives []Drive                `json:"drives,omitempty"`

	Tolerances []frame.Tolerance      `json:"tolerances,omitempty"`
	Envelopes  []frame.ClearanceCheck `json:"envelopes,omitempty"`
	Parts      []catalog.Custom       `json:"parts,omitempty"` // fittings of the document's own, that joints may be given
	Stance     *frame.Stance          `json:"stance,omitempty"`
}

// Now is the document in the form of today. It panics where it cannot be read.
func (d Document) Now() *frame.Document {
	d.Format = 2
	data, err := json.Marshal(d)
	if err != nil {
		panic(err)
	}
	now, _, err := frame.FromFormat2(data)
	if err != nil {
		panic(err)
	}
	return now
}
