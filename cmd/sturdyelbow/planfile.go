package main

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"os"
	"slices"
	"strconv"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/finding"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/procure"
	"sturdyelbow/core/stock"
	"sturdyelbow/core/wireframe"
	"sturdyelbow/internal/export"
)

// cutting are the flags that say what is cut from what.
type cutting struct {
	kerf      string
	stop      bool
	stock     []string
	offcuts   []string
	trim      string
	haul      string
	shopError string
	freeCuts  int
	cutPrice  int64
	search    time.Duration
	keep      string
	mistakes  bool
	summary   bool
	json      bool
}

func (f *cutting) add(c *cobra.Command) {
	c.Flags().StringVar(&f.kerf, "kerf", "0", "width of the cut, as written: 0.125 or 1/8")
	c.Flags().BoolVar(&f.stop, "stop", false, "pieces are cut against a stop, and not to a mark")
	c.Flags().
		StringArrayVar(&f.stock, "stock", nil, "stick length, LENGTH or LENGTH@CENTS; LENGTH=TRUE where it measures otherwise, LENGTHxCOUNT where there are only so many; repeat for several (default 120)")
	c.Flags().
		StringArrayVar(&f.offcuts, "offcut", nil, "length that is there, LENGTH, LENGTHxCOUNT or LENGTH@CENTS where using it up costs something; repeat for several")
	c.Flags().StringVar(&f.haul, "haul", "", "longest length that is carried; longer sticks are cut in the shop")
	c.Flags().StringVar(&f.shopError, "shop-error", "0.125", "what a cut in the shop may be off by, with --haul")
	c.Flags().IntVar(&f.freeCuts, "free-cuts", 0, "cuts in the shop that cost nothing, with --haul")
	c.Flags().Int64Var(&f.cutPrice, "cut-price", 0, "cents for each cut in the shop beyond these")
	c.Flags().DurationVar(&f.search, "search", 0, "go on with the search for the best for so long, like 30s, where it is not proven")
	c.Flags().StringVar(&f.keep, "keep", "", "an earlier plan, as --json printed it: sticks are cut as in it where that costs nothing")
	c.Flags().BoolVar(&f.mistakes, "mistakes", false, "print what each spoilt cut would cost, and the safest order")
	c.Flags().StringVar(&f.trim, "trim", "0", "cut off the end of every stick first")
	c.Flags().BoolVar(&f.summary, "summary", false, "print the exchange form's summary as JSON")
	c.Flags().BoolVar(&f.json, "json", false, "print the whole plan as JSON")
	c.MarkFlagsMutuallyExclusive("summary", "json")
}

// stick is one --stock or --offcut flag.
type stick struct {
	length, usable measure.Length
	price          measure.Money
	priced         bool
	count          int
}

// given is what the flags say.
type given struct {
	saw             stock.Saw
	trim            measure.Length
	haul            *stock.Haul
	keep            []stock.Kept
	sticks, offcuts []stick
}

func lengthFlag(flag, text string, limit measure.Length) (measure.Length, error) {
	l, err := measure.Parse(text, measure.Reading{Limit: limit})
	if err != nil {
		return 0, fmt.Errorf("--%s: %w", flag, err)
	}
	return l, nil
}

func (f *cutting) read() (g given, err error) {
	tool := plan.Tool{Stop: f.stop}
	if tool.Kerf, err = lengthFlag("kerf", f.kerf, measure.Inch); err != nil {
		return g, err
	}
	g.saw = tool.Saw()
	if g.trim, err = lengthFlag("trim", f.trim, measure.Foot); err != nil {
		return g, err
	}
	if f.haul != "" {
		if g.haul, err = f.readHaul(); err != nil {
			return g, err
		}
	} else if f.freeCuts != 0 || f.cutPrice != 0 {
		return g, errors.New("--free-cuts and --cut-price are of cuts in the shop: say with --haul how much is carried")
	}
	if f.keep != "" {
		if g.keep, err = readKept(f.keep); err != nil {
			return g, err
		}
	}
	sticks := f.stock
	if len(sticks) == 0 {
		sticks = []string{"120"}
	}
	for _, text := range sticks {
		s, err := readStick("stock", text)
		if err != nil {
			return g, err
		}
		g.sticks = append(g.sticks, s)
	}
	for _, text := range f.offcuts {
		s, err := readStick("offcut", text)
		if err != nil {
			return g, err
		}
		s.count = max(1, s.count)
		g.offcuts = append(g.offcuts, s)
	}
	return g, nil
}

