// Package project holds what a project's document is made of on disk and on
// the wire: a job, where it began, and how its lengths are shown. It turns a
// project into the job that [plan.Make] plans.
package project

import (
	"encoding/json"
	"errors"
	"fmt"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/reading"
	"sturdyelbow/core/starter"
)

// Project is a builder's project.
type Project struct {
	Name    string          `json:"name"`
	Units   measure.Unit    `json:"units"`             // of bare numbers
	Style   measure.Style   `json:"style"`             // how lengths are shown
	Starter *starter.Begun  `json:"starter,omitempty"` // when set, the frame follows from its answers, or was begun from them
	Frame   *frame.Document `json:"frame,omitempty"`   // as it was drawn, or as a gesture on it left it
	// Sizes are sizes of Frame as they were typed over, by their id; they are read
	// each time, so that what cannot be read is kept.
	Sizes map[string]starter.Answer `json:"sizes,omitempty"`
	// Given is what pieces of a list, or pieces that were cut, measure, by the
	// pipe's path, as typed.
	Given map[string]starter.Answer `json:"given,omitempty"`
	// Asks are the sizes that are asked for first, when the frame is begun
	// from as a starter of the builder's own; Template says that this project is
	// that starter.
	Asks     *Asks `json:"asks,omitempty"`
	Template bool  `json:"template,omitempty"`
	// Described is somebody's list of parts, as written, and what was answered
	// about it.
	Described *Described `json:"described,omitempty"`
	// Holds are joints the builder set, over what the starter or frame says.
	ModeRules []frame.ModeRule `json:"modeRules,omitempty"`
	Copies    int              `json:"copies"`
	Tool      string           `json:"tool"`
	Step      measure.Length   `json:"step,omitempty"`
	Work      plan.Work        `json:"work"`
	Marks     Marks            `json:"marks,omitzero"`
}

// Asks are the prompts of a starter of the builder's own.
type Asks struct {
	About   string `json:"about"`
	Prompts []Ask  `json:"prompts"`
}

// Ask is a size that is asked for: its id, how it is called, and why.
type Ask struct {
	Size  string `json:"size"`
	Label string `json:"label"`
	Why   string `json:"why,omitempty"`
}

// Described is a list of parts. Kinds and Others answer what is ambiguous, by
// the item's text: which fitting it is, and which reading of its numbers.
type Described struct {
	Text   string                  `json:"text"`
	Kinds  map[string]catalog.Kind `json:"kinds,omitempty"`
	Others map[string]int          `json:"others,omitempty"` // counted from 0, the first reading
}

// Items reads the list with what was answered.
func (d *Described) Items(usual catalog.Size) []reading.Item {
	if d == nil {
		return nil
	}
	items := reading.Read(d.Text, usual)
	for i := range items {
		it := &items[i]
		if n, ok := d.Others[it.Text]; ok && n >= 0 && n <= len(it.Others) {
			others := it.Others
			if n > 0 {
				*it = others[n-1]
			}
			it.Ask, it.Others = "", nil
		}
		if k, ok := d.Kinds[it.Text]; ok && slices.Contains(it.Kinds, k) {
			it.Kind, it.Kinds, it.Ask = k, nil, ""
		}
	}
	return items
}

// Marks are a builder's ticks on the lists, in the shop and at the saw. The
// page names what is ticked by what it is, not by its place in the list, so
// that a tick outlives a change of the plan: of five caps wanted, three are in
// the cart.
type Marks struct {
	Cart map[string]int `json:"cart,omitempty"` // by what is bought: how many
	Sawn map[string]int `json:"sawn,omitempty"` // by the stick and what is cut from it: how many
}

// ErrEmpty says that a project has neither a starter nor a frame.
var ErrEmpty = errors.New("the project has no frame yet: choose a starter or open a file")

// Job gives what is to be planned. The error is a [starter.Problems], or
// [ErrEmpty].
func (p *Project) Job() (plan.Job, error) {
	made, err := p.made()
	if err != nil {
		return plan.Job{}, err
	}
	doc := made.Document
	if len(p.ModeRules) > 0 {
		d := *doc
		d.ModeRules = slices.Concat(doc.ModeRules, p.ModeRules)
		doc = &d
	}
	given, err := p.given(doc.Units)
	if err != nil {
		return plan.Job{}, err
	}
	return plan.Job{
		Frames: []plan.FrameUse{{Document: *doc, Copies: max(1, p.Copies), Given: given, Findings: told(made)}},
		Tool:   p.Tool,
		Step:   p.Step,
		Have:   p.Described.Items(doc.Size),
	}, nil
}

// UnmarshalJSON reads a project. One from before format 3 named its sizes by
// where they stood in the frame; they go by their ids from then on.
func (p *Project) UnmarshalJSON(data []byte) error {
	type plain Project // without this method
	if err := json.Unmarshal(data, (*plain)(p)); err != nil {
		return err
	}
	var old struct {
		Frame json.RawMessage  `json:"frame"`
		Holds []frame.ModeRule `json:"holds"` // as format 3 had it
		Asks  *struct {
			Prompts []struct {
				Path string `json:"path"`
			} `json:"prompts"`
		} `json:"asks"`
	}
	var was struct {
		Format int `json:"format"`
	}
	if err := json.Unmarshal(data, &old); err != nil {
		return nil //nolint:nilerr // nothing of an older format is in it
	}
	if p.ModeRules == nil {
		p.ModeRules = old.Holds
	}
	if len(old.Frame) == 0 || json.Unmarshal(old.Frame, &was) != nil || was.Format > 2 || was.Format == 0 {
		return nil
	}
	_, ids, err := frame.FromFormat2(old.Frame)
	if err != nil {
		return nil //nolint:nilerr // what it is was read above
	}
	if p.Sizes != nil {
		now := map[string]starter.Answer{}
		for pointer, a := range p.Sizes {
			if id, ok := ids[pointer]; ok {
				now[id] = a
			}
		}
		p.Sizes = now
	}
	if p.Asks != nil && old.Asks != nil {
		for i := range p.Asks.Prompts {
			p.Asks.Prompts[i].Size = ids[old.Asks.Prompts[i].Path]
		}
		p.Asks.Prompts = slices.DeleteFunc(p.Asks.Prompts, func(a Ask) bool { return a.Size == "" })
	}
	return nil
}

// Decode reads a stored project.
func Decode(data []byte) (*Project, error) {
	p := &Project{}
	if err := json.Unmarshal(data, p); err != nil {
		return nil, fmt.Errorf("the stored project cannot be read: %w", err)
	}
	return p, nil
}
