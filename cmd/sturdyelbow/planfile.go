package main

import (
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/export"
)

// cutting are the flags that say what is cut from what.
type cutting struct {
	kerf    string
	stock   []string
	trim    string
	summary bool
	json    bool
}

func (f *cutting) add(c *cobra.Command) {
	c.Flags().StringVar(&f.kerf, "kerf", "0", "width of the cut, as written: 0.125 or 1/8")
	c.Flags().StringArrayVar(&f.stock, "stock", nil, "stick length, LENGTH or LENGTH@CENTS; repeat for several (default 120)")
	c.Flags().StringVar(&f.trim, "trim", "0", "cut off the end of every stick first")
	c.Flags().BoolVar(&f.summary, "summary", false, "print the exchange form's summary as JSON")
	c.Flags().BoolVar(&f.json, "json", false, "print the whole plan as JSON")
	c.MarkFlagsMutuallyExclusive("summary", "json")
}

// stick is one --stock flag.
type stick struct {
	length measure.Length
	price  measure.Money
	priced bool
}

func (f *cutting) read() (kerf, trim measure.Length, sticks []stick, err error) {
	length := func(flag, text string, limit measure.Length) (measure.Length, error) {
		l, err := measure.Parse(text, measure.Reading{Limit: limit})
		if err != nil {
			return 0, fmt.Errorf("--%s: %w", flag, err)
		}
		return l, nil
	}
	if kerf, err = length("kerf", f.kerf, measure.Inch); err != nil {
		return
	}
	if trim, err = length("trim", f.trim, measure.Foot); err != nil {
		return
	}
	given := f.stock
	if len(given) == 0 {
		given = []string{"120"}
	}
	for _, s := range given {
		text, cents, priced := strings.Cut(s, "@")
		st := stick{priced: priced}
		if st.length, err = length("stock", text, plan.StockLimit); err != nil {
			return
		}
		if st.length == 0 {
			return 0, 0, nil, fmt.Errorf("--stock %q: a stick of no length", s)
		}
		if priced {
			var n int64
			if _, e := fmt.Sscanf(cents+"\n", "%d\n", &n); e != nil || n < 0 || n > 100_000_00 {
				return 0, 0, nil, fmt.Errorf("--stock %q: %q is not a price; write whole cents, like 120@498", s, cents)
			}
			st.price = measure.Money(n)
		}
		sticks = append(sticks, st)
	}
	return
}

// planning are the flags that say how a frame is planned.
type planning struct {
	cutting
	step string
}

func (f *planning) add(c *cobra.Command) {
	f.cutting.add(c)
	c.Flags().StringVar(&f.step, "step", "1/16", "step of the tape: 1/16, 1/32, 1 mm")
}

// job reads the flags: how a frame is planned, and what is on sale for it.
func (f *planning) job() (plan.Job, plan.Shop, error) {
	kerf, trim, sticks, err := f.read()
	if err != nil {
		return plan.Job{}, plan.Shop{}, err
	}
	step, err := measure.ParseStep(f.step)
	if err != nil {
		return plan.Job{}, plan.Shop{}, fmt.Errorf("--step: %w", err)
	}
	shop := plan.Shop{Tools: []plan.Tool{{ID: "given", Name: "given kerf", Kerf: kerf}}}
	fillShop(&shop, sticks)
	return plan.Job{Tool: "given", Step: step, EndTrim: trim}, shop, nil
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
func (f *planning) print(c *cobra.Command, job plan.Job, shop plan.Shop, doc *frame.Document) error {
	job.Frames = []plan.FrameUse{{Document: *doc, Copies: 1}}
	p, err := plan.Make(c.Context(), job, shop, plan.Work{})
	if err != nil {
		return failed(inFile(c.Flags().Arg(0), err))
	}
	out := c.OutOrStdout()
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
			return f.print(c, job, shop, doc)
		},
	}
	f.add(c)
	return c
}

// fillShop sells the given sticks in every size, at the given prices.
func fillShop(shop *plan.Shop, sticks []stick) {
	for _, s := range sticks {
		shop.Stock = append(shop.Stock, plan.StockLength{Length: s.length})
		if !s.priced {
			continue
		}
		shop.Prices.AllSizes(s.length, s.price)
	}
}

