package server

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"sturdyelbow/internal/project"
	"sturdyelbow/internal/store"
)

// PurchasePath names the projects of a purchase: their ids, in any order, with commas between.
type PurchasePath struct {
	Of string `path:"of" maxLength:"2100"`
}

// purchaseKey is what a purchase of some projects is stored by, in whatever order they are named.
func purchaseKey(of string) (ids []string, key string) {
	ids = strings.Split(of, ",")
	slices.Sort(ids)
	ids = slices.Compact(ids)
	return ids, strings.Join(ids, ",")
}

// StoredPurchase is a project that stands for several, with its revision.
type StoredPurchase struct {
	Revision int64           `json:"revision"` // 0: nothing was chosen yet
	Project  project.Project `json:"project"`
}

// getPurchase gives how some projects are bought together. Where nothing was chosen yet they are bought as
// the oldest of them is, and their numbers are by age.
func (a *api) getPurchase(ctx context.Context, in *PurchasePath) (*body[StoredPurchase], error) {
	ids, key := purchaseKey(in.Of)
	data, revision, err := a.store.Purchase(ctx, key)
	if err != nil {
		return nil, missing(err)
	}
	if data != nil {
		p, err := project.Decode(data)
		if err != nil {
			return nil, fmt.Errorf("the stored purchase cannot be read: %w", err)
		}
		return answer(StoredPurchase{revision, *p}), nil
	}
	var lines []store.Line
	for _, id := range ids {
		l, err := a.store.Line(ctx, id)
		if err != nil {
			return nil, missing(err)
		}
		lines = append(lines, l)
	}
	slices.SortFunc(lines, func(a, b store.Line) int { return cmp.Or(a.Created.Compare(b.Created), cmp.Compare(a.ID, b.ID)) })
	for i, l := range lines {
		ids[i] = l.ID
	}
	first, _, err := a.stored(ctx, ids[0])
	if err != nil {
		return nil, err
	}
	return answer(StoredPurchase{Project: *first.BuysAs(ids)}), nil
}

func (a *api) savePurchase(ctx context.Context, in *struct {
	PurchasePath
	Body StoredPurchase
}) (*body[Saved], error) {
	ids, key := purchaseKey(in.Of)
	p := &in.Body.Project
	if p.Together == nil || !slices.Equal(ids, slices.Sorted(slices.Values(p.Together.Of))) {
		return nil, huma.Error422UnprocessableEntity(
			"This is another purchase",
			&Fault{Pointer: "/project/together/of", Message: "it names other projects than the address does"},
		)
	}
	for _, id := range ids {
		if _, err := a.store.Line(ctx, id); err != nil {
			return nil, missing(err)
		}
	}
	data, err := json.Marshal(p)
	if err != nil {
		return nil, err
	}
	r, err := a.store.SavePurchase(ctx, key, in.Body.Revision, data)
	if err != nil {
		return nil, missing(err)
	}
	a.followers.tell(key)
	return answer(Saved{r}), nil
}
