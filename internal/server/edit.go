package server

import (
	"context"
	"encoding/json"
	"errors"
	"strings"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/fitting"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

// EditRequest is a project and a gesture on its frame.
type EditRequest struct {
	Project project.Project `json:"project"`
	Shop    *plan.Shop      `json:"shop,omitempty"`                // the saved one when left out
	Of      string          `json:"of,omitempty"   maxLength:"40"` // the stored project whose record counts; none where it is left out
	Edit    Asked           `json:"edit"`
}

// Asked is what is asked of a frame: a gesture, a line that was typed, or all the lines that it is
// to be drawn from.
type Asked struct {
	edit.Edit
	Say  *project.Saying
	Draw *Page
}

// Page is the lines that a frame is to be drawn from.
type Page struct {
	Lines []lines.Line `json:"lines"`
}

// UnmarshalJSON reads what is asked by its name, as [edit.Edit] reads gestures.
func (a *Asked) UnmarshalJSON(data []byte) error {
	var m map[string]json.RawMessage
	if err := json.Unmarshal(data, &m); err != nil {
		return err
	}
	*a = Asked{}
	for name, into := range map[string]any{"say": &a.Say, "draw": &a.Draw} {
		if raw, asked := m[name]; asked {
			if err := json.Unmarshal(raw, into); err != nil {
				return err
			}
			delete(m, name)
		}
	}
	rest, err := json.Marshal(m)
	if err != nil {
		return err
	}
	return json.Unmarshal(rest, &a.Edit)
}

// on asks it of a project.
func (a *Asked) on(ctx context.Context, p *project.Project, in project.Workshop) (*project.Project, edit.Done, error) {
	switch {
	case a.Draw != nil:
		return p.Draw(ctx, a.Draw.Lines, in)
	case a.Say != nil:
		a.Say.Answers = append(a.Say.Answers, a.Answers...)
		return p.Say(ctx, *a.Say, a.Edit, in)
	}
	return p.Edit(ctx, a.Edit, in)
}

// EditAnswer is the project that follows, and what was done; or the question
// that the gesture waits for, with the project as it was.
type EditAnswer struct {
	Project  project.Project `json:"project"`
	Done     edit.Done       `json:"done"`
	Question *edit.Question  `json:"question,omitempty"`
}

func (a *api) edit(ctx context.Context, in *body[EditRequest]) (*body[EditAnswer], error) {
	shop := in.Body.Shop
	if shop == nil {
		saved, _, err := a.loadShop(ctx)
		if err != nil {
			return nil, err
		}
		shop = saved
	}
	work, err := a.work(ctx, in.Body.Of)
	if err != nil {
		return nil, err
	}
	if work.Figures != nil { // seats and stops that the work was begun with
		own := *shop
		work.Figures.Put(&own)
		shop = &own
	}
	next, done, err := in.Body.Edit.on(ctx, &in.Body.Project, project.Workshop{Shop: shop, Work: work})
	var ask *edit.Question
	if errors.As(err, &ask) {
		return answer(EditAnswer{Project: in.Body.Project, Question: ask}), nil
	}
	if err != nil {
		return nil, problem(err)
	}
	return answer(EditAnswer{Project: *next, Done: done}), nil
}

// ChoicesRequest asks which fittings could stand at a joint.
type ChoicesRequest struct {
	Project project.Project `json:"project"`
	Joint   string          `json:"joint"`
	More    []string        `json:"more,omitempty"` // joints that are to have the same
}

// LaterAnswer is what changes when a joint becomes what it may become one day; nothing where
// nothing was kept in mind for it.
type LaterAnswer struct {
	Later *plan.Later `json:"later,omitempty"`
}

func (a *api) later(ctx context.Context, in *body[ChoicesRequest]) (*body[LaterAnswer], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	job, err := in.Body.Project.Job()
	if err != nil {
		return nil, problem(err)
	}
	l, ok, err := plan.Becomes(ctx, withTool(job), *shop, in.Body.Joint)
	if err != nil {
		return nil, problem(err)
	}
	if !ok {
		return answer(LaterAnswer{}), nil
	}
	return answer(LaterAnswer{Later: &l}), nil
}

func (a *api) choices(ctx context.Context, in *body[ChoicesRequest]) (*body[[]fitting.Choice], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	doc, err := in.Body.Project.Document()
	if err != nil {
		return nil, problem(err)
	}
	all, err := plan.Choices(ctx, doc, append([]string{in.Body.Joint}, in.Body.More...), shop)
	if err != nil {
		return nil, problem(err)
	}
	return answer(all), nil
}

// MeasureRequest is what a builder measured, as typed, to be taken into the
// shop. One of three: a figure read directly (Field and Value; no value takes
// it away), a trial of the seat (Seat, Mark, Gap; neither takes it away), or a
// trial of the stop (Cut, Outside, Body, Ends).
type MeasureRequest struct {
	Shop    plan.Shop     `json:"shop"`
	Unit    measure.Unit  `json:"unit,omitempty"`
	Size    catalog.Size  `json:"size,omitempty"`
	Kind    catalog.Kind  `json:"kind,omitempty"`
	Field   catalog.Field `json:"field,omitempty"`
	Value   string        `json:"value,omitempty"`
	Seat    frame.Mode    `json:"seat,omitempty"`
	Mark    string        `json:"mark,omitempty"`
	Gap     string        `json:"gap,omitempty"`
	Cut     string        `json:"cut,omitempty"`
	Outside string        `json:"outside,omitempty"`
	Body    string        `json:"body,omitempty"`
	Ends    int           `json:"ends,omitempty"`
}

// measure works out what a measurement says; the page keeps the shop.
func (a *api) measure(_ context.Context, in *body[MeasureRequest]) (*body[plan.Shop], error) {
	r := &in.Body
	var bad error
	read := func(field, text string) measure.Length {
		if strings.TrimSpace(text) == "" || bad != nil {
			return 0
		}
		l, err := measure.Parse(text, measure.Reading{Unit: r.Unit})
		var pe *measure.ParseError
		if errors.As(err, &pe) {
			bad = &catalog.TrialError{Field: field, What: pe.What, Hint: pe.Hint}
		}
		return l
	}
	m := plan.Measured{}
	switch {
	case r.Field != "":
		m.Figure = &catalog.Override{Size: r.Size, Kind: r.Kind, Field: r.Field, Value: read("value", r.Value), Note: "measured"}
	case r.Seat != "" && strings.TrimSpace(r.Gap) == "" && strings.TrimSpace(r.Mark) == "":
		m.Forget = r.Seat
	default:
		m.Seat = r.Seat
		m.Trial = &catalog.Trial{
			Size:    r.Size,
			Kind:    r.Kind,
			Mark:    read("mark", r.Mark),
			Gap:     read("gap", r.Gap),
			Cut:     read("cut", r.Cut),
			Outside: read("outside", r.Outside),
			Body:    read("body", r.Body),
			Ends:    r.Ends,
		}
	}
	if bad != nil {
		return nil, problem(bad)
	}
	next, err := r.Shop.Calibrate(m)
	if err != nil {
		return nil, problem(err)
	}
	return answer(next), nil
}
