package stock

import (
	"context"
	"slices"

	"sturdyelbow/core/packing"
)

// Improve goes on from where [Solve] stops: it spends twice as much on the search each time,
// until all is proven or the context ends, and tells each time what it has by then. What it
// gives is never worse than what it told before. It gives what it has when the context ends;
// the error is [Problem.Check]'s.
func Improve(ctx context.Context, p Problem, tell func([]Material)) ([]Material, error) {
	if err := p.Check(); err != nil {
		return nil, err
	}
	if p.Steps == 0 {
		p.Steps = packing.DefaultSteps
	}
	var best []Material
	for {
		now, err := Solve(ctx, p)
		if err != nil {
			return best, nil // it was stopped
		}
		for i := range best {
			now[i] = better(best[i], now[i])
		}
		best = now
		tell(slices.Clone(best))
		if !slices.ContainsFunc(best, func(m Material) bool { return !m.Proven }) {
			return best, nil
		}
		p.Steps *= 2
	}
}

// better is the better of two plans of one material, with the higher of their bounds.
func better(a, b Material) Material {
	best := b
	if a.compare(&b) <= 0 {
		best = a
	}
	best.Steps = max(a.Steps, b.Steps)
	if best.Proven = a.Proven && a.compare(&b) == 0 || b.Proven; best.Proven {
		return best
	}
	best.BoundCost, best.BoundLength = max(a.BoundCost, b.BoundCost), max(a.BoundLength, b.BoundLength)
	best.BoundSticks = max(a.BoundSticks, b.BoundSticks)
	return best
}
