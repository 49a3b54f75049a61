package catalog

import (
	"embed"
	"encoding/csv"
	"fmt"
	"strconv"

	"sturdyelbow/core/measure"
)

//go:embed data/*.csv
var data embed.FS

// rows reads an embedded table; a broken table is a broken build, so it
// panics with the file, line and column.
func rows(name string, each func(size Size, cell func(column string) string)) {
	f, err := data.Open("data/" + name)
	if err != nil {
		panic(err)
	}
	defer f.Close()
	all, err := csv.NewReader(f).ReadAll()
	if err != nil {
		panic(fmt.Sprintf("%s: %v", name, err))
	}
	at := map[string]int{}
	for i, h := range all[0] {
		at[h] = i
	}
	for n, row := range all[1:] {
		each(Size(row[0]), func(column string) string {
			i, ok := at[column]
			if !ok {
				panic(fmt.Sprintf("%s line %d: no column %s", name, n+2, column))
			}
			return row[i]
		})
	}
}

func number(text string) float64 {
	v, err := strconv.ParseFloat(text, 64)
	if err != nil {
		panic(err)
	}
	return v
}

// typical is the catalog as shipped, read once.
var typical = func() *Catalog {
	c := &Catalog{pipes: map[Size]Pipe{}, figures: map[figureKey]Figure{}, perQuart: map[Size]int{}}
	rows("pipe_sch40_in.csv", func(s Size, cell func(string) string) {
		in := func(column string) measure.Length { return measure.FromInches(number(cell(column))) }
		c.pipes[s] = Pipe{
			Size: s, OutsideDiameter: in("outside_diameter"), WallMin: in("wall_min"),
			InsideDiameter: in("inside_diameter_avg"), PoundsPerFoot: number(cell("weight_lb_per_ft")), Note: cell("stock_note"),
		}
	})
	rows("fitting_sch40_in.csv", func(s Size, cell func(string) string) {
		for _, f := range Fields() {
			if f == OutsideDiameter {
				continue
			}
			c.figures[figureKey{"", s, f}] = Figure{Value: measure.FromInches(number(cell(string(f))))}
		}
		c.figures[figureKey{"", s, OutsideDiameter}] = Figure{Value: c.pipes[s].OutsideDiameter}
	})
	rows("cement_joints_per_quart.csv", func(s Size, cell func(string) string) {
		c.perQuart[s] = int(number(cell("joints")))
	})
	return c.index()
}()
