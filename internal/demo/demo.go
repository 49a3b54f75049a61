package demo

import (
	"context"
	"embed"
	"fmt"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/lines"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

//go:embed *.txt
var pages embed.FS

//go:embed weave.wireframe.json
var weave []byte

// said is a project that was drawn line by line.
func said(name, file, tool string) (project.Project, error) {
	p := project.Project{Name: name, Units: measure.Inches, Style: measure.InInches, Copies: 1, Tool: tool, Format: project.Format}
	text, err := pages.ReadFile(file)
	if err != nil {
		return p, err
	}
	all, err := lines.Parse(string(text))
	if err != nil {
		return p, err
	}
	drawn, _, err := p.Draw(context.Background(), all, project.Workshop{})
	switch {
	case err != nil:
		return p, err
	case drawn.Page.Wrong != nil:
		return p, fmt.Errorf("%s: %w", file, drawn.Page.Wrong)
	}
	data, err := drawn.Encode() // as it is stored
	if err != nil {
		return p, err
	}
	stored, err := project.Decode(data)
	if err != nil {
		return p, err
	}
	return *stored, nil
}

// Projects are the club's projects, the one to be shown first last.
func Projects() ([]project.Project, error) {
	begun := func(name, id string, copies int, answers map[string]starter.Answer) project.Project {
		return project.Project{
			Name:    name,
			Units:   measure.Inches,
			Style:   measure.InInches,
			Starter: &starter.Begun{ID: id, Answers: answers},
			Copies:  copies,
			Tool:    "saw",
			Format:  project.Format,
		}
	}
	text := func(s string) starter.Answer { return starter.Answer{Text: s} }
	means := func(s string, m frame.Meaning) starter.Answer { return starter.Answer{Text: s, Meaning: m} }
	all := []project.Project{
		begun(
			"Ring gate screen",
			"screen",
			1,
			map[string]starter.Answer{
				"width":  text("12 ft"),
				"height": text("40"),
				"bays":   text("3"),
				"rails":  text("3"),
				"foot":   text("22"),
			},
		),
		begun("Scorekeeper's table", "table", 1, map[string]starter.Answer{"width": means("46", frame.Clear), "size": text("1")}),
	}
	for _, f := range []struct{ name, file, tool string }{
		{"Cavaletti", "trestle.txt", "saw"}, {"Winners' wall", "wall.txt", "saw"}, {"Lead stand", "lead-stand.txt", "saw"},
		{"Octagon hoop", "hoop.txt", "hacksaw"},
	} {
		p, err := said(f.name, f.file, f.tool)
		if err != nil {
			return nil, err
		}
		all = append(all, p)
	}
	doc, err := wireframe.Read(weave)
	if err != nil {
		return nil, err
	}
	doc.Name = "Weave poles in two sizes"
	all = append(all, project.Project{
		Name: doc.Name, Units: doc.Units, Style: measure.InInches, Frame: doc, Copies: 1, Tool: "saw", Format: project.Format,
	})
	return append(
		all,
		begun("Rain tunnel", "tunnel", 1, map[string]starter.Answer{"hoops": text("4"), "apart": text("32")}),
		begun(
			"Kit cart",
			"cart",
			1,
			map[string]starter.Answer{"width": means("18", frame.Clear), "depth": text("22"), "wheel": text("10")},
		),
		begun(
			"Puppy jump",
			"jump",
			4,
			map[string]starter.Answer{
				"width": text("3 ft"),
				"bar":   text("8"),
				"top":   text("20"),
				"foot":  text("18"),
				"size":  text("1/2"),
				"mode":  text("slip"),
			},
		),
		begun(
			"Club jump",
			"jump",
			2,
			map[string]starter.Answer{"width": means("4 ft", frame.Clear), "bar": text("20"), "top": text("36"), "foot": text("24")},
		),
	), nil
}

// Seed stores the projects in an empty database and leaves any other alone.
func Seed(ctx context.Context, s *store.Store) error {
	have, err := s.Projects(ctx)
	if err != nil || len(have) > 0 {
		return err
	}
	all, err := Projects()
	if err != nil {
		return err
	}
	for _, p := range all {
		data, err := p.Encode()
		if err != nil {
			return err
		}
		if _, err := s.Create(ctx, store.State{Name: p.Name, Template: p.Template, Format: project.Format, Body: data}); err != nil {
			return err
		}
	}
	return nil
}
