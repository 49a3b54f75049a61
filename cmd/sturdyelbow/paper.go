package main

import (
	"cmp"
	"fmt"
	"io"
	"os"
	"strings"
	"text/tabwriter"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
)

// paper prints aligned columns, coloured only on a terminal.
type paper struct {
	out    io.Writer
	w      *tabwriter.Writer
	colour bool
}

func newPaper(out io.Writer) *paper {
	p := &paper{out: out, w: tabwriter.NewWriter(out, 0, 4, 2, ' ', 0)}
	if f, ok := out.(*os.File); ok && os.Getenv("NO_COLOR") == "" {
		st, err := f.Stat()
		p.colour = err == nil && st.Mode()&os.ModeCharDevice != 0
	}
	return p
}

func (p *paper) row(cells ...any) {
	for i, c := range cells {
		if i > 0 {
			fmt.Fprint(p.w, "\t")
		}
		fmt.Fprint(p.w, c)
	}
	fmt.Fprintln(p.w)
}

func (p *paper) flush() {
	if err := p.w.Flush(); err != nil {
		fmt.Fprintln(os.Stderr, err)
	}
}

// line prints outside the columns, in a colour on a terminal.
func (p *paper) line(colour, format string, args ...any) {
	p.flush()
	text := fmt.Sprintf(format, args...)
	if p.colour && colour != "" {
		text = "\x1b[" + colour + "m" + text + "\x1b[0m"
	}
	fmt.Fprintln(p.out, text)
}

func (p *paper) head(format string, args ...any) { p.line("1", format, args...) }
func (p *paper) bad(format string, args ...any)  { p.line("31", format, args...) }

func printPlan(w *paper, p *plan.Plan) {
	f := p.Frames[0]
	var size []string
	for _, e := range f.Overall {
		size = append(size, e.Size.Format(measure.InInches, p.Step))
	}
	w.head("%s: %s outside", cmp.Or(f.Name, "Frame"), strings.Join(size, " × "))
	for _, s := range f.Seated {
		w.row(
			"  "+s.Text,
			s.Size[0].Format(measure.InInches, p.Step),
			s.Size[1].Format(measure.InInches, p.Step),
			s.Size[2].Format(measure.InInches, p.Step),
		)
	}
	w.head("\nCut")
	for _, g := range p.Cuts {
		w.row("  "+g.Letter, g.Count, "×", g.Cut.Format(measure.InInches, 0), string(g.Size)+" pipe", g.Note())
	}
	w.head("\nFittings")
	for _, c := range p.Fittings {
		w.row("  ", c.Count, "×", c.Size, c.Kind)
	}
	for _, t := range p.Pipe {
		w.line("", "")
		printSticks(w, t.Answer(), p.Tool.Kerf)
	}
	w.head("\nJoints")
	w.row("  cemented", p.Joinery.Cemented)
	w.row("  dry", p.Joinery.Dry)
	if p.Bill.Total > 0 {
		w.head("\nCost")
		for _, l := range p.Bill.Lines {
			if l.Priced {
				w.row("  ", l.Count, "×", l.Label, l.Amount)
			}
		}
		w.row("  ", "", "", "total of what has a price", p.Bill.Total)
	}
	w.flush()
	if len(p.Findings) > 0 {
		w.head("\nFindings")
	}
	for _, n := range p.Findings {
		colour := map[finding.Severity]string{finding.Stop: "31", finding.Warn: "33"}[n.Severity]
		w.line(colour, "  %s: %s; %s", n.Severity, n.Text, n.Hint)
	}
}

func printSticks(w *paper, m stock.Material, kerf measure.Length) {
	proof := "best found, not proven"
	if m.Proven {
		proof = "proven least"
	}
	cost := ""
	if m.Priced {
		cost = ", " + m.Cost.String()
	}
	w.head("%s pipe: %d to buy, %s ft%s (%s), %d cuts", m.Key, m.Count, feet(m.Bought), cost, proof, m.Cuts)
	for i, s := range m.Sticks {
		var pieces []string
		for _, pc := range s.Pieces {
			pieces = append(pieces, strings.TrimSpace(pc.Name+" "+pc.Length.Format(measure.InInches, 0)))
		}
		left := "left " + s.Left.Format(measure.InInches, measure.Inch/16)
		if s.Edge {
			left += ", on a knife edge"
		}
		for k, at := range s.Marks(kerf) {
			if k == 0 {
				left += "; cut in the shop at"
			}
			left += " " + at.Format(measure.InInches, measure.Inch/16)
		}
		shown, from := []string{}, 0
		for _, p := range s.Parts { // what is carried apart stands apart
			shown, from = append(shown, strings.Join(pieces[from:from+p.Pieces], " · ")), from+p.Pieces
		}
		shown = append(shown, strings.Join(pieces[from:], " · "))
		if len(s.Parts) > 0 {
			shown = shown[:len(shown)-1]
		}
		w.row(fmt.Sprintf("  %d", i+1), s.Length.Format(measure.FeetInches, 0), strings.Join(shown, " | "), left)
	}
	w.flush()
}

func feet(l measure.Length) string {
	return strings.TrimSuffix(strings.TrimRight(fmt.Sprintf("%.2f", l.Feet()), "0"), ".")
}