func (f *cutting) readHaul() (*stock.Haul, error) {
	h := &stock.Haul{Free: f.freeCuts, Price: measure.Money(f.cutPrice)}
	var err error
	if h.Limit, err = lengthFlag("haul", f.haul, plan.StockLimit); err != nil {
		return nil, err
	}
	if h.Error, err = lengthFlag("shop-error", f.shopError, measure.Foot); err != nil {
		return nil, err
	}
	switch {
	case h.Limit == 0:
		return nil, errors.New("--haul 0: nothing can be carried; leave it out where anything can")
	case f.freeCuts < 0:
		return nil, fmt.Errorf("--free-cuts %d: write how many cuts cost nothing, from 0", f.freeCuts)
	case f.cutPrice < 0 || f.cutPrice > mostCents:
		return nil, fmt.Errorf("--cut-price %d: write whole cents, like 50", f.cutPrice)
	}
	return h, nil
}

const mostCents = 100_000_00

// readStick reads LENGTH, with =TRUE, xCOUNT and @CENTS behind it where they are said.
func readStick(flag, text string) (s stick, err error) {
	rest, cents, priced := strings.Cut(text, "@")
	if s.priced = priced; priced {
		var n int64
		if _, e := fmt.Sscanf(cents+"\n", "%d\n", &n); e != nil || n < 0 || n > mostCents {
			return s, fmt.Errorf("--%s %q: %q is not a price; write whole cents, like 120@498", flag, text, cents)
		}
		s.price = measure.Money(n)
	}
	if at := strings.LastIndexByte(rest, 'x'); at > 0 {
		n, e := strconv.Atoi(strings.TrimSpace(rest[at+1:]))
		if e != nil || n < 1 || n > 10_000 {
			return s, fmt.Errorf("--%s %q: %q is not a number of sticks; write a whole number, like 120x3", flag, text, rest[at+1:])
		}
		s.count, rest = n, rest[:at]
	}
	named, measured, other := strings.Cut(rest, "=")
	if s.length, err = lengthFlag(flag, named, plan.StockLimit); err != nil {
		return s, err
	}
	if s.usable = s.length; other {
		if s.usable, err = lengthFlag(flag, measured, plan.StockLimit); err != nil {
			return s, err
		}
	}
	if s.length == 0 || s.usable == 0 {
		return s, fmt.Errorf("--%s %q: a stick of no length", flag, text)
	}
	return s, nil
}

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
func (f *planning) print(c *cobra.Command, job plan.Job, shop plan.Shop, doc *frame.Document) error {
	job.Frames = []plan.FrameUse{{Document: *doc, Copies: 1}}
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
			return f.print(c, job, shop, doc)
		},
	}
	f.add(c)
	return c
}

// fillShop sells the given sticks in every size, at the given prices, and has the offcuts in
// every size, too.
func fillShop(shop *plan.Shop, g *given) {
	for _, s := range g.sticks {
		l := plan.StockLength{Length: s.length, Count: s.count}
		if s.usable != s.length {
			l.True = s.usable
		}
		shop.Stock = append(shop.Stock, l)
		if s.priced {
			shop.Prices.AllSizes(s.length, s.price)
		}
	}
	for _, s := range g.offcuts {
		for _, size := range catalog.Sizes() {
			shop.Rack = append(shop.Rack, plan.Offcut{Size: size, Length: s.usable, Count: s.count, Worth: s.price})
		}
	}
}

