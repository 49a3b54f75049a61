// Package together answers: which things hang together, and how far is one of them
// beyond another? Union and find with offsets; who needs no offsets leaves them at zero.
package together

import "sturdyelbow/core/measure"

// Sets are things by number, each of them alone at first. Where thing 0 is in a set, it
// is the set's root.
type Sets struct {
	parent []int
	off    []measure.Length // beyond the parent
	size   []int
}

// New makes n things. Its cost is linear; every other method's is all but constant.
func New(n int) *Sets {
	s := &Sets{parent: make([]int, n), off: make([]measure.Length, n), size: make([]int, n)}
	for i := range s.parent {
		s.parent[i], s.size[i] = i, 1
	}
	return s
}

// Find gives the root of a thing's set, and how far beyond it the thing is.
func (s *Sets) Find(i int) (root int, off measure.Length) {
	if s.parent[i] == i {
		return i, 0
	}
	root, off = s.Find(s.parent[i])
	s.parent[i], s.off[i] = root, s.off[i]+off
	return root, s.off[i]
}

// Root gives the root of a thing's set.
func (s *Sets) Root(i int) int {
	root, _ := s.Find(i)
	return root
}

// Between gives how far j is beyond i, where they are in one set.
func (s *Sets) Between(i, j int) (by measure.Length, known bool) {
	a, offA := s.Find(i)
	b, offB := s.Find(j)
	return offB - offA, a == b
}

// Join puts j so far beyond i, with all that hangs together with either. Of two that
// are in one set already nothing changes.
func (s *Sets) Join(i, j int, by measure.Length) {
	a, offA := s.Find(i)
	b, offB := s.Find(j)
	if a == b {
		return
	}
	by += offA - offB // b is so far beyond a
	if s.size[a] < s.size[b] && a != 0 || b == 0 {
		a, b, by = b, a, -by
	}
	s.parent[b], s.off[b] = a, by
	s.size[a] += s.size[b]
}
