package server

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"html/template"
	"strings"
	"time"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/project"
)

// First is what a project's page brings along, so that it stands before it has asked
// for anything.
type First struct {
	ID           string          `json:"id"`
	Project      project.Project `json:"project"`
	Revision     int64           `json:"revision"`
	Shop         plan.Shop       `json:"shop"`
	ShopRevision int64           `json:"shopRevision"`
	Answer       *PlanAnswer     `json:"answer,omitempty"` // with its drawing; left out where the plan takes too long or cannot be made
}

// firstPatience is how long a page waits for its plan; a larger frame is planned when
// the page asks.
const firstPatience = 400 * time.Millisecond

// first gathers what the page of a project brings along; nil where there is no such
// project.
func (a *api) first(ctx context.Context, id string) *First {
	p, err := a.getProject(ctx, &ProjectPath{ID: id})
	if err != nil {
		return nil
	}
	shop, err := a.getShop(ctx, &struct{}{})
	if err != nil {
		return nil
	}
	f := &First{ID: id, Project: p.Body.Project, Revision: p.Body.Revision, Shop: shop.Body.Shop, ShopRevision: shop.Body.Revision}
	ctx, cancel := context.WithTimeout(ctx, firstPatience)
	defer cancel()
	if out, err := a.plan(ctx, &body[PlanRequest]{PlanRequest{Project: f.Project, Of: id, Shop: &f.Shop, Draw: true, Draft: true}}); err == nil {
		f.Answer = &out.Body
	}
	return f
}

// firstLook is the page before its script runs: the frame as the server draws it, and
// the job in one line. The script puts the workbench in its place.
var firstLook = template.Must(template.New("first").Parse(`<div class="editor" aria-busy="true">` +
	`<header class="first-bar">{{.Name}}</header><div class="stages"></div>` +
	`<main class="editor-main"><section class="editor-frame"><div class="stage first-stage">{{.Drawing}}</div></section><div class="editor-sheet"></div></main>` +
	`<section class="tape">{{range .Tape}}<div class="tape-cell"><span class="tape-label">{{.Label}}</span><span class="tape-figure">{{.Figure}}</span></div>{{end}}</section></div>`))

type firstCell struct{ Label, Figure string }

// page fills the built page in with what a project's page brings along.
func (f *First) page(index []byte) ([]byte, error) {
	data, err := json.Marshal(filled(f))
	if err != nil {
		return nil, err
	}
	look := struct {
		Name    string
		Drawing template.HTML
		Tape    []firstCell
	}{Name: f.Project.Name}
	if a := f.Answer; a != nil && len(a.Drawings) > 0 {
		look.Drawing = template.HTML(a.Drawings[0]) //nolint:gosec // drawn by ourselves, with every name in it escaped
		look.Tape = tapeOf(&a.Plan, f.Project.Style)
	}
	var b bytes.Buffer
	if err := firstLook.Execute(&b, look); err != nil {
		return nil, err
	}
	// JSON escapes what would end the element
	root := fmt.Sprintf(`<div id="root">%s</div><script id="first" type="application/json">%s</script>`, b.Bytes(), data)
	return bytes.Replace(index, []byte(`<div id="root"></div>`), []byte(root), 1), nil
}

func tapeOf(p *plan.Plan, style measure.Style) []firstCell {
	var outside []string
	for _, e := range p.Frames[0].Overall {
		outside = append(outside, e.Size.Format(style, measure.SixtyFourth))
	}
	return []firstCell{
		{"outside", strings.Join(outside, " × ")},
		{"pipe", fmt.Sprintf("%.1f ft", p.Totals.Net.Feet())},
		{"sticks", fmt.Sprint(p.Totals.Sticks)},
		{"fittings", fmt.Sprint(p.Totals.Fittings)},
		{"cost", p.Bill.Total.String()},
	}
}
