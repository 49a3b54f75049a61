package suppliers

import (
	"context"
	"errors"
	"slices"
	"time"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/cost"
	"sturdyelbow/core/material"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/supply"
)

// Mood is how a simulated shop behaves, for tests and to see how the page takes it.
type Mood string

// The moods.
const (
	Well   Mood = ""
	Slow   Mood = "slow"         // it takes longer than anybody waits
	Down   Mood = "down"         // it refuses
	Out    Mood = "out of stock" // of every fitting there is one
	Dearer Mood = "dearer"       // its prices changed since
)

// Example is a simulated shop.
type Example struct {
	Mood   Mood
	shop   supply.Supplier
	offers func(p cost.Price) []supply.Offer
	now    func() time.Time
}

// Examples are the three simulated shops: a hardware barn, a plumbing counter, and a mail-order house for
// furniture-grade fittings. Names, prices and stock are invented; the prices follow the program's own
// example prices.
func Examples() []*Example {
	return []*Example{
		{
			shop:   supply.Supplier{ID: "example-barn", Name: "Mill Lane Barn", About: "a hardware barn: what is usual, in packs"},
			offers: barn, now: time.Now,
		},
		{
			shop: supply.Supplier{
				ID:    "example-counter",
				Name:  "Quay Street Counter",
				About: "a plumbing counter: long sticks, every size",
				Days:  1,
			},
			offers: counter, now: time.Now,
		},
		{
			shop: supply.Supplier{
				ID: "example-mail", Name: "Longmeadow by Mail", About: "furniture-grade fittings by mail", Days: 6, Shipping: 12_95, FreeFrom: 150_00,
			},
			offers: mail, now: time.Now,
		},
	}
}

// ID names it.
func (e *Example) ID() string { return e.shop.ID }

// Name is the shop's.
func (e *Example) Name() string { return e.shop.Name }

// errDown is what a shop that is down says.
var errDown = errors.New("it does not answer now")

// Ask gives what it sells, as its mood is.
func (e *Example) Ask(ctx context.Context) (supply.Supplier, error) {
	switch e.Mood {
	case Slow:
		<-ctx.Done()
		return supply.Supplier{}, ctx.Err()
	case Down:
		return supply.Supplier{}, errDown
	}
	s := e.shop
	s.Example, s.Date = true, e.now().Format(time.DateOnly)
	book := cost.Example()
	for _, p := range book.Prices {
		for _, o := range e.offers(p) {
			if e.Mood == Dearer {
				o.Amount = o.Amount.Share(1.25)
			}
			if e.Mood == Out && o.Ware == material.Fitting {
				o.Stock, o.Pack = 1, 0
			}
			s.Offers = append(s.Offers, o)
		}
	}
	return s, nil
}

// furniture says whether a fitting is of the sort that hardware shops seldom have.
func furniture(kind string) bool {
	return slices.Contains(
		[]catalog.Kind{catalog.SideOutletElbow, catalog.SideOutletTee, catalog.SideOutletCross, catalog.SixWay},
		catalog.Kind(kind),
	)
}

func usual(size string) bool {
	return slices.Contains([]string{"1/2", "3/4", "1", "1-1/4", "1-1/2", "2"}, size)
}

func offer(s material.Spec, amount measure.Money, pack, stock int) supply.Offer {
	return supply.Offer{Spec: s, Asked: cost.Asked{Amount: amount, Pack: pack}, Stock: stock}
}

func barn(p cost.Price) []supply.Offer {
	switch {
	case p.Ware == material.Fitting && furniture(p.Kind) || p.Size != "" && !usual(p.Size) || p.Kind == "one-step":
		return nil
	case p.Ware == material.Fitting:
		all := []supply.Offer{offer(p.Spec, p.Amount, 0, 40)}
		if p.Kind == string(catalog.Tee) || p.Kind == string(catalog.Elbow90) || p.Kind == string(catalog.Coupling) ||
			p.Kind == string(catalog.Cap) {
			all = append(all, offer(p.Spec, p.Amount.Times(8), 10, 0))
		}
		return all
	case p.Ware == material.Pipe:
		return []supply.Offer{offer(p.Spec, p.Amount, 0, 60)}
	}
	return []supply.Offer{offer(p.Spec, p.Amount, 0, 0)}
}

func counter(p cost.Price) []supply.Offer {
	switch {
	case p.Ware == material.Fitting && furniture(p.Kind):
		return nil
	case p.Ware == material.Pipe && p.Length == 10*measure.Foot:
		long := p.Spec
		long.Length = 20 * measure.Foot
		return []supply.Offer{offer(p.Spec, p.Amount.Share(0.97), 0, 0), offer(long, p.Amount.Share(1.86), 0, 0)}
	case p.Ware == material.Pipe:
		return nil
	case p.Ware == material.Fitting:
		return []supply.Offer{offer(p.Spec, p.Amount.Share(1.12), 0, 0)}
	}
	return []supply.Offer{offer(p.Spec, p.Amount.Share(1.05), 0, 0)}
}

func mail(p cost.Price) []supply.Offer {
	switch {
	case p.Ware == material.Pipe && p.Length == 5*measure.Foot && usual(p.Size):
		return []supply.Offer{offer(p.Spec, p.Amount.Share(1.4), 0, 0)}
	case p.Ware == material.Fitting && furniture(p.Kind):
		return []supply.Offer{offer(p.Spec, p.Amount.Share(0.92), 0, 0)}
	case p.Ware == material.Fitting && usual(p.Size):
		return []supply.Offer{offer(p.Spec, p.Amount.Share(0.95), 0, 0), offer(p.Spec, p.Amount.Share(0.95).Times(9), 10, 0)}
	}
	return nil
}
