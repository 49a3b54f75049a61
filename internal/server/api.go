package server

import (
	"cmp"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"net/url"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/edit"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/drawing"
	"sturdyelbow/internal/export"
	"sturdyelbow/internal/project"
)

func register(h huma.API, a *api) {
	op := func(method, path, id, summary string) huma.Operation {
		return huma.Operation{Method: method, Path: "/api" + path, OperationID: id, Summary: summary, MaxBodyBytes: maxBody}
	}
	huma.Register(h, op(http.MethodGet, "/about", "about", "What this server is"), a.about)
	huma.Register(h, op(http.MethodGet, "/starters", "starters", "The starters and their prompts"), a.starters)
	huma.Register(h, op(http.MethodPost, "/plan", "plan", "Plan a project; nothing is stored"), a.plan)
	huma.Register(h, op(http.MethodPost, "/edit", "edit", "Make a gesture on a project's frame; nothing is stored"), a.edit)
	huma.Register(h, op(http.MethodPost, "/measure", "measure", "A measurement of a real part taken into the shop"), a.measure)
	huma.Register(h, op(http.MethodPost, "/choices", "choices", "The fittings that could stand at a joint"), a.choices)
	huma.Register(h, op(http.MethodPost, "/later", "later", "What changes when a joint becomes what it may become one day"), a.later)
	huma.Register(h, op(http.MethodPost, "/cut", "cut", "Plan the cutting of a pasted list"), a.cut)
	huma.Register(h, op(http.MethodPost, "/pieces", "readPieces", "Read a list of pieces as people write it, line by line"), a.readPieces)
	huma.Register(h, op(http.MethodPost, "/cut.csv", "cutFile", "The cutting of a pasted list as CSV"), a.cutFile)
	huma.Register(h, op(http.MethodPost, "/lengths", "lengths", "Read a list of lengths as people write them"), a.lengths)
	huma.Register(h, op(http.MethodPost, "/export/{kind}", "export", "Write a plan in an open format"), a.export)
	huma.Register(h, op(http.MethodGet, "/pictures", "pictures", "A small picture of every kind of fitting, as SVG"), a.pictures)
	registerProjects(h, a, op)
	registerRecord(h, a, op)
	registerPast(h, a, op)
	registerFiles(h, a, op)
	registerEffect(h, a, op)
	registerThrift(h, a, op)
	registerPrices(h, a, op)
	registerCompare(h, a, op)
	registerTogether(h, a, op)
	huma.Register(h, op(http.MethodGet, "/rack", "rack", "What lies on the rack, and what could be cut from it"), a.rack)
}

type body[T any] struct{ Body T }

func answer[T any](v T) *body[T] { return &body[T]{*filled(&v)} }

// About names the server.
type About struct {
	Name    string      `json:"name"`
	Version string      `json:"version"`
	Tools   []plan.Tool `json:"tools"`
	// Currency is what amounts are shown in, by its ISO 4217 code.
	Currency string `json:"currency"`
}

func (a *api) about(ctx context.Context, _ *struct{}) (*body[About], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	return answer(About{Name: "Sturdy Elbow", Version: a.version, Tools: plan.Tools(), Currency: cmp.Or(shop.Prices.Currency, "USD")}), nil
}

// PlanRequest is a project and, unless the saved shop is meant, a shop, or the key
// that was given for it when it was sent before.
type PlanRequest struct {
	Project project.Project `json:"project"`
	Of      string          `json:"of,omitempty"      maxLength:"40"` // the stored project whose record counts; none where it is left out
	Newest  bool            `json:"newest,omitempty"`                 // go by the shop's newest figures, whatever the work was begun with
	Shop    *plan.Shop      `json:"shop,omitempty"`
	ShopKey string          `json:"shopKey,omitempty"` // of a shop that was sent before: reading it takes longer than a small plan
	Draw    bool            `json:"draw,omitempty"`    // also draw the frames
	Paper   bool            `json:"paper,omitempty"`   // with letters that are large, for a sheet of paper
	Draft   bool            `json:"draft,omitempty"`   // of a large job a first purchase, which may improve
}

