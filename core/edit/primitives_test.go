package edit_test

import (
	"go/ast"
	"go/parser"
	"go/token"
	"os"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// lists are the lists of a document and of its definitions.
var lists = []string{
	"Joints",
	"Pipes",
	"Sizes",
	"Reasons",
	"Uses",
	"Links",
	"Planes",
	"Merges",
	"Groups",
	"Parts",
	"Tolerances",
	"Envelopes",
	"Holds",
	"Followed",
	"Joined",
}

// A gesture changes a document by the primitives that [frame.Document] offers:
// it puts nothing into a list of it and takes nothing out.
func TestGesturesTouchNoListOfTheDocument(t *testing.T) {
	files, err := os.ReadDir(".")
	require.NoError(t, err)
	fset, read := token.NewFileSet(), 0
	for _, f := range files {
		if !strings.HasSuffix(f.Name(), ".go") || strings.HasSuffix(f.Name(), "_test.go") {
			continue
		}
		file, err := parser.ParseFile(fset, f.Name(), nil, 0)
		require.NoError(t, err)
		read++
		ast.Inspect(file, func(n ast.Node) bool {
			set, ok := n.(*ast.AssignStmt)
			if !ok {
				return true
			}
			for _, to := range set.Lhs {
				if at, element := to.(*ast.IndexExpr); element {
					to = at.X
				}
				if field, ok := to.(*ast.SelectorExpr); ok && slices.Contains(lists, field.Sel.Name) {
					if of, ok := field.X.(*ast.Ident); ok && (of.Name == "done" || of.Name == "w" || of.Name == "array") {
						continue // its own words
					}
					assert.Fail(t, "a list is changed in place", "%s", fset.Position(n.Pos()))
				}
			}
			return true
		})
	}
	assert.Greater(t, read, 15)
}
