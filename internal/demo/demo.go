package demo

import (
	"context"
	_ "embed"
	"fmt"

	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/starter"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

//go:embed hoop.wireframe.json
var hoop []byte

//go:embed weave.wireframe.json
var weave []byte

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
	for _, f := range []struct {
		name string
		data []byte
		work string
	}{{"Octagon hoop", hoop, "hacksaw"}, {"Weave poles in two sizes", weave, "saw"}} {
		doc, err := wireframe.Read(f.data)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", f.name, err)
		}
		doc.Name = f.name
		all = append(
			all,
			project.Project{
				Name:   f.name,
				Units:  doc.Units,
				Style:  measure.InInches,
				Frame:  doc,
				Copies: 1,
				Tool:   f.work,
				Format: project.Format,
			},
		)
	}
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
