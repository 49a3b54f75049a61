// Package house_test holds the rules of the house: which room may import which.
package house_test

import (
	"go/parser"
	"go/token"
	"io/fs"
	"path"
	"path/filepath"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const module = "sturdyelbow/"

// above lists, for each room of the core, the rooms it may import. What is not in it
// may import what every analysis may.
var above = map[string]string{
	// what everything stands on
	"measure": "", "why": "measure", "linear": "", "together": "measure", "finding": "measure", "mention": "", "words": "", "message": "measure finding mention", "material": "measure catalog",
	"catalog": "measure", "curve": "measure linear", "constraint": "measure linear together",
	// the document, and where it stands
	"frame": "measure catalog mention", "frametest": "measure catalog frame", "layer": "measure catalog frame together", "wireframe": "measure catalog frame",
	"starter": "measure catalog frame fit layer", "reading": "measure catalog", "fit": "measure catalog",
	"layout":  "measure catalog frame why finding curve constraint mention",
	"fitting": "measure catalog frame layout finding curve", "cutlist": "measure catalog frame layout fitting why finding curve linear",
	"model": "measure catalog frame layout fitting cutlist curve finding", "modeltest": "measure catalog frame wireframe model",
	"edit":  "measure catalog frame layout fitting model fit finding message mention together words",
	"lines": "measure catalog frame layout model edit words",
	// what is bought, and how it is cut
	"packing": "", "families": "packing", "stock": "measure packing", "cost": "measure catalog material", "pieces": "measure catalog", "supply": "measure material cost", "pricelist": "measure catalog material cost reading", "shop": "measure catalog frame cost stock material supply",
	"record":  "measure catalog frame material shop",
	"joinery": "measure catalog frame fitting material",
	"procure": "measure catalog frame fitting model why finding material stock shop cost joinery record",
	// analyses, each of which is a question to a built frame or a purchase
	"link": analysis + " fit why material", "bows": analysis + " curve", "ends": analysis + " edit",
	"kept": analysis + " edit", "level": analysis + " edit together", "floor": analysis + " together", "sound": analysis + " together cutlist", "tolerance": analysis + " cutlist", "budget": analysis + " procure reading",
	"plan": "*",
}

// analysis is what every analysis may read. None reads another.
const analysis = "measure catalog frame layout fitting model finding"

// libraries are the packages from elsewhere that the core may use: those for numbers.
var libraries = []string{"gonum.org/v1/gonum"}

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
		if !known {
			allowed = analysis // a room that is not in the table is taken for an analysis
		}
		for _, n := range names {
			assert.NotContains(t, n, "frametest", "%s: that is for tests", room)
			assert.NotContains(t, n, "modeltest", "%s: that is for tests", room)
			switch {
			case strings.HasPrefix(n, module+"core/"):
				assert.True(t, allowed == "*" || strings.Contains(" "+allowed+" ", " "+path.Base(n)+" "), "%s may not import %s", room, n)
			case strings.HasPrefix(n, module):
				assert.Fail(t, "the core stands alone", "%s imports %s", room, n)
			default:
				first, _, _ := strings.Cut(n, "/")
				library := slices.ContainsFunc(libraries, func(l string) bool { return n == l || strings.HasPrefix(n, l+"/") })
				assert.True(
					t,
					library || !strings.Contains(first, "."),
					"%s imports %s, which is not among the libraries of the core",
					room,
					n,
				)
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
