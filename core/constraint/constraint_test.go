package constraint_test

import (
	"fmt"
	"math"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"sturdyelbow/core/constraint"
	"sturdyelbow/core/measure"
)

const inch = measure.Inch

// Two posts of 24 and 23 1/2 on a level base, and a bar between their tops that
// is to be level: the bar was said last, and gives way.
func Example() {
	s := constraint.New()
	s.Slack = inch / 16
	left, right, top, end := s.Var(), s.Var(), s.Var(), s.Var()
	s.Difference(constraint.Always, constraint.Zero, left, 0)
	s.Difference(0, left, right, 0)        // the base
	s.Difference(1, left, top, 24*inch)    // a post
	s.Difference(2, right, end, 47*inch/2) // the other
	s.Difference(3, top, end, 0)           // the bar
	r := s.Solve(nil)
	fmt.Println(r.Conflicts[0].Loser, "of", r.Conflicts[0].Owners, "by", r.Conflicts[0].Off)
	// Output: 3 of [0 1 2 3] by 1/2"
}

// A hair that no tape shows is no conflict, and is told.
func TestAHairIsHeld(t *testing.T) {
	s := constraint.New()
	s.Slack = inch / 16
	a, b := s.Var(), s.Var()
	s.Difference(constraint.Always, constraint.Zero, a, 0)
	s.Difference(0, a, b, 10*inch)
	s.Difference(1, a, b, 10*inch+inch/32)
	r := s.Solve(nil)
	assert.Empty(t, r.Conflicts)
	assert.Equal(t, []constraint.Residual{{Owner: 1, By: inch / 32}}, r.Off)
	assert.Equal(t, 10*inch, r.At[b], "the first said holds to the nanometre")
}

// What one owner misses along several axes it misses together: two hairs may be more than one.
func TestHairsOfOneOwnerAreOne(t *testing.T) {
	say := map[string]func(s *constraint.System, owner int, a, b constraint.Var, by measure.Length){
		"by a difference": func(s *constraint.System, owner int, a, b constraint.Var, by measure.Length) {
			s.Difference(owner, a, b, by)
		},
		"by a sum": func(s *constraint.System, owner int, a, b constraint.Var, by measure.Length) {
			s.Sum(owner, by, constraint.Term{Of: b, Times: 1}, constraint.Term{Of: a, Times: -1})
		},
	}
	for how, say := range say {
		for hair, holds := range map[measure.Length]bool{3 * inch / 100: true, 5 * inch / 100: false, inch / 8: false} {
			s := constraint.New()
			s.Slack = inch / 16
			p, q := s.Point(), s.Point()
			for a := range 3 {
				s.Difference(constraint.Always, constraint.Zero, p[a], 0)
				s.Difference(a, p[a], q[a], 10*inch)
			}
			say(s, 3, p[0], q[0], 10*inch+hair)
			say(s, 3, p[1], q[1], 10*inch-hair)
			r := s.Solve(nil)
			both := float64(hair) * math.Sqrt2
			if holds {
				assert.Empty(t, r.Conflicts, "%s, %s", how, hair)
				require.Len(t, r.Off, 1)
				assert.Equal(t, 3, r.Off[0].Owner)
				assert.InDelta(t, both, float64(r.Off[0].By), 2)
				continue
			}
			require.Len(t, r.Conflicts, 1, "%s, %s", how, hair)
			assert.Empty(t, r.Off)
			c := r.Conflicts[0]
			assert.Equal(t, 3, c.Loser)
			if hair <= s.Slack {
				assert.Equal(t, []int{0, 1, 3}, c.Owners, "both sides have their reasons: %s", how)
			}
		}
	}
}

// The same of what is shared out among rules that no one of them decides: in two places that have no unknown in common.
func TestHairsOfOneOwnerAreOneInTwoPlaces(t *testing.T) {
	for hair, holds := range map[measure.Length]bool{3 * inch / 100: true, 5 * inch / 100: false} {
		s := constraint.New()
		s.Slack = inch / 16
		for place := range 2 {
			c := s.Point()
			s.Difference(constraint.Always, constraint.Zero, c[2], 0)
			for i, corner := range [][2]measure.Length{{0, 0}, {40, 0}, {0, 30}} { // 25 from each is the middle of the longest side
				p := s.Point()
				for a, at := range []measure.Length{corner[0] * inch, corner[1] * inch, 0} {
					s.Difference(constraint.Always, constraint.Zero, p[a], at)
				}
				owner, far := 2*place+i, 25*inch
				if i == 2 {
					owner, far = 4, far+hair
				}
				s.Distance(owner, p, c, far)
			}
		}
		r := s.Solve(nil)
		if holds {
			assert.Empty(t, r.Conflicts, "%s", hair)
			require.Len(t, r.Off, 1)
			assert.InDelta(t, float64(hair)*math.Sqrt2, float64(r.Off[0].By), float64(inch/1000))
			continue
		}
		require.Len(t, r.Conflicts, 1, "%s", hair)
		assert.Empty(t, r.Off)
		assert.Equal(t, 4, r.Conflicts[0].Loser)
		assert.Equal(t, []int{0, 1, 2, 3, 4}, r.Conflicts[0].Owners, "both places have their reasons")
	}
}

