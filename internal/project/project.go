// Package project holds what a project's document is made of on disk and on
// the wire: a job, where it began, and how its lengths are shown. It turns a
// project into the job that [plan.Make] plans.
package project

import (
	"errors"
	"slices"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/joinery"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/reading"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/stock"
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
	// Was says, by the pipe's path of now, what the record calls a pipe that a gesture gave
	// another path, as when it became part of a group: its pieces are those of that name for good.
	Was map[string]string `json:"was,omitempty"`
	// Sale is what is on sale for this project alone and how it is carried, over what the shop has.
	Sale *Sale `json:"sale,omitempty"`
	// Terms are what the bill is held against: a budget, what one like it costs.
	Terms *cost.Terms `json:"terms,omitempty"`
	// School is the way in which joints are cemented.
	School joinery.School `json:"school,omitempty"`
	// SpareEvery adds a spare to every kind of fitting and hardware for each so many of it that are
	// begun; 0: none.
	SpareEvery int `json:"spareEvery,omitempty"`
	// Also are pieces of one copy that are cut from rope, webbing and the like.
	Also []plan.Also `json:"also,omitempty"`
	// Spare are sticks that are bought besides those that the pieces take.
	Spare []plan.StockLength `json:"spare,omitempty"`
	// Searched says for which plans of a size more was spent on the search for the best.
	Searched []procure.Searched `json:"searched,omitempty"`
	// Together are the stored projects that this one stands for: it has no frame then, and what it says
	// of buying and cutting counts for all of them.
	Together *Several `json:"together,omitempty"`
	// Page is how the frame was drawn, line by line.
	Page   *Page `json:"page,omitempty"`
	Format int   `json:"format,omitempty"` // of the project's stored form; see [Format]
}

// Sale is stick lengths and prices of a project's own, and how its sticks are carried.
type Sale struct {
	Stock  []plan.StockLength `json:"stock,omitempty"`
	Prices []cost.Price       `json:"prices,omitempty"`
	Haul   *stock.Haul        `json:"haul,omitempty"`
	// TaxRate is a share, in the place of the shop's: of a project that came from elsewhere.
	TaxRate *float64 `json:"taxRate,omitempty"`
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
	job := plan.Job{
		Frames: []plan.FrameUse{
			{Document: *doc, Copies: max(1, p.Copies), Given: given, Was: p.Was, Also: p.Also, Findings: told(made), Waiting: p.waiting()},
		},
		Tool: p.Tool,
		Step: p.Step,
		Have: p.Described.Items(doc.Size),

		School:     p.School,
		SpareEvery: p.SpareEvery,

		Spare:    p.Spare,
		Searched: p.Searched,
	}
	if p.Terms != nil {
		job.Terms = *p.Terms
	}
	if p.Sale != nil {
		job.Stock, job.Prices, job.Haul, job.TaxRate = p.Sale.Stock, p.Sale.Prices, p.Sale.Haul, p.Sale.TaxRate
	}
	return job, nil
}