// PlanAnswer is the plan and, where it was asked for, a drawing of each frame.
type PlanAnswer struct {
	Plan     plan.Plan `json:"plan"`
	Drawings []string  `json:"drawings"` // SVG
	// Repeats are the counts that can still be changed of a frame that was begun
	// from a starter and is the builder's own now.
	Repeats []starter.Repeat `json:"repeats"`
	// Beside are the lines of what was typed and set beside those of the page, which the next line
	// that is drawn has before it.
	Beside []string `json:"beside"`
	// Alone is what each of several projects that are bought together comes to by itself.
	Alone   []BoughtOne `json:"alone"`
	ShopKey string      `json:"shopKey,omitempty"` // to send instead of the shop next time; it may be forgotten
	Events  int64       `json:"events"`            // the last of the record that is in it
}

// asked gives the job, the shop and the work that are meant.
func (a *api) asked(ctx context.Context, r *PlanRequest) (job plan.Job, shop *plan.Shop, work plan.Work, err error) {
	if r.Project.Together == nil {
		if job, err = r.Project.Job(); err != nil {
			return job, nil, work, problem(err)
		}
		if work, err = a.work(ctx, r.Of); err != nil {
			return job, nil, work, err
		}
	}
	if shop, err = a.shopOf(ctx, r); err != nil {
		return job, nil, work, err
	}
	if r.Project.Together != nil {
		if job, work, err = a.joint(ctx, &r.Project, shop); err != nil {
			return job, nil, work, err
		}
	}
	if r.Newest {
		work.Figures = nil
	}
	return withTool(job), shop, work, nil
}

// shopOf is the shop that a request is about: the one that was sent, now or before, or the saved one.
func (a *api) shopOf(ctx context.Context, r *PlanRequest) (shop *plan.Shop, err error) {
	if r.Shop != nil {
		return r.Shop, nil
	}
	if r.ShopKey != "" {
		if shop = a.shops.find(r.ShopKey); shop == nil {
			return nil, problem(errForgotten)
		}
		return shop, nil
	}
	shop, _, err = a.loadShop(ctx)
	return shop, err
}

// make plans what is asked for, and says which event of the record was the last.
func (a *api) make(ctx context.Context, r *PlanRequest) (plan.Job, *plan.Plan, int64, error) {
	job, shop, work, err := a.asked(ctx, r)
	if err != nil {
		return job, nil, 0, err
	}
	make := plan.Make
	if r.Draft {
		make = plan.Draft
	}
	p, err := make(ctx, job, *shop, work)
	if err != nil {
		return job, nil, 0, problem(err)
	}
	return job, p, work.Last, nil
}

// withTool cuts with a saw where the project names no tool.
func withTool(j plan.Job) plan.Job {
	j.Tool = cmp.Or(j.Tool, "saw")
	return j
}

