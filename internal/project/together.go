package project

import (
	"cmp"
	"errors"
	"fmt"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
)

// Several are stored projects that are bought and cut as one.
type Several struct {
	Of       []string `json:"of"                 minItems:"1" maxItems:"50"` // their ids, in the order of their numbers
	Variants bool     `json:"variants,omitempty"`                            // put together from the same parts, one at a time
}

// BuysAs gives a project that stands for several, and buys as the first of them does.
func (p *Project) BuysAs(of []string) *Project {
	return &Project{
		Units: p.Units, Style: p.Style, Copies: 1, Format: Format,
		Tool: p.Tool, School: p.School, SpareEvery: p.SpareEvery,
		Together: &Several{Of: of},
	}
}

// Job makes one job of several projects, so that their pieces share sticks, cans and a trip to the
// shop, and what was done of each. What p says of buying counts for all of them: where it says
// nothing the tool is the first project's, and so is the tape's step. What is on sale for one
// of them alone counts only where it is alone. Where several of them, or p, say what the car takes,
// p does, or else the shortest. The error names the project.
func (s *Several) Job(p *Project, all []*Project, works []record.Work) (plan.Job, plan.Work, error) {
	var job plan.Job
	var work plan.Work
	if len(all) == 0 {
		return job, work, errors.New("choose at least one project")
	}
	job.Own = !s.Variants
	for i, q := range all {
		one, err := q.Job()
		if err != nil {
			return job, work, fmt.Errorf("%s: %w", cmp.Or(q.Name, "a project without a name"), err)
		}
		if i == 0 {
			job.Step, job.EndTrim, job.Tool = one.Step, one.EndTrim, cmp.Or(p.Tool, one.Tool)
		}
		for k := range one.Frames {
			one.Frames[k].Document.Name = q.Name
			if s.Variants {
				one.Frames[k].Variant = fmt.Sprint(i + 1)
			}
		}
		if len(all) == 1 {
			job.Stock, job.Prices, job.Searched, job.TaxRate = one.Stock, one.Prices, one.Searched, one.TaxRate
		}
		job.Frames = append(job.Frames, one.Frames...)
		job.Spare = append(job.Spare, one.Spare...)
		if h := one.Haul; h != nil && (job.Haul == nil || h.Limit < job.Haul.Limit) {
			job.Haul = h // what is carried for one of them is carried in one car with the others'
		}
	}
	job.School, job.SpareEvery = p.School, p.SpareEvery
	job.Spare = append(job.Spare, p.Spare...)
	if len(p.Searched) > 0 {
		job.Searched = p.Searched
	}
	if p.Terms != nil {
		job.Terms = *p.Terms
	}
	if q := p.Sale; q != nil {
		if len(q.Stock) > 0 {
			job.Stock = q.Stock
		}
		if len(q.Prices) > 0 {
			job.Prices = q.Prices
		}
		job.Haul = cmp.Or(q.Haul, job.Haul)
		job.TaxRate = cmp.Or(q.TaxRate, job.TaxRate)
	}
	return job, record.Together(works...), nil
}
