// Package house_test holds the rules of the house: which room may import which.
package house_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const module = "sturdyelbow/"

// above lists, for each room of the core, the rooms it may import.
var above = map[string]string{
	"measure": "", "why": "measure", "finding": "", "catalog": "measure",
	"linear": "", "curve": "measure linear", "frame": "measure catalog", "constraint": "measure linear",
	"layout":  "measure catalog frame why finding curve constraint",
	"fitting": "measure catalog frame layout finding curve", "cutlist": "measure catalog frame layout fitting why finding curve linear",
	"stock": "measure", "cost": "measure catalog", "joinery": "measure catalog frame fitting",
	"starter": "measure catalog frame fit layer", "layer": "measure catalog frame", "wireframe": "measure catalog frame",
	"edit": "measure catalog frame layout fitting fit finding", "frametest": "measure catalog frame", "reading": "measure catalog", "fit": "measure catalog", "link": "measure catalog frame layout fitting fit why finding", "plan": "*",
}

// imports gives the imports of every package below a folder, tests apart.
func imports(t *testing.T, root string) map[string][]string {
	all := map[string][]string{}
	require.NoError(t, filepath.WalkDir("../../"+root, func(p string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(p, ".go") || strings.HasSuffix(p, "_test.go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), p, nil, parser.ImportsOnly)
		if err != nil {
			return err
		}
		room := filepath.ToSlash(filepath.Dir(strings.TrimPrefix(p, "../../")))
		for _, i := range f.Imports {
			name, err := strconv.Unquote(i.Path.Value)
			if err != nil {
				return err
			}
			all[room] = append(all[room], name)
		}
		return nil
	}))
	require.NotEmpty(t, all)
	return all
}

func TestCoreKnowsNothingOfInterfacesOrStorage(t *testing.T) {
	for room, names := range imports(t, "core") {
		allowed, known := above[path.Base(room)]
		require.True(t, known, "%s is a new room: say in this test what it may import", room)
		for _, n := range names {
			assert.NotContains(t, n, "frametest", "%s: that is for tests", room)
			switch {
			case strings.HasPrefix(n, module+"core/"):
				assert.True(t, allowed == "*" || strings.Contains(" "+allowed+" ", " "+path.Base(n)+" "), "%s may not import %s", room, n)
			case strings.HasPrefix(n, module):
				assert.Fail(t, "the core stands alone", "%s imports %s", room, n)
			default:
				first, _, _ := strings.Cut(n, "/")
				assert.NotContains(t, first, ".", "%s imports %s: the core needs the standard library alone so far", room, n)
				for _, never := range []string{"net/http", "database/sql", "os/exec", "time"} {
					assert.NotEqual(t, never, n, room)
				}
			}
		}
	}
}

func TestOuterRoomsStayOutOfEachOther(t *testing.T) {
	for room, names := range imports(t, "internal") {
		for _, n := range names {
			if room == "internal/store" || room == "internal/drawing" || room == "internal/export" {
				assert.NotContains(t, n, module+"internal/", "%s", room)
			}
		}
	}
}
