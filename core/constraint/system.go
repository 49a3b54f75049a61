package constraint

import (
	"slices"

	"sturdyelbow/core/measure"
)

// Var is a coordinate of a [System].
type Var int

// Zero is the coordinate that everything is measured from.
const Zero Var = 0

// Always is the owner of a rule that cannot give way.
const Always = -1

// Term is a coordinate with the number that it counts times.
type Term struct {
	Of    Var
	Times float64
}

// Point is the three coordinates of a place.
type Point [3]Var

// rule is one equation. Which fields count follows from kind.
type rule struct {
	kind  ruleKind
	owner int
	a, b  Var            // apart: b stands by beyond a; toward: how far
	by    measure.Length // apart, sum: what it comes to; distance: how far
	terms []Term         // sum
	p     [3]Point       // distance: from, to; toward: from, to, the point between
}

type ruleKind int

const (
	apart ruleKind = iota
	sum
	distance
	toward
)

// System is coordinates and what was said of them. The zero value is not
// ready; use [New].
type System struct {
	vars    int
	rules   []rule
	guess   map[Var]measure.Length
	guessBy func() // to be called before guess is read
	helper  map[Var]bool
	owners  int
	work    int // spent, of [MaxWork]
	// Slack is how far a rule may be off and still count as held: it is then
	// reported among [Result.Off] and moves nothing.
	Slack measure.Length
}

// New makes a system with nothing in it but [Zero].
func New() *System { return &System{vars: 1, guess: map[Var]measure.Length{}, helper: map[Var]bool{}} }

// Var makes a coordinate.
func (s *System) Var() Var {
	s.vars++
	return Var(s.vars - 1)
}

// Auxiliary makes a coordinate that only serves to say a rule, as how far along a
// slope something lies. Where rules leave one degree of freedom to it and to
// others, the others are said to be free: they are what can be held.
func (s *System) Auxiliary() Var {
	v := s.Var()
	s.helper[v] = true
	return v
}

// Point makes three coordinates.
func (s *System) Point() Point { return Point{s.Var(), s.Var(), s.Var()} }

// Guess says where a coordinate stood, for where several places would do.
func (s *System) Guess(v Var, at measure.Length) { s.guess[v] = at }

// GuessBy gives guesses when the first is wanted: most systems are solved
// without any.
func (s *System) GuessBy(guesses func()) { s.guessBy = guesses }

// guesses are those that were given, with those that were to be given late.
func (s *System) guesses() map[Var]measure.Length {
	if by := s.guessBy; by != nil {
		s.guessBy = nil
		by()
	}
	return s.guess
}

func (s *System) add(r rule) {
	s.owners = max(s.owners, r.owner+1)
	s.rules = append(s.rules, r)
}

// Forget takes the rules of some owners away, and all guesses: the system is
// ready to be solved anew. What was found before stays as it is.
func (s *System) Forget(of func(owner int) bool) {
	s.rules = slices.DeleteFunc(s.rules, func(r rule) bool { return of(r.owner) })
	s.guess, s.guessBy, s.work = map[Var]measure.Length{}, nil, 0
}

// Difference says that b stands by beyond a.
func (s *System) Difference(owner int, a, b Var, by measure.Length) {
	s.add(rule{kind: apart, owner: owner, a: a, b: b, by: by})
}

// Sum says what some coordinates, each so many times, add up to.
func (s *System) Sum(owner int, is measure.Length, terms ...Term) {
	s.add(rule{kind: sum, owner: owner, terms: terms, by: is})
}

// Distance says how far two points are from each other.
func (s *System) Distance(owner int, p, q Point, far measure.Length) {
	s.add(rule{kind: distance, owner: owner, p: [3]Point{p, q}, by: far})
}

// Toward says that a point lies from p on the way to q, as far as a coordinate
// of its own says.
func (s *System) Toward(owner int, m, p, q Point, far Var) {
	s.add(rule{kind: toward, owner: owner, p: [3]Point{p, q, m}, a: far})
}

// Conflict is a smallest set of owners that cannot hold together.
type Conflict struct {
	Loser  int            // that gave way: the last of them
	Owners []int          // all of them, in order
	Off    measure.Length // by how much the loser is off where it gave way
}

// Residual is an owner that holds but for so much.
type Residual struct {
	Owner int
	By    measure.Length
}

// Result is where everything stands.
type Result struct {
	At        []measure.Length // of each coordinate
	Conflicts []Conflict
	Off       []Residual
	// Free holds the coordinates that nothing ties to [Zero], in groups that
	// move together. Where several rules decide together, a coordinate may be in
	// more than one.
	Free [][]Var
	Work int // that it cost, of [MaxWork]
	// Unfinished says that finding where everything stands would have cost more
	// than [MaxWork]: what no rule places by itself is where it was guessed to be.
	Unfinished bool
	// Together says which coordinates move together: two with the same number.
	Together []int
}
