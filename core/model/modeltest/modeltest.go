// Package modeltest builds frames for the tests of what judges them.
package modeltest

import (
	"context"
	"testing"

	"sturdyelbow/core/catalog"
	"sturdyelbow/core/frame"
	"sturdyelbow/core/measure"
	"sturdyelbow/core/model"
	"sturdyelbow/core/wireframe"
)

// Square is an upright square of 3/4 pipe on the floor, 40 in wide and 30 high
// between centres: 41.32 by 31.32 outside, over elbows of 1.32.
const Square = `{"wireframe":1,"joints":{"a":[0,0,0],"b":[40,0,0],"c":[40,0,30],"d":[0,0,30]},` +
	`"pipes":[["a","b"],["b","c"],["c","d"],["d","a"]]}`

// Built is a frame built from a wireframe's text with the typical catalog and a tape
// of sixteenths. A change, if any, is made to the document before.
func Built(t testing.TB, text string, change func(d *frame.Document)) *model.Built {
	t.Helper()
	d, err := wireframe.Read([]byte(text))
	if err != nil {
		t.Fatal(err)
	}
	if change != nil {
		change(d)
	}
	b, err := model.Build(context.Background(), d, catalog.Typical(), measure.Inch/16, 0)
	if err != nil {
		t.Fatal(err)
	}
	return b
}
