package message_test

import (
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"path/filepath"
	"regexp"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"sturdyelbow/core/finding"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/message"
)

func Example() {
	f := finding.New("too-short", finding.Stop, finding.All(finding.Pipe, "A")...).
		With("long", measure.Inch).With("takes", measure.Inch*3/2).With("least", 5*measure.Inch)
	fmt.Println(message.Said(f).Text)
	all := finding.Group(
		[]finding.Finding{f, {Code: "too-short", Severity: finding.Stop, Subjects: finding.All(finding.Pipe, "B"), Figures: f.Figures}},
		message.Groups,
	)
	fmt.Println(message.Said(all[0]).Text)
	// Output:
	// pipe ⟨A⟩ would be 1" and its two sockets take 1 1/2": the fittings would overlap
	// 2 pieces cannot be seated: ⟨A⟩ and ⟨B⟩
}

// source visits every non-test file of the project's Go code.
func source(t *testing.T, visit func(*ast.File)) {
	for _, root := range []string{"../../core", "../../internal"} {
		require.NoError(t, filepath.WalkDir(root, func(p string, d fs.DirEntry, err error) error {
			if err != nil || d.IsDir() || !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
				return err
			}
			f, err := parser.ParseFile(token.NewFileSet(), p, nil, 0)
			if err == nil {
				visit(f)
			}
			return err
		}))
	}
}

// Every code that is found has a message, and no message is for a code that nobody
// finds. The codes are the string literals of the source that are written like one.
func TestEveryCodeHasItsMessage(t *testing.T) {
	written := map[string]bool{}
	source(t, func(f *ast.File) {
		if f.Name.Name == "message" {
			return
		}
		ast.Inspect(f, func(n ast.Node) bool {
			if l, is := n.(*ast.BasicLit); is && l.Kind == token.STRING {
				text, err := strconv.Unquote(l.Value)
				require.NoError(t, err)
				written[text] = true
			}
			call, is := n.(*ast.CallExpr)
			if !is || len(call.Args) == 0 {
				return true
			}
			name := ""
			switch f := call.Fun.(type) {
			case *ast.SelectorExpr:
				name = f.Sel.Name
			case *ast.Ident:
				name = f.Name
			}
			if l, is := call.Args[0].(*ast.BasicLit); is && (name == "New" && len(call.Args) > 1 || name == "about" || name == "ofLink") {
				code, err := strconv.Unquote(l.Value)
				require.NoError(t, err)
				assert.Contains(t, message.Codes(), code)
			}
			return true
		})
	})
	for _, code := range message.Codes() {
		assert.True(t, written[code], "nobody finds %q", code)
	}
}

// wrong is English that a message must not come to: an article before the wrong sound,
// one of many or many of one, a figure that is missing.
var wrong = regexp.MustCompile(
	`\ba ([aeio]|8)|\ban [bcdfghjklmnpqrstvwxyz]|\b1 ((pipe end|piece|port|socket|line|fitting|joint|pipe|other|part|bushing)s|are|have)\b|\b(2|3|12) (port|piece|socket|line|fitting|joint|pipe end|piece is|socket is|(pipe (is|has|would|meets)))\b|<no value>|%!|\bnil\b|\(\)|  | :|: $| $`,
)

