package measure

import (
	"math"
	"strconv"
	"strings"
)

// ParseDegrees reads an angle as it is typed: 30, -7.5, 30°. ok is false where it is none.
func ParseDegrees(text string) (degrees float64, ok bool) {
	v, err := strconv.ParseFloat(strings.Replace(strings.TrimSuffix(text, "°"), "−", "-", 1), 64)
	return v, err == nil && !math.IsNaN(v) && !math.IsInf(v, 0)
}