func (a *api) plan(ctx context.Context, in *body[PlanRequest]) (*body[PlanAnswer], error) {
	if in.Body.Project.Together != nil {
		out, err := a.planTogether(ctx, &in.Body)
		if err != nil {
			return nil, err
		}
		if out.ShopKey = in.Body.ShopKey; in.Body.Shop != nil {
			out.ShopKey = a.shops.keep(in.Body.Shop)
		}
		return answer(*out), nil
	}
	job, p, last, err := a.make(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	in.Body.Project.Adopt(&job.Frames[0].Document, p.Findings)
	out := PlanAnswer{
		Plan:    *p,
		Repeats: in.Body.Project.Repeats(),
		Beside:  in.Body.Project.Beside(),
		ShopKey: in.Body.ShopKey,
		Events:  last,
	}
	if in.Body.Shop != nil {
		out.ShopKey = a.shops.keep(in.Body.Shop)
	}
	for i := range p.Frames {
		if in.Body.Draw {
			out.Drawings = append(
				out.Drawings,
				drawing.Frame(&p.Frames[i], drawing.Options{Style: in.Body.Project.Style, Step: p.Step, Paper: in.Body.Paper}),
			)
		}
	}
	return answer(out), nil
}

// nobodyWaits is the status of a request whose sender has gone; nobody reads it
// but the log.
const nobodyWaits = 499

// problem words an error as problem+json with the place of each fault.
func problem(err error) error {
	var (
		nonsense plan.ValidationError
		answers  starter.Problems
		sizes    project.SizeProblems
		given    project.GivenProblems
		lines    export.LineErrors
		file     wireframe.Errors
		refusal  *edit.Refusal
		trial    *catalog.TrialError
		doc      frame.Problems
		none     *NoProject
		details  []error
	)
	add := func(where, what, hint string, value any) {
		details = append(details, &Fault{Pointer: where, Message: what + "; " + hint, Value: value})
	}
	title := "This cannot be planned as it stands"
	switch {
	case errors.Is(err, errForgotten):
		add("/shopKey", "the shop of this key is not known any more", "send the shop", nil)
	case errors.Is(err, project.ErrEmpty):
		add("/project/frame", "no frame yet", "choose a starter or open a file", nil)
	case errors.As(err, &nonsense):
		for _, p := range nonsense {
			add(sent(p.Path), p.What, p.Hint, nil)
		}
	case errors.As(err, &answers):
		title = "A size cannot be read"
		for _, p := range answers {
			add(at("project", "starter", "answers", p.Key), p.What, p.Hint, p.At)
		}
	case errors.As(err, &sizes):
		title = "A size cannot be read"
		for _, p := range sizes {
			add(at("project", "sizes", p.Key), p.What, p.Hint, p.At)
		}
	case errors.As(err, &given):
		title = "A length cannot be read"
		for _, p := range given {
			add(at("project", "given", p.Key), p.What, p.Hint, p.At)
		}
	case errors.As(err, &lines):
		title = "The list cannot be read"
		for _, l := range lines {
			details = append(details, &Fault{Pointer: "/text", Line: l.Line, Within: l.Column, Message: l.What + "; " + l.Hint})
		}
	case errors.As(err, &file):
		title = "The file cannot be read"
		for _, e := range file {
			details = append(details, &Fault{Pointer: "/text", Line: e.Line, Within: e.Path, Message: e.What + "; " + e.Hint})
		}
	case errors.As(err, &refusal):
		title = "That cannot be done"
		add("/edit"+refusal.Field, refusal.What, refusal.Hint, refusal.At)
	case errors.As(err, &trial):
		title = "That measurement cannot be"
		add(at(trial.Field), trial.What, trial.Hint, nil)
	case errors.As(err, &doc):
		for _, p := range doc {
			add("/project/frame"+p.Path, p.What, p.Hint, nil)
		}
	case errors.As(err, &none):
		title = "This file is no project"
		add("/text", none.What, none.Hint, nil)
	case errors.Is(err, context.Canceled):
		return huma.NewError(nobodyWaits, "nobody waits for this any more")
	default:
		return err
	}
	return huma.Error422UnprocessableEntity(title, details...)
}

// LengthsRequest is lengths as written.
type LengthsRequest struct {
	Texts []string     `json:"texts"`
	Units measure.Unit `json:"units"`          // of bare numbers
	Like  string       `json:"like,omitempty"` // how one may be written, for a refusal; a stick's length where it is left out
}

func (a *api) lengths(_ context.Context, in *body[LengthsRequest]) (*body[[]measure.Length], error) {
	ls, err := readLengths(in.Body.Texts, in.Body.Units, "/texts", in.Body.Like)
	if err != nil {
		return nil, err
	}
	return answer(ls), nil
}

// readLengths reads lengths, of sticks unless it is said what they are like; at least one, none of them nothing.
func readLengths(texts []string, unit measure.Unit, where, like string) (ls []measure.Length, err error) {
	var details []error
	what := "stick length; write it like 10 ft"
	if like != "" {
		what = "length; write it like " + like
	}
	for i, s := range texts {
		l, err := measure.Parse(s, measure.Reading{Unit: unit, Limit: plan.StockLimit})
		if err != nil || l == 0 {
			details = append(
				details,
				&Fault{Message: fmt.Sprintf("%q is no %s", s, what), Pointer: fmt.Sprintf("%s/%d", where, i)},
			)
		}
		ls = append(ls, l)
	}
	if len(texts) == 0 {
		details = append(details, &Fault{Message: "no " + what, Pointer: where})
	}
	if len(details) > 0 {
		return nil, huma.Error422UnprocessableEntity("A stick length cannot be read", details...)
	}
	return ls, nil
}

// ownDocument reads the product's own document of a frame, of this format or
// an older one; nil for a file of another form.
func ownDocument(text string) (*frame.Document, error) {
	var is struct {
		Format int             `json:"format"`
		Root   json.RawMessage `json:"root"`
	}
	if json.Unmarshal([]byte(text), &is) != nil || is.Format == 0 || is.Root == nil {
		return nil, nil
	}
	d := &frame.Document{}
	if err := json.Unmarshal([]byte(text), d); err != nil {
		return nil, frame.Problems{{Path: "", What: "the document cannot be read: " + err.Error(), Hint: "open the file it was saved as"}}
	}
	_, err := frame.Expand(d)
	return d, err
}

type exportInput struct {
	Kind string `path:"kind" enum:"project.json,lines.txt,cuts.csv,shopping.csv,wireframe.json,frame.json,frame.svg"`
	Body PlanRequest
}

type fileOutput struct {
	Type string `header:"Content-Type"`
	Name string `header:"Content-Disposition"`
	Lost string `header:"X-Lost"` // what the format could not carry
	Body []byte
}

func (a *api) export(ctx context.Context, in *exportInput) (*fileOutput, error) {
	out := &fileOutput{Type: "text/csv; charset=utf-8", Name: fmt.Sprintf("attachment; filename=%q", in.Kind)}
	if in.Kind == "project.json" { // also of a project that cannot be planned
		var err error
		out.Type = "application/json"
		out.Body, err = a.projectFile(ctx, &in.Body.Project, in.Body.Of)
		return out, err
	}
	if in.Kind == "lines.txt" {
		text, err := in.Body.Project.LinesText()
		if err != nil {
			return nil, problem(err)
		}
		out.Type, out.Body = "text/plain; charset=utf-8", []byte(text)
		return out, nil
	}
	job, p, _, err := a.make(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	style := cmp.Or(in.Body.Project.Style, measure.InInches)
	if in.Body.Project.Together != nil && in.Kind != "cuts.csv" && in.Kind != "shopping.csv" {
		return nil, huma.Error404NotFound("Of several projects there is a shopping list and a cut list; a frame is saved in its project")
	}
	var b strings.Builder
	switch in.Kind {
	case "cuts.csv":
		err = export.CutList(&b, p, style)
	case "shopping.csv":
		err = export.Shopping(&b, p)
	case "frame.json":
		out.Type = "application/json"
		var data []byte
		data, err = json.MarshalIndent(job.Frames[0].Document, "", " ")
		b.Write(data)
	case "frame.svg":
		out.Type = "image/svg+xml"
		b.WriteString(drawing.Frame(&p.Frames[0], drawing.Options{Style: style, Step: p.Step}))
	default:
		out.Type = "application/json"
		f := &p.Frames[0]
		var lost []string
		var data []byte
		data, lost, err = wireframe.Write(f.Graph(), f.Points())
		out.Lost = strings.Join(lost, ", ")
		b.Write(data)
	}
	if w := p.Frames[0].Waiting; w != nil && out.Type == "application/json" {
		out.Lost = strings.TrimPrefix(out.Lost+fmt.Sprintf(", the lines that wait (%d)", w.Lines), ", ")
	}
	out.Lost = url.PathEscape(out.Lost) // a header holds no other letters
	out.Body = []byte(b.String())
	return out, err
}

func (a *api) loadShop(ctx context.Context) (*plan.Shop, int64, error) {
	data, revision, err := a.store.Shop(ctx)
	if err != nil {
		return nil, 0, missing(err)
	}
	shop, err := readShop(data)
	return shop, revision, err
}

// readShop reads a stored shop; the example one where none is stored.
func readShop(data []byte) (*plan.Shop, error) {
	shop := plan.ExampleShop()
	if data != nil {
		shop = plan.Shop{}
		if err := json.Unmarshal(data, &shop); err != nil {
			return nil, fmt.Errorf("the stored shop cannot be read: %w", err)
		}
	}
	return &shop, nil
}