// What nothing ties is told, in groups that move together.
func TestWhatNothingTies(t *testing.T) {
	s := constraint.New()
	a, b, c := s.Var(), s.Var(), s.Var()
	s.Difference(constraint.Always, constraint.Zero, a, 0)
	s.Difference(0, b, c, inch)
	r := s.Solve(nil)
	require.Len(t, r.Free, 1)
	assert.ElementsMatch(t, []constraint.Var{b, c}, r.Free[0])
	assert.Equal(t, inch, r.At[c]-r.At[b])
	assert.NotEqual(t, r.Together[a], r.Together[b])
}

// Thirds between two others, found whichever of the three is known first; two
// that only each other would place are found by Newton's method.
func TestSumsArePlaced(t *testing.T) {
	s := constraint.New()
	a, b, m, n := s.Var(), s.Var(), s.Var(), s.Var()
	s.Difference(constraint.Always, constraint.Zero, a, 2*inch)
	s.Sum(0, 0, constraint.Term{Of: m, Times: 3}, constraint.Term{Of: a, Times: -2}, constraint.Term{Of: b, Times: -1})
	s.Difference(1, a, m, 5*inch) // the third is known: the end follows
	s.Sum(2, 40*inch, constraint.Term{Of: n, Times: 1}, constraint.Term{Of: b, Times: 1})
	r := s.Solve(nil)
	assert.Equal(t, 17*inch, r.At[b])
	assert.Equal(t, 23*inch, r.At[n])

	s = constraint.New()
	x, y := s.Var(), s.Var()
	s.Sum(0, 10*inch, constraint.Term{Of: x, Times: 1}, constraint.Term{Of: y, Times: 1})
	s.Sum(1, 4*inch, constraint.Term{Of: x, Times: 1}, constraint.Term{Of: y, Times: -1})
	r = s.Solve(nil)
	assert.Equal(t, [2]measure.Length{7 * inch, 3 * inch}, [2]measure.Length{r.At[x], r.At[y]})
	assert.Empty(t, r.Free)
}

// slope says that q lies from p at 45 degrees, by a helper that it gives.
func slope(s *constraint.System, owner int, p, q constraint.Point) constraint.Var {
	long := s.Auxiliary()
	for a := range 2 {
		s.Sum(
			owner,
			0,
			constraint.Term{Of: q[a], Times: 1},
			constraint.Term{Of: p[a], Times: -1},
			constraint.Term{Of: long, Times: -math.Sqrt2 / 2},
		)
	}
	s.Difference(owner, p[2], q[2], 0)
	return long
}

// Along a slope of no length both coordinates are free together, and what hangs
// on them with them; how far along it is, is nobody's to hold.
func TestASlopeOfNoLengthIsLoose(t *testing.T) {
	s := constraint.New()
	p, q, r := s.Point(), s.Point(), s.Point()
	for a := range 3 {
		s.Difference(constraint.Always, constraint.Zero, p[a], 0)
		s.Difference(1, q[a], r[a], inch)
	}
	long := slope(s, 0, p, q)
	free := s.Solve(nil).Free
	require.Len(t, free, 1)
	assert.ElementsMatch(t, []constraint.Var{q[0], q[1], r[0], r[1]}, free[0])
	assert.NotContains(t, free[0], long)
}

// A way of three slopes to a point that is 1/8 too far misses by the whole of
// that: shared out among all of them it would look like less than a hair.
func TestAMissIsJudgedWhole(t *testing.T) {
	for _, by := range []measure.Length{inch / 8, inch / 100} {
		s := constraint.New()
		s.Slack = inch / 16
		p, q, m, r := s.Point(), s.Point(), s.Point(), s.Point()
		for a := range 3 {
			s.Difference(constraint.Always, constraint.Zero, p[a], 0)
			s.Sum(
				3,
				0,
				constraint.Term{Of: q[a], Times: 2},
				constraint.Term{Of: m[a], Times: -1},
				constraint.Term{Of: p[a], Times: -1},
			) // half of the way
		}
		slope(s, 0, p, q)
		slope(s, 1, q, m)
		slope(s, 2, m, r)
		s.Difference(4, p[0], r[0], 7*inch)
		s.Difference(5, p[1], r[1], 7*inch+by)
		got := s.Solve(nil)
		if by > s.Slack {
			require.Len(t, got.Conflicts, 1, "%s", by)
			assert.Empty(t, got.Off)
		} else {
			assert.Empty(t, got.Conflicts, "%s", by)
			require.Len(t, got.Off, 1)
		}
	}
}

