package lines

import (
	"fmt"
	"regexp"
	"strings"

	"sturdyelbow/core/edit"
)

// wrong is a refusal at a place of the line.
func wrong(at int, hint, what string, args ...any) *edit.Refusal {
	return &edit.Refusal{What: fmt.Sprintf(what, args...), Hint: hint, At: at}
}

// parted is a line with its comment and its answers apart.
type parted struct {
	said    string
	answers []string
	comment string // with the # that begins it
	numbers string // what stands after #:
}

// part parts a line. A # begins a comment where nothing, or a space, stands before it.
func part(text string) (p parted) {
	p.said = text
	for i := 0; i < len(text); i++ {
		if text[i] == '#' && (i == 0 || text[i-1] == ' ' || text[i-1] == '\t') {
			p.said, p.comment = text[:i], strings.TrimSpace(text[i:])
			break
		}
	}
	if said, numbers, ok := strings.Cut(p.comment, "#:"); ok {
		p.comment, p.numbers = strings.TrimSpace(said), strings.TrimSpace(numbers)
	}
	for {
		m := answer.FindStringSubmatch(p.said)
		if m == nil {
			break
		}
		p.said = m[1]
		p.answers = append([]string{strings.TrimSpace(m[2])}, p.answers...)
	}
	return p
}

var answer = regexp.MustCompile(`^(.*\S)\s*\(([^()]*)\)\s*$`)
