package server

import (
	"cmp"
	"context"
	"slices"

	"sturdyelbow/core/measure"
	"sturdyelbow/core/plan"
	"sturdyelbow/internal/store"
)

// OnRack is a piece of pipe on the rack, and what could be cut from it.
type OnRack struct {
	plan.Offcut
	Uses []RackUse `json:"uses"` // the piece of each project that leaves least of it, the least first
}

// RackUse is a piece of a project that a piece of pipe on the rack holds.
type RackUse struct {
	Project string         `json:"project"`
	Name    string         `json:"name"`
	Letter  string         `json:"letter"`
	Length  measure.Length `json:"length"`
	Left    measure.Length `json:"left"`
}

// mostUses is how many projects are told for one piece.
const mostUses = 3

// rack lists what lies on the rack as it is stored, each with the pieces of projects that fit it best.
func (a *api) rack(ctx context.Context, _ *struct{}) (*body[[]OnRack], error) {
	shop, _, err := a.loadShop(ctx)
	if err != nil {
		return nil, err
	}
	all := make([]OnRack, len(shop.Rack))
	for i, o := range shop.Rack {
		all[i] = OnRack{Offcut: o, Uses: []RackUse{}}
	}
	if len(all) == 0 {
		return answer(all), nil
	}
	err = a.eachNeeds(ctx, shop, func(l store.Line, n needs) {
		for i := range all {
			best := RackUse{Project: l.ID, Name: l.Name}
			for k := range n.toCut {
				if g := &n.toCut[k]; g.Size == all[i].Size && g.Cut <= all[i].Length && g.Cut > best.Length {
					best.Letter, best.Length, best.Left = g.Letter, g.Cut, all[i].Length-g.Cut
				}
			}
			if best.Letter != "" {
				all[i].Uses = append(all[i].Uses, best)
			}
		}
	})
	if err != nil {
		return nil, err
	}
	for i := range all {
		u := all[i].Uses
		slices.SortStableFunc(u, func(a, b RackUse) int { return cmp.Compare(a.Left, b.Left) })
		all[i].Uses = u[:min(len(u), mostUses)]
	}
	return answer(all), nil
}
