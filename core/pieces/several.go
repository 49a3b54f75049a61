package pieces

import (
	"regexp"
	"strconv"
	"strings"

	"sturdyelbow/core/measure"
)

var (
	// between parts the pieces of a line that has several: four 48s and fourteen 12s, two 8s.
	between = regexp.MustCompile(`(?i)\s*(?:[,;+&]\s*and\s|[,;+&]|\band\b)\s*`)
	// told is how many of a piece there are, at its beginning.
	told = regexp.MustCompile(`(?i)^(?:(\d{1,5})|(?:an?\s+)?([a-z]+)(?:\s+(?:of|at|@|x|pieces|pcs\.?))?)\s+(\S.*)$`)
	// joined has a mark between its count and its length, and is read as a line alone is.
	joined = regexp.MustCompile(`(?i)\d\s*[x×@]|\bpcs\b|\bpieces\b|\d\s+(?:of|at)\s`)
	// plural is a length in the plural: 48s, 48"s, 30 in's.
	plural = regexp.MustCompile(`(\d)\s*(["″”]|in|ft|mm|cm)?['’]?s$`)
	// ending joined the pieces to their pipe, which is off the line: two 30s in 3/4 pipe.
	ending = regexp.MustCompile(`(?i)s\s+(?:in|of|from)$`)
	// marked is a length with its unit.
	marked = regexp.MustCompile(`(?i)(?:["″”'’′]|in\.?|ft\.?|mm|cm|\dm)$`)
)

// several reads what is told of pieces as one speaks: "four 48s and fourteen 12s", "two 30s", or a row
// of lengths that each have their unit, 12", 12", 15". It gives a line for each, count @ length, with
// what was written for it; nothing where the line is of another form, and is read as one.
func several(s string) (lines, written []string) {
	parts := between.Split(ending.ReplaceAllString(strings.Trim(s, " ,;:."), "s"), -1)
	spoken, alone := true, len(parts) > 2 || len(parts) == 2 && strings.Contains(s, "and")
	for _, part := range parts {
		part = strings.TrimSpace(part)
		written = append(written, part)
		alone = alone && marked.MatchString(part) && isLength(part)
		line, ok := spokenOf(part)
		if !ok && len(parts) > 1 && joined.MatchString(part) {
			line, ok = part, true
		}
		spoken = spoken && ok
		lines = append(lines, line)
	}
	switch {
	case spoken:
		return lines, written
	case alone:
		for i, part := range written {
			lines[i] = "1 @ " + part
		}
		return lines, written
	}
	return nil, nil
}

// spokenOf reads "four 48s", "4 48s", "two 30 in" as count @ length. Where only a space parts two
// numbers, the second is in the plural.
func spokenOf(part string) (line string, ok bool) {
	m := told.FindStringSubmatch(part)
	if m == nil {
		return "", false
	}
	length := plural.ReplaceAllString(m[3], "$1$2")
	count, ok := measure.NumberWord(m[2])
	if m[1] != "" {
		count, _ = strconv.Atoi(m[1])
		ok = length != m[3]
	}
	return strconv.Itoa(count) + " @ " + length, ok && isLength(length)
}

func isLength(s string) bool {
	_, err := measure.Parse(s, measure.Reading{Unit: measure.Inches, Limit: maxLength})
	return err == nil
}
