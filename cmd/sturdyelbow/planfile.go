package main

import (
	"context"
	"fmt"

	"github.com/spf13/cobra"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/wireframe"
)

// planning are the flags that say how a frame is planned.
type planning struct {
	cutting
	step    string
	savings bool
	typed   bool
}

func (f *planning) add(c *cobra.Command) {
	f.cutting.add(c)
	c.Flags().BoolVar(&f.savings, "savings", false, "print what small changes save, and what takes a stick off a knife edge")
	c.Flags().BoolVar(&f.typed, "typed", false, "with --savings, cuts that were typed may change, too")
	c.Flags().StringVar(&f.step, "step", "1/16", "step of the tape: 1/16, 1/32, 1 mm")
}

// job reads the flags: how a frame is planned, and what is on sale for it.
func (f *planning) job() (plan.Job, plan.Shop, error) {
	g, err := f.read()
	if err != nil {
		return plan.Job{}, plan.Shop{}, err
	}
	step, err := measure.ParseStep(f.step)
	if err != nil {
		return plan.Job{}, plan.Shop{}, fmt.Errorf("--step: %w", err)
	}
	shop := plan.Shop{Tools: []plan.Tool{{ID: "given", Name: "given kerf", Kerf: g.saw.Kerf, Stop: f.stop}}, Haul: g.haul}
	fillShop(&shop, &g)
	return plan.Job{Tool: "given", Step: step, EndTrim: g.trim, Keep: g.keep}, shop, nil
}

// open reads the flags, and the file that a frame is in.
func (f *planning) open(c *cobra.Command, file string) (plan.Job, plan.Shop, []byte, error) {
	job, shop, err := f.job()
	if err != nil {
		return job, shop, nil, err
	}
	data, err := readFile(c, file)
	return job, shop, data, failed(err)
}

// print plans a frame and prints what the flags ask for.
func (f *planning) print(c *cobra.Command, job plan.Job, shop plan.Shop, doc *frame.Document, copies int) error {
	job.Frames = []plan.FrameUse{{Document: *doc, Copies: copies}}
	p, err := plan.Make(c.Context(), job, shop, plan.Work{})
	if err == nil && f.search > 0 && !p.Totals.Proven {
		p, err = f.improved(c, job, shop)
	}
	if err != nil {
		return failed(inFile(c.Flags().Arg(0), err))
	}
	out := c.OutOrStdout()
	if f.savings {
		found, err := plan.FindSavings(c.Context(), job, shop, plan.Work{}, f.typed)
		if err != nil {
			return failed(inFile(c.Flags().Arg(0), err))
		}
		if f.json {
			return failed(printJSON(out, found))
		}
		printSavings(newPaper(out), found)
		return nil
	}
	if f.mistakes {
		var all []procure.Mistakes
		for i := range p.Pipe {
			m, err := p.Pipe[i].Mistakes(c.Context())
			if err != nil {
				return failed(err)
			}
			all = append(all, m)
		}
		if f.json {
			return failed(printJSON(out, all))
		}
		for _, m := range all {
			printMistakes(newPaper(out), m)
		}
		return nil
	}
	switch {
	case f.summary:
		return failed(printJSON(out, p.Summarize()))
	case f.json:
		return failed(printJSON(out, p))
	}
	printPlan(newPaper(out), p)
	for _, n := range p.Findings {
		if n.Severity == finding.Stop {
			return &exitError{code: 3}
		}
	}
	return nil
}

// improved goes on with the search for as long as the flag says.
func (f *planning) improved(c *cobra.Command, job plan.Job, shop plan.Shop) (*plan.Plan, error) {
	ctx, stop := context.WithTimeout(c.Context(), f.search)
	defer stop()
	err := plan.Improve(ctx, job, shop, plan.Work{}, func(now plan.Progress) {
		job.Searched = nil
		for _, s := range now.Sizes {
			job.Searched = append(job.Searched, s.Search)
		}
	})
	if err != nil {
		return nil, err
	}
	return plan.Make(c.Context(), job, shop, plan.Work{})
}

func planCommand() *cobra.Command {
	var f planning
	c := &cobra.Command{
		Use: "plan FILE", Short: "Plan a wireframe file (- reads standard input)", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			job, shop, data, err := f.open(c, args[0])
			if err != nil {
				return err
			}
			doc, err := wireframe.Read(data)
			if err != nil {
				return failed(inFile(args[0], err))
			}
			return f.print(c, job, shop, doc, 1)
		},
	}
	f.add(c)
	return c
}
