package export

import (
	"cmp"
	"fmt"
	"strings"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/pieces"
	"sturdyelbow/core/stock"
)

// LineError is what is wrong with one line of a list.
type LineError struct {
	Line   int    `json:"line"`   // from 1
	Column string `json:"column"` // size, length or count
	What   string `json:"what"`
	Hint   string `json:"hint"`
}

// LineErrors is everything wrong with a list; it is an error.
type LineErrors []LineError

func (es LineErrors) Error() string {
	var ss []string
	for _, e := range es {
		ss = append(ss, fmt.Sprintf("line %d, %s: %s; %s", e.Line, e.Column, e.What, e.Hint))
	}
	return strings.Join(ss, "\n")
}

// ReadCutList reads a list of cuts, as [pieces.Read] does, into what is to be cut; pieces without
// a size are of "pipe". The error is a [LineErrors] of every line that cannot be read.
func ReadCutList(text string, unit measure.Unit) ([]stock.Demand, error) {
	rows := pieces.Read(text, unit)
	var errs LineErrors
	for _, r := range rows {
		if f := r.Fault; f != nil {
			errs = append(errs, LineError{r.Line, f.Column, f.What, f.Hint})
		}
	}
	if len(rows) == 0 {
		errs = LineErrors{{1, "line", "no pieces", "write one piece a line, like 3/4, 23 5/8, 4"}}
	}
	if len(errs) > 0 {
		return nil, errs
	}
	return Demands(rows), nil
}

// Demands are the pieces of the lines that could be read.
func Demands(rows []pieces.Row) (all []stock.Demand) {
	for _, r := range rows {
		if r.Fault == nil {
			all = append(all, stock.Demand{Material: cmp.Or(r.Size, "pipe"), Length: r.Length, Least: r.Least, Count: r.Count})
		}
	}
	return all
}