// worded gives a finding of a code with so many things, and a figure of every name that
// the message may use, n where it counts.
func worded(code string, n int, kind string) finding.Finding {
	ids := []string{"A", "B", "C", "D", "E", "F", "G", "H", "K", "L", "M", "N"}
	f := finding.New(code, finding.Note, finding.All(finding.Pipe, ids[:n]...)...)
	for _, name := range []string{"more", "pipes", "ports", "sockets", "lines", "left", "fittings", "waits", "changes", "bushings"} {
		f = f.With(name, n)
	}
	f = f.With("parts", max(2, n))
	for _, name := range []string{"off", "value", "gap", "long", "takes", "least", "overlap", "radius", "rod", "bolt", "longest", "rest", "allowance", "limit", "slack", "stick", "net", "bought", "at"} {
		f = f.With(name, measure.Length(n)*measure.Inch)
	}
	for _, name := range []string{"strain", "most", "good"} {
		f = f.With(name, 0.01)
	}
	for _, name := range []string{"angle", "nearest", "away"} {
		f = f.With(name, finding.Degrees(45))
	}
	for _, name := range []string{"size", "from", "to", "inner", "outer", "what", "is", "on", "way", "words", "meaning", "fit", "best", "mend", "foot", "check", "joint", "link", "last"} {
		f = f.With(name, "3/4")
	}
	// a figure that none of these is counts
	known := map[string]bool{
		"n":        true,
		"subject":  true,
		"subjects": true,
		"kind":     true,
		"others":   true,
		"joints":   true,
		"hit":      true,
		"pair":     true,
		"bodies":   true,
		"why":      true,
	}
	for _, g := range f.Figures {
		known[g.Name] = true
	}
	for _, m := range regexp.MustCompile(`\.([a-z]+)`).FindAllStringSubmatch(message.Source(code), -1) {
		if !known[m[1]] {
			known[m[1]] = true
			f = f.With(m[1], n)
		}
	}
	two := finding.All(finding.Pipe, "A", "B")
	return f.With("kind", kind).With("others", two).With("joints", two).With("hit", two).With("pair", two).With("bodies", two)
}

// Messages read as English for one and for many, before a vowel and before a
// consonant, and with every reason that they may have.
func TestCountsAndArticles(t *testing.T) {
	for _, code := range message.Codes() {
		for _, n := range []int{1, 2, 3, 12} {
			for _, kind := range []string{"elbow-90", "tee", "unequal-tee", "8-way hub"} {
				for _, why := range []string{"many", "angles", "pair", "ports", "way"} {
					f := worded(code, n, kind).With("why", why)
					if code == "hovers" || code == "rocks" {
						f = f.With("most", finding.All(finding.Joint, "j1"))
					}
					if code == "off-the-pipe" {
						f = f.With("pipe", finding.All(finding.Pipe, "A"))
					}
					if code == "size-too-small" {
						f = f.With("bodies", measure.Inch)
					}
					f = message.Said(f)
					for _, text := range []string{f.Text, f.Hint} {
						require.NotEmpty(t, text, code)
						require.Empty(t, wrong.FindAllString(text, -1), "%s of %d: %s", code, n, text)
					}
				}
			}
		}
		if !message.Groups(code) {
			continue
		}
		fs := []finding.Finding{}
		for range 12 {
			fs = append(fs, worded(code, 1, "elbow-90").With("why", "pair"))
		}
		all := finding.Group(fs, message.Groups)
		require.Len(t, all, 1)
		require.Len(t, all[0].Cases, 12)
		f := message.Said(all[0])
		require.Empty(t, wrong.FindAllString(f.Text, -1), "%s: %s", code, f.Text)
	}
}

func TestLists(t *testing.T) {
	assert.Empty(t, message.List(nil, 4))
	assert.Equal(t, "A", message.List([]string{"A"}, 4))
	assert.Equal(t, "A and B", message.List([]string{"A", "B"}, 4))
	assert.Equal(t, "A, B and C", message.List([]string{"A", "B", "C"}, 4))
	assert.Equal(t, "A, B, C and 2 more", message.List([]string{"A", "B", "C", "D", "E"}, 4))
}

// The frame's unit is the unit of its messages.
func TestLengthsAreInTheUnitOfTheFrame(t *testing.T) {
	f := finding.New("hovers", finding.Warn, finding.All(finding.Joint, "j1")...).
		With("most", finding.All(finding.Joint, "j1")).
		With("gap", 12*measure.Millimetre)
	message.Say(&f, nil, measure.Millimetres)
	assert.Equal(t, "⟨j1⟩ hangs 12 mm above the floor", f.Text)
	message.Say(&f, nil, measure.Inches)
	assert.Equal(t, `⟨j1⟩ hangs 15/32" above the floor`, f.Text)
}
