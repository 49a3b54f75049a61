package project

import (
	"cmp"
	"errors"
	"fmt"

	"sturdyelbow/core/plan"
	"sturdyelbow/core/record"
)

// Together makes one job of several projects, so that their pieces share
// sticks, cans and a trip to the shop, and what was done of each. The tool is the given one, else the
// first project's; so is the tape's step. As variants they are put together from the same parts,
// one at a time. The error names the project.
func Together(all []*Project, works []record.Work, tool string, variants bool) (plan.Job, plan.Work, error) {
	var job plan.Job
	var work plan.Work
	if len(all) == 0 {
		return job, work, errors.New("choose at least one project")
	}
	job.Own = !variants
	for i, p := range all {
		one, err := p.Job()
		if err != nil {
			return job, work, fmt.Errorf("%s: %w", cmp.Or(p.Name, "a project without a name"), err)
		}
		if i == 0 {
			job.Step, job.EndTrim, job.Tool = one.Step, one.EndTrim, cmp.Or(tool, one.Tool)
			job.School, job.SpareEvery = one.School, one.SpareEvery
		}
		for k := range one.Frames {
			one.Frames[k].Document.Name = p.Name
			if variants {
				one.Frames[k].Variant = fmt.Sprint(i + 1)
			}
		}
		if len(all) == 1 { // of several, what is on sale for one of them alone is not on sale for the others
			job.Stock, job.Prices = one.Stock, one.Prices
		}
		job.Frames = append(job.Frames, one.Frames...)
		job.Spare = append(job.Spare, one.Spare...)
		if h := one.Haul; h != nil && (job.Haul == nil || h.Limit < job.Haul.Limit) {
			job.Haul = h // what is carried for one of them is carried in one car with the others'
		}
	}
	return job, record.Together(works...), nil
}
