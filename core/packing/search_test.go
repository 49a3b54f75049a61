package packing

import (
	"context"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// goIn says whether everything goes into so many bins of each kind, by trying every way.
func goIn(s *search, avail []int) bool {
	var pieces []int64
	for _, it := range s.items {
		for range it.Count {
			pieces = append(pieces, it.Size)
		}
	}
	var bins [][]int64
	var of []*Kind
	for k, n := range avail {
		for range n {
			bins, of = append(bins, nil), append(of, &s.kinds[k])
		}
	}
	var place func(n int) bool
	place = func(n int) bool {
		if n == len(pieces) {
			return true
		}
		for b := range bins {
			was := bins[b]
			if bins[b] = append(was[:len(was):len(was)], pieces[n]); of[b].holds(bins[b]) && place(n+1) {
				return true
			}
			if bins[b] = was; len(was) == 0 && b > 0 && of[b] == of[b-1] && len(bins[b-1]) == 0 {
				continue
			}
		}
		return false
	}
	return place(0)
}

// What the search and the dive say of a set of bins is true, without the simple ways that
// settle most sets before they are asked.
func TestEveryJudgeOfASetIsRight(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		var p Problem
		seen := map[int64]bool{}
		for left := rapid.IntRange(4, 11).Draw(t, "pieces"); left > 0; {
			it := Item{Size: rapid.Int64Range(5, 40).Draw(t, "size"), Count: rapid.IntRange(1, min(left, 4)).Draw(t, "count")}
			if !seen[it.Size] {
				p.Items = append(p.Items, it)
				left -= it.Count
			}
			seen[it.Size] = true
		}
		for range rapid.IntRange(1, 3).Draw(t, "kinds") {
			k := Kind{Room: rapid.Int64Range(40, 70).Draw(t, "room"), Cost: rapid.Int64Range(1, 9).Draw(t, "cost"), Bins: 1, Limit: Endless}
			if parts := rapid.IntRange(1, 3).Draw(t, "parts"); parts > 1 {
				w := Way{Room: k.Room, Parts: make([]int64, parts)}
				for i := range w.Parts {
					w.Parts[i] = rapid.Int64Range(15, 40).Draw(t, "part")
				}
				k.Ways = []Way{w}
			}
			p.Kinds = append(p.Kinds, k)
		}
		s, err := newSearch(context.Background(), &p)
		require.NoError(t, err)
		s.tests = []prices{s.byVolume()}
		set := make([]int, s.charged)
		for k := range set {
			set[k] = rapid.IntRange(0, 4).Draw(t, "bins")
		}
		avail := s.avail(set)
		want := goIn(s, avail)
		verify := func(bins []Bin) {
			got := s.answer(bins)
			require.NoError(t, p.Verify(got))
			used := make([]int, len(s.kinds))
			for _, b := range bins {
				used[b.Kind]++
			}
			for k := range used {
				require.LessOrEqual(t, used[k], avail[k])
			}
		}
		bins, sure := s.searched(s.counts(), avail, 50_000_000)
		require.True(t, sure)
		require.Equal(t, want, bins != nil, "searched")
		if bins != nil {
			verify(bins)
		}
		s.program()
		s.relax(s.counts(), avail, 200)
		test := s.safe()
		holds := test.holds(s.counts(), avail)
		if want {
			require.True(t, holds, "no price rules out what goes in")
		}
		if holds {
			if bins := s.dive(s.counts(), avail, test); bins != nil {
				require.True(t, want)
				verify(bins)
			}
			s.tests = append(s.tests, test)
			bins, sure = s.searched(s.counts(), avail, 50_000_000)
			require.True(t, sure)
			require.Equal(t, want, bins != nil, "searched with prices")
		}
	})
}