func cutCommand() *cobra.Command {
	var f cutting
	c := &cobra.Command{
		Use: "cut FILE.csv", Short: "Plan the cutting of a list: size,length,count (- reads standard input)", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			kerf, trim, sticks, err := f.read()
			if err != nil {
				return err
			}
			data, err := readFile(c, args[0])
			if err != nil {
				return failed(err)
			}
			prob := stock.Problem{Kerf: kerf, EndTrim: trim, Tidy: true, Margin: kerf}
			if prob.Demands, err = export.ReadCutList(string(data), measure.Inches); err != nil {
				return failed(inFile(args[0], err))
			}
			seen := map[string]bool{}
			for _, d := range prob.Demands {
				if seen[d.Material] {
					continue
				}
				seen[d.Material] = true
				for _, s := range sticks {
					prob.Offers = append(
						prob.Offers,
						stock.Offer{Material: d.Material, Length: s.length, Price: s.price, Priced: s.priced, Origin: stock.Shop},
					)
				}
			}
			ms, err := stock.Solve(c.Context(), prob)
			if err != nil {
				return err
			}
			out := c.OutOrStdout()
			switch {
			case f.summary:
				return failed(printJSON(out, summarizeCut(ms)))
			case f.json:
				return failed(printJSON(out, ms))
			}
			paper := newPaper(out)
			for _, m := range ms {
				printSticks(paper, m)
				for _, d := range m.TooLong {
					paper.bad("%d of %s %s: longer than all stock", prob.Demands[d].Count, m.Key, prob.Demands[d].Length)
					err = &exitError{code: 3}
				}
			}
			paper.flush()
			return err
		},
	}
	f.add(c)
	return c
}

// cutSummary is the exchange form's summary of a cutting plan.
type cutSummary struct {
	Sticks    []cutStick        `json:"sticks"`
	Buy       []plan.SummaryBuy `json:"buy"`
	CostCents *int64            `json:"cost_cents"`
	Bound     any               `json:"bound"`
	Proven    bool              `json:"proven"`
	Warnings  [][]string        `json:"warnings"`
}

type cutStick struct {
	Size    string    `json:"size"`
	StockIn float64   `json:"stock_in"`
	Pieces  []float64 `json:"pieces"`
	LeftIn  float64   `json:"left_in"` // stick − end trim − pieces − the kerfs between them
}

func summarizeCut(ms []stock.Material) cutSummary {
	s := cutSummary{Sticks: []cutStick{}, Warnings: [][]string{}}
	for _, m := range ms {
		for _, st := range m.Sticks {
			c := cutStick{Size: m.Key, StockIn: st.Length.Inches(), LeftIn: st.Slack.Inches()}
			for _, pc := range st.Pieces {
				c.Pieces = append(c.Pieces, pc.Length.Inches())
			}
			s.Sticks = append(s.Sticks, c)
		}
		if len(m.TooLong) > 0 {
			s.Warnings = append(s.Warnings, []string{"no-stock", m.Key})
		}
	}
	s.Buy, s.CostCents, s.Bound, s.Proven = plan.SummarizeStock(ms)
	return s
}

func readFile(c *cobra.Command, name string) ([]byte, error) {
	if name == "-" {
		return io.ReadAll(c.InOrStdin())
	}
	data, err := os.ReadFile(name)
	var pe *os.PathError
	if errors.As(err, &pe) {
		return nil, fmt.Errorf("%s: %w", name, pe.Err)
	}
	return data, err
}

// inFile puts the file's name and, where known, the line before each error.
func inFile(name string, err error) error {
	var lines []string
	var we wireframe.Errors
	var le export.LineErrors
	switch {
	case errors.As(err, &we):
		for _, e := range we {
			lines = append(lines, fmt.Sprintf("%s:%d: %s: %s; %s", name, e.Line, e.Path, e.What, e.Hint))
		}
	case errors.As(err, &le):
		for _, e := range le {
			lines = append(lines, fmt.Sprintf("%s:%d: %s: %s; %s", name, e.Line, e.Column, e.What, e.Hint))
		}
	default:
		for l := range strings.SplitSeq(err.Error(), "\n") {
			lines = append(lines, name+": "+l)
		}
	}
	return errors.New(strings.Join(lines, "\n"))
}

func printJSON(w io.Writer, v any) error {
	e := json.NewEncoder(w)
	e.SetIndent("", " ")
	e.SetEscapeHTML(false)
	return e.Encode(v)
}