func cutCommand() *cobra.Command {
	var f cutting
	c := &cobra.Command{
		Use: "cut FILE.csv", Short: "Plan the cutting of a list: size,length,count (- reads standard input)", Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			g, err := f.read()
			if err != nil {
				return err
			}
			data, err := readFile(c, args[0])
			if err != nil {
				return failed(err)
			}
			prob := stock.Problem{Saw: g.saw, EndTrim: g.trim, Haul: g.haul, Keep: g.keep, Tidy: true}
			if prob.Demands, err = export.ReadCutList(string(data), measure.Inches); err != nil {
				return failed(inFile(args[0], err))
			}
			seen := map[string]bool{}
			for _, d := range prob.Demands {
				if !seen[d.Material] {
					seen[d.Material] = true
					prob.Offers = append(prob.Offers, g.offers(d.Material)...)
				}
			}
			ms, err := f.solve(c.Context(), prob)
			if err != nil {
				return err
			}
			out := c.OutOrStdout()
			if f.mistakes {
				return failed(printCutMistakes(c.Context(), out, &prob, ms, f.json))
			}
			switch {
			case f.summary:
				return failed(printJSON(out, summarizeCut(&prob, ms)))
			case f.json:
				return failed(printJSON(out, ms))
			}
			paper := newPaper(out)
			for _, m := range ms {
				printSticks(paper, m, prob.Saw.Kerf)
				for _, l := range m.Lacking {
					why := "longer than all stock"
					switch {
					case g.haul != nil && prob.Demands[l.Demand].Length > g.haul.Limit-g.haul.Error:
						why = "longer than what is carried"
					case prob.Demands[l.Demand].Length <= longest(prob.Offers):
						why = "not enough sticks"
					}
					paper.bad("%d of %s %s: %s", l.Count, m.Key, prob.Demands[l.Demand].Length, why)
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

// solve plans the cutting, and goes on with the search for as long as the flag says.
func (f *cutting) solve(ctx context.Context, p stock.Problem) ([]stock.Material, error) {
	ms, err := stock.Solve(ctx, p)
	if err != nil || f.search <= 0 || !slices.ContainsFunc(ms, func(m stock.Material) bool { return !m.Proven }) {
		return ms, err
	}
	ctx, stop := context.WithTimeout(ctx, f.search)
	defer stop()
	better, err := stock.Improve(ctx, p, func([]stock.Material) {})
	if len(better) == 0 {
		return ms, err
	}
	return better, err
}

// offers are the sticks of a material that the flags give.
func (g *given) offers(material string) (all []stock.Offer) {
	for _, s := range g.sticks {
		all = append(all, stock.Offer{
			Material: material, Length: s.usable, Sold: s.length, Price: s.price, Priced: s.priced, Count: s.count, Origin: stock.Shop,
		})
	}
	for _, s := range g.offcuts {
		all = append(
			all,
			stock.Offer{Material: material, Length: s.usable, Price: s.price, Priced: s.priced, Count: s.count, Origin: stock.Rack},
		)
	}
	return all
}

func longest(offers []stock.Offer) (l measure.Length) {
	for _, o := range offers {
		l = max(l, o.Length)
	}
	return l
}

// cutSummary is the exchange form's summary of a cutting plan.
type cutSummary struct {
	Sticks    []cutStick        `json:"sticks"`
	Buy       []plan.SummaryBuy `json:"buy"`
	CostCents *int64            `json:"cost_cents"`
	Bound     any               `json:"bound"`
	Proven    bool              `json:"proven"`
	Warnings  [][]any           `json:"warnings"`
	*plan.SummaryHaul
}

type cutStick struct {
	Size    string    `json:"size"`
	StockIn float64   `json:"stock_in"`
	Pieces  []float64 `json:"pieces"`
	LeftIn  float64   `json:"left_in"` // stick − end trim − pieces − the kerfs between them
}

func summarizeCut(p *stock.Problem, ms []stock.Material) cutSummary {
	s := cutSummary{Sticks: []cutStick{}, Warnings: [][]any{}}
	for _, m := range ms {
		for _, st := range m.Sticks {
			left := st.Length - p.EndTrim - p.Saw.Kerf*measure.Length(len(st.Pieces)-1)
			c := cutStick{Size: m.Key, StockIn: st.Length.Inches()}
			for _, pc := range st.Pieces {
				c.Pieces = append(c.Pieces, pc.Length.Inches())
				left -= pc.Length
			}
			c.LeftIn = left.Inches()
			s.Sticks = append(s.Sticks, c)
		}
		s.Warnings = append(s.Warnings, plan.WarnOfLack(p, m)...)
	}
	s.Buy, s.CostCents, s.Bound, s.Proven = plan.SummarizeStock(ms)
	if p.Haul != nil {
		s.SummaryHaul = plan.SummarizeHaul(ms, p.Saw.Kerf)
	}
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