// A triangle of 24, 32 and 40 stands on the side where it was guessed to.
func TestATriangle(t *testing.T) {
	for _, side := range []measure.Length{1, -1} {
		s := constraint.New()
		p, q, top := s.Point(), s.Point(), s.Point()
		for a := range 3 {
			s.Difference(constraint.Always, constraint.Zero, p[a], 0)
		}
		s.Difference(0, p[0], q[0], 40*inch)
		for _, a := range []int{1, 2} {
			s.Difference(0, p[a], q[a], 0)
		}
		s.Difference(1, p[1], top[1], 0)
		s.Distance(2, p, top, 24*inch)
		s.Distance(3, q, top, 32*inch)
		s.Guess(top[0], 10*inch)
		s.Guess(top[2], side*9*inch)
		r := s.Solve(nil)
		require.Empty(t, r.Conflicts)
		assert.InDelta(t, 14.4, r.At[top[0]].Inches(), 1e-6)
		assert.InDelta(t, float64(side)*19.2, r.At[top[2]].Inches(), 1e-6)
	}
	s := constraint.New()
	p, q := s.Point(), s.Point()
	for a := range 3 {
		s.Difference(constraint.Always, constraint.Zero, p[a], 0)
		s.Difference(0, p[a], q[a], inch)
	}
	m, far := s.Point(), s.Var()
	s.Toward(1, m, p, q, far)
	s.Difference(2, constraint.Zero, far, 2*inch)
	s.Distance(3, p, m, 3*inch)
	r := s.Solve(nil)
	require.Len(t, r.Conflicts, 1)
	assert.Equal(t, 3, r.Conflicts[0].Loser)
	assert.Equal(t, []int{1, 2, 3}, r.Conflicts[0].Owners, "how far the way goes on has no part in it")
	assert.InDelta(t, 2/math.Sqrt(3), r.At[m[1]].Inches(), 1e-6)
}

// holdsWithin is how far a rule that holds may be off. Each coordinate that a
// half-way rule places is rounded to a whole nanometre, and one that is placed
// beyond two others (c = 2b − a) doubles what b is off and adds what a is: after
// seven in a row that is 0.5 · (1 + √2)⁷ = 240 nm, and a rule adds up four such.
// That is the micrometre within which the solver takes rules to agree.
const holdsWithin = 1000 * measure.Nanometre

// Random places and random rules that hold between them: all hold; then one
// that does not: it is found with a smallest set, of which leaving any one out
// ends the conflict, and whichever gives way everything else holds.
func TestASmallestSetIsFound(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 9).Draw(t, "coordinates")
		at := make([]measure.Length, n+1)
		for i := 1; i <= n; i++ {
			at[i] = measure.Length(rapid.IntRange(0, 5).Draw(t, "at")) * inch
		}
		type rule struct {
			terms []constraint.Term
			is    measure.Length
		}
		var rules []rule
		for range rapid.IntRange(1, 14).Draw(t, "rules") {
			a, b := rapid.IntRange(0, n).Draw(t, "a"), rapid.IntRange(0, n).Draw(t, "b")
			if a == b {
				continue
			}
			r := rule{terms: []constraint.Term{{Of: constraint.Var(b), Times: 1}, {Of: constraint.Var(a), Times: -1}}, is: at[b] - at[a]}
			if c := rapid.IntRange(0, n).Draw(t, "c"); c != a && c != b && rapid.Bool().Draw(t, "three") {
				r = rule{
					terms: []constraint.Term{
						{Of: constraint.Var(b), Times: 2},
						{Of: constraint.Var(a), Times: -1},
						{Of: constraint.Var(c), Times: -1},
					},
					is: 2*at[b] - at[a] - at[c],
				}
			}
			rules = append(rules, r)
		}
		if len(rules) == 0 {
			return
		}
		build := func() *constraint.System {
			s := constraint.New()
			for range n {
				s.Var()
			}
			for i, r := range rules {
				if len(r.terms) == 2 {
					s.Difference(i, r.terms[1].Of, r.terms[0].Of, r.is)
				} else {
					s.Sum(i, r.is, r.terms...)
				}
			}
			return s
		}
		sum := func(r *constraint.Result, x rule) (v measure.Length) {
			for _, term := range x.terms {
				v += r.At[term.Of].Scale(term.Times)
			}
			return v
		}
		r := build().Solve(nil)
		require.Empty(t, r.Conflicts)
		for _, x := range rules {
			require.LessOrEqual(t, (sum(r, x) - x.is).Abs(), holdsWithin)
		}
		bad := rapid.IntRange(0, len(rules)-1).Draw(t, "bad")
		rules[bad].is += inch
		r = build().Solve(nil)
		for _, c := range r.Conflicts {
			require.Equal(t, c.Owners[len(c.Owners)-1], c.Loser, "the last said")
			require.Contains(t, c.Owners, bad)
			for _, let := range c.Owners {
				var others []int
				for i := range rules {
					if !slices.Contains(c.Owners, i) || i == let {
						others = append(others, i)
					}
				}
				require.Empty(t, build().Solve(others).Conflicts, "without %d of %v", let, c.Owners)
			}
		}
		for i, x := range rules {
			if !slices.ContainsFunc(r.Conflicts, func(c constraint.Conflict) bool { return c.Loser == i }) {
				require.LessOrEqual(t, (sum(r, x) - x.is).Abs(), holdsWithin)
			}
		}
	})
}
