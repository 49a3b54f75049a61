// Package linear solves the few equations at a time that the other rooms ask
// of it: which sizes give way by how much, where a sprung pipe rests, which
// cuts close a loop.
package linear

import (
	"math"
	"slices"
)

// Solve finds x with a x = b for a small square a, by Gauss' elimination with
// row exchange. least is the smallest pivot that counts; ok is false where the
// equations depend on each other. Neither a nor b is changed.
func Solve(a [][]float64, b []float64, least float64) (x []float64, ok bool) {
	n := len(b)
	m := make([][]float64, n)
	for i := range m {
		m[i] = append(slices.Clone(a[i]), b[i])
	}
	for c := range n {
		p := c
		for r := c + 1; r < n; r++ {
			if math.Abs(m[r][c]) > math.Abs(m[p][c]) {
				p = r
			}
		}
		if math.Abs(m[p][c]) < least {
			return nil, false
		}
		m[c], m[p] = m[p], m[c]
		for r := c + 1; r < n; r++ {
			f := m[r][c] / m[c][c]
			if f == 0 {
				continue
			}
			from, to := m[c][c:], m[r][c:]
			for k, v := range from {
				to[k] -= f * v
			}
		}
	}
	x = make([]float64, n)
	for i := n - 1; i >= 0; i-- {
		sum := m[i][n]
		for k := i + 1; k < n; k++ {
			sum -= m[i][k] * x[k]
		}
		x[i] = sum / m[i][i]
	}
	return x, true
}
