package server

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"net/http"
	"strings"
	"unicode/utf8"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/export"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

func registerFiles(h huma.API, a *api, op func(method, path, id, summary string) huma.Operation) {
	open := op(
		http.MethodPost,
		"/open",
		"openFile",
		"Store what a file holds as a new project: a whole project with its record, a frame, or a wireframe",
	)
	open.DefaultStatus = http.StatusCreated
	huma.Register(h, open, a.open)
}

// ProjectFile is a whole project in a file: what it is, how many of it, what was typed,
// and all that was done.
type ProjectFile struct {
	SturdyElbow string          `json:"sturdyElbow"` // what the file holds: project
	Format      int             `json:"format"`
	Project     json.RawMessage `json:"project"`
	Record      []record.Event  `json:"record"`
	// TaxRate is a share: what the bill was made with.
	TaxRate *float64 `json:"taxRate,omitempty"`
}

// projectFile writes a project and its record.
func (a *api) projectFile(ctx context.Context, p *project.Project, of string) ([]byte, error) {
	data, err := p.Encode()
	if err != nil {
		return nil, err
	}
	f := ProjectFile{SturdyElbow: "project", Format: project.Format, Project: data, Record: []record.Event{}}
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	if f.TaxRate = &shop.Prices.TaxRate; p.Sale != nil && p.Sale.TaxRate != nil {
		f.TaxRate = p.Sale.TaxRate
	}
	if of != "" {
		stored, err := a.store.Events(ctx, of, 0)
		if err != nil {
			return nil, missing(err)
		}
		if f.Record, err = decoded(stored); err != nil {
			return nil, err
		}
	}
	return json.MarshalIndent(f, "", " ")
}

// OpenRequest is a file that is opened: its name and its text.
type OpenRequest struct {
	Name string `json:"name" maxLength:"500"`
	Text string `json:"text"`
}

func (a *api) open(ctx context.Context, in *body[OpenRequest]) (*body[ProjectLine], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	p, events, err := readFile(ctx, in.Body.Name, in.Body.Text, shop)
	if err != nil {
		return nil, problem(err)
	}
	var sent []store.Event
	for _, e := range events {
		s, err := encoded(e, e.Device)
		if err != nil {
			return nil, err
		}
		s.At = timeOf(e.At)
		sent = append(sent, s)
	}
	return a.create(ctx, p, sent)
}

// NoProject says what a file is that holds no project.
type NoProject struct{ What, Hint string }

func (e *NoProject) Error() string { return e.What + "; " + e.Hint }

// readFile reads whatever file may hold a project; lines are drawn with what the shop measured. The error is a [NoProject], or what is
// wrong with a file of a form that is known.
func readFile(ctx context.Context, name, text string, shop *plan.Shop) (*project.Project, []record.Event, error) {
	name = strings.TrimSuffix(strings.TrimSuffix(name, ".json"), ".wireframe")
	var is struct {
		SturdyElbow string          `json:"sturdyElbow"`
		Format      int             `json:"format"`
		Root        json.RawMessage `json:"root"`
		Wireframe   json.RawMessage `json:"wireframe"`
		Copies      json.RawMessage `json:"copies"`
		Tool        json.RawMessage `json:"tool"`
	}
	text = strings.TrimPrefix(text, "\ufeff")
	err := json.Unmarshal([]byte(text), &is)
	var syntax *json.SyntaxError
	switch {
	case err == nil && is.SturdyElbow == "project":
		var f ProjectFile
		if err := json.Unmarshal([]byte(text), &f); err != nil {
			return nil, nil, &NoProject{"a project file that is not whole: " + err.Error(), "save it once more from where it came"}
		}
		p, err := project.Decode(f.Project)
		if err != nil {
			return nil, nil, unreadable(err)
		}
		for i := range f.Record {
			// a record that was kept is read, also where it has more than is taken in now
			if wrong := f.Record[i].Problem(); wrong != nil && wrong.Path != "/count" {
				return nil, nil, &NoProject{
					fmt.Sprintf(
						"a project file whose record makes no sense at its event %d: %s",
						i+1,
						wrong.What,
					), "save it once more from where it came",
				}
			}
		}
		if t := f.TaxRate; t != nil && *t >= 0 && *t <= 1 && *t != shop.Prices.TaxRate && (p.Sale == nil || p.Sale.TaxRate == nil) {
			if p.Sale == nil {
				p.Sale = &project.Sale{}
			}
			p.Sale.TaxRate = t // its bill is as it was
		}
		return p, f.Record, nil
	case err == nil && is.Copies != nil && is.Tool != nil:
		p, err := project.Decode([]byte(text))
		if err != nil {
			return nil, nil, unreadable(err)
		}
		return p, nil, nil
	case err == nil && is.Format > 0 && is.Root != nil:
		d, err := ownDocument(text)
		if err != nil {
			return nil, nil, err
		}
		return around(d, name), nil, nil
	case err == nil && is.Wireframe != nil:
		d, err := wireframe.Read([]byte(text))
		if err != nil {
			return nil, nil, err
		}
		return around(d, name), nil, nil
	case err == nil:
		return nil, nil, &NoProject{"a JSON file of another kind", "open a project, a frame or a wireframe that was saved as JSON"}
	case errors.As(err, &syntax) && strings.HasPrefix(strings.TrimSpace(text), "{"):
		line := 1 + strings.Count(text[:min(len(text), int(syntax.Offset))], "\n")
		return nil, nil, wireframe.Errors{
			{Line: line, What: "the file is not whole JSON: " + syntax.Error(), Hint: "save it once more from where it came"},
		}
	}
	if saysLines(text) {
		p, err := drawn(ctx, name, text, shop)
		return p, nil, err
	}
	return nil, nil, &NoProject{whatIs(text), "open a project, a frame or a wireframe that was saved as JSON, or a text of lines"}
}

