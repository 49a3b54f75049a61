package main

import (
	"errors"
	"fmt"
	"strconv"
	"strings"
	"time"

	"github.com/spf13/cobra"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/core/stock"
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