// saysLines says whether a text is lines that draw a frame: whether its first line that says
// something can be read as one.
func saysLines(text string) bool {
	all, err := lines.Parse(text)
	if err != nil || !utf8.ValidString(text) {
		return false
	}
	for _, l := range all {
		if _, many := l.HowMany(); many {
			continue
		}
		said, err := lines.Read(l.Text, lines.Pen{}, &lines.Known{Document: project.Blank("", "")})
		if err != nil || said.Edit.Gesture != nil || said.Changed {
			return err == nil
		}
	}
	return false
}

// drawn makes a project of a text of lines. Those that cannot be drawn wait on its page.
func drawn(ctx context.Context, name, text string, shop *plan.Shop) (*project.Project, error) {
	all, err := lines.Parse(text)
	if err != nil {
		return nil, err
	}
	p := around(project.Blank(strings.TrimSuffix(name, ".txt"), measure.Inches), strings.TrimSuffix(name, ".txt"))
	p, _, err = p.Draw(ctx, all, project.Workshop{Shop: shop})
	return p, err
}

func unreadable(err error) error {
	var newer *project.NewerError
	if errors.As(err, &newer) {
		return &NoProject{newer.Error(), "or save it there as a wireframe"}
	}
	return &NoProject{"a project that cannot be read: " + err.Error(), "save it once more from where it came"}
}

// around makes a project of a frame.
func around(d *frame.Document, name string) *project.Project {
	p := &project.Project{Name: d.Name, Units: d.Units, Style: measure.InInches, Copies: 1, Tool: "saw", Format: project.Format}
	if p.Name == "" {
		p.Name = name
	}
	if d.Units == measure.Millimetres {
		p.Style = measure.Metric
	}
	d.Name = p.Name
	p.Frame = d
	return p
}

// whatIs says what a file is that is none of ours.
func whatIs(text string) string {
	head := text[:min(len(text), 4000)]
	lower := strings.ToLower(head)
	switch {
	case strings.TrimSpace(text) == "":
		return "an empty file"
	case strings.HasPrefix(head, "%PDF"):
		return "a PDF"
	case strings.HasPrefix(head, "\x89PNG"), strings.HasPrefix(head, "\ufffdPNG"), strings.HasPrefix(head, "\xff\xd8"):
		return "a picture"
	case strings.HasPrefix(strings.TrimSpace(lower), "<svg"), strings.Contains(lower, "<svg"):
		return "a drawing (SVG), which can be looked at but not read back"
	case strings.HasPrefix(strings.TrimSpace(lower), "<"):
		return "a web page"
	case !utf8.ValidString(head[:max(0, len(head)-4)]) || bytes.ContainsRune([]byte(head), 0) || strings.ContainsRune(head, '\ufffd'):
		return "not a text"
	}
	if d, err := export.ReadCutList(text, measure.Inches); err == nil && len(d) > 0 {
		return "a cut list: open it under Cut a list"
	}
	if first, _, _ := strings.Cut(lower, "\n"); strings.Contains(first, "size") && strings.Contains(first, "count") {
		return "a list of what to buy or to cut: it holds no frame"
	}
	return "a text without a frame in it"
}
